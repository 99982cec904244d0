import { synchronize } from "../player/clock";
import { post } from "../wire/api";
import type { BegunApart, Kit } from "../wire/contract";
import { keptClass, type KeptKit, renumber } from "./kept";

const patience = 5000; // ms

/** tellBegun tells the program of a class that was begun here and that no page leads any more, and returns its number there. */
export async function tellBegun(here: number): Promise<number> {
  await synchronize();
  const { kit, presses } = await keptClass(here);
  const at = (presses.at(-1)?.line as { at_ms?: number } | undefined)?.at_ms ?? 0;
  const known = await post<Kit>("/classes/apart", begun(kit!, at), AbortSignal.timeout(patience));
  await renumber(here, { ...known, pressed: [] });
  return known.class_id;
}

/** begun is what the program is told of a class that was begun here, which has come so far. */
export function begun(kit: KeptKit, at: number): BegunApart {
  return {
    uid: kit.uid,
    plan_id: kit.plan_id,
    group_id: kit.group?.id ?? 0,
    started_ms: kit.started_ms,
    at_ms: at,
    document: kit.document,
    acknowledged: kit.acknowledged ?? [],
  };
}
