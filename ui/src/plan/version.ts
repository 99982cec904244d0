import type { PlanDoc } from "../wire/plan";

/** Version is one state of a plan that is edited. */
export type Version = { document: PlanDoc; group: number };
