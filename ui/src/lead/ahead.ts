import type { Score, ScorePhase } from "../wire/contract";

/** What is done now and next changes with the phase; lines and calls go on. */
const ofThePhase = ["now", "next", "hand"];

/**
 * advanced is the score as it will be once the application has gone on from the phase that waits, at a moment in ms of the
 * class: what was planned to follow begins there, up to the next phase that waits. It is null where nothing waits, or where the
 * phase has just begun and going on would be refused (pacing.md section 7). The application's own score replaces it.
 */
export function advanced(score: Score, at: number): Score | null {
  const waiting = score.phases.at(-1);
  if (!waiting?.open || waiting.end_ms >= 0 || !score.wait || at <= waiting.at_ms[0]!) return null;
  const after = score.wait.phases.map((phase) => shifted(phase, at));
  const next = after.findIndex((phase) => phase.open);
  const until = after[next]?.end_ms ?? 0;
  const known = next < 0 ? after : [...after.slice(0, next), { ...after[next]!, end_ms: -1 }];
  return {
    ...score,
    phases: [...score.phases.slice(0, -1), { ...waiting, end_ms: at }, ...known],
    wait:
      next < 0
        ? null
        : {
            planned_end_ms: until,
            phases: after.slice(next + 1).map((phase) => shifted(phase, -until)),
            length_ms: score.wait.length_ms - (until - at),
          },
    cues: score.cues.map((cue) =>
      cue.until_ms < 0 && ofThePhase.includes(cue.kind) ? { ...cue, until_ms: at } : cue,
    ),
  };
}

function shifted(phase: ScorePhase, by: number): ScorePhase {
  return {
    ...phase,
    at_ms: phase.at_ms.map((at) => at + by),
    end_ms: phase.end_ms < 0 ? phase.end_ms : phase.end_ms + by,
  };
}

export const bounce = 300; // ms within which a pedal that bounces, or a finger that slips, presses once

/** Once lets the first of several presses through that come close together. */
export class Once {
  private last = -Infinity;

  /** counts tells whether a press at a moment, in ms, counts. */
  counts(at: number): boolean {
    if (at - this.last < bounce) return false;
    this.last = at;
    return true;
  }
}
