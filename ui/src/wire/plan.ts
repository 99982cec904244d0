/** A passage and a plan as the plan file has them; fields that nobody here knows are kept. */
export type PassageDoc = { [field: string]: unknown };
export type PlanDoc = { passages: PassageDoc[]; [field: string]: unknown };
