import { now } from "../player/clock";
import { Failed, get } from "../wire/api";
import type { Kit, Lead } from "../wire/contract";
import { startCore } from "./core";
import { endHere, type KeptKit, keepClass, runningHere } from "./kept";

/** beginApart begins a class on this device, and returns its number here. The application gives it another one later. */
export async function beginApart(lead: Lead & { uid: string }): Promise<number> {
  const kit = await get<Kit>(`/plans/${lead.plan_id}/kit`).catch(() => {
    throw new Failed({ say: { id: "apart.not-held" } }, 0);
  });
  const other = await runningHere(now()).catch(() => undefined);
  if (other && !lead.end_running) {
    const say = { id: "class.running-go-back", args: { title: other.title } };
    throw new Failed({ say, class_id: other.id }, 409);
  }
  if (other) await endHere(other.id, now());
  const begun: KeptKit = {
    ...kit,
    class_id: -Date.now(),
    uid: lead.uid,
    document: await asLed(kit, lead),
    acknowledged: lead.acknowledged,
    started_ms: Math.floor(now()),
  };
  try {
    await keepClass(begun);
  } catch {
    throw new Failed({ say: { id: "apart.cannot-keep" } }, 0);
  }
  return begun.class_id;
}

/** asLed is the plan as it is led: with gentle variants, and fitted into what is left of its time. */
async function asLed(kit: Kit, { gentle = [], fit }: Lead): Promise<string> {
  if (!fit && gentle.length === 0) return kit.document;
  const core = startCore();
  try {
    return await core.ask<string>({ ask: "to-lead", kit, gentle, fit, at_ms: Math.floor(now()) });
  } finally {
    core.end();
  }
}
