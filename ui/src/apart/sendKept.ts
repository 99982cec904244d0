import { Failed, post, unanswered } from "../wire/api";
import type { Adjust, Presses, Taken } from "../wire/contract";
import { atOnce, everythingKept, forgetClass, keptClass, noteSent } from "./kept";
import { tellBegun } from "./tellBegun";

const longOver = 24 * 3600_000; // ms after its start, when a class is over for sure: none is longer than 12 hours

/**
 * sendKept sends what was pressed in classes that no page of this device leads any more. It tells whether anything was sent,
 * and whether anything is left. Where the teacher has to choose, it stays here until the class is opened again.
 */
export async function sendKept(): Promise<{ sent: boolean; left: boolean }> {
  let sent = false;
  let left = false;
  for (const { id: here, startedMS, unsent } of await everythingKept().catch(() => [])) {
    if (unsent === 0) {
      if (Date.now() - startedMS > longOver) await forgetClass(here).catch(() => undefined);
      continue;
    }
    try {
      const id = here < 0 ? await tellBegun(here) : here;
      const taken = await post<Taken>(`/classes/${id}/presses`, await unsentOf(id));
      if (taken.asked) continue;
      const keys = taken.pressed.map((pressed) => pressed.key);
      const all = unsent <= atOnce;
      await (all && taken.score.over ? forgetClass(id) : noteSent(id, keys));
      sent = true;
      left ||= !all;
    } catch (error) {
      // What is refused, as of a class that was deleted, stays here until the teacher removes it.
      left ||= unanswered(error) || !(error instanceof Failed) || error.status === 401;
    }
  }
  return { sent, left };
}

/** unsentOf is what the program may lack of a class, as docs/rules/apart.md section 3 has it. */
async function unsentOf(id: number): Promise<Presses> {
  const { kit, presses, unsent } = await keptClass(id);
  const known = kit?.pressed ?? [];
  return {
    since: known.length,
    last: known.at(-1)?.key ?? "",
    presses: unsent
      .slice(0, atOnce)
      .map(({ key, line }) => ({ ...(line as Adjust & { at_ms: number }), key })),
    apart: true,
    choose: "",
    keys: [...known, ...presses].map((pressed) => pressed.key),
  };
}
