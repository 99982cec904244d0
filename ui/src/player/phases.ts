import type { Score, ScorePhase } from "../wire/contract";
import type { Place } from "./usePlace";

/** Sides is how sides are said: as the class says them, or as a participant would rather read them. */
export type Sides = "class" | "named" | "hand";

export function sideSaid(score: Score, phase: ScorePhase, sides: Sides): string {
  if (sides === "class" || (phase.through !== "left" && phase.through !== "right")) return phase.side;
  return score[phase.through][sides];
}

/** Whether the phase is a single stretch of time and not counts. */
export function isStretch(phase: ScorePhase): boolean {
  return ["talk", "free", "still"].includes(phase.kind) || phase.open;
}

/** The part of the running count: a zone, a movement, an aperture; nothing where there is none. */
export function partWord(place: Place): string {
  return place.phase?.parts?.[place.count] ?? "";
}

/** countShown is what stands large for the running count; a word's own beat has nothing. */
export function countShown(place: Place): string {
  return place.phase?.shows[place.count] ?? "";
}

/** unit is the phases that are shown together with the one in progress: its round, opening, closing or stretch. */
export function unit(score: Score, place: Place): { phases: ScorePhase[]; current: number } {
  const here = place.phase;
  if (!here) return { phases: [], current: -1 };
  const together = (a: ScorePhase) =>
    a.passage === here.passage && a.stage === here.stage && a.round === here.round && a.kept === here.kept;
  let first = place.index;
  while (!score.phases[first]!.starts && first > 0 && together(score.phases[first - 1]!)) first--;
  let end = place.index + 1;
  while (end < score.phases.length && together(score.phases[end]!) && !score.phases[end]!.starts) end++;
  const phases = score.phases.slice(first, end);
  if (end === score.phases.length && score.wait) {
    // What follows an open phase of the same round.
    const over = score.wait.phases.findIndex((s) => !together(s) || s.starts);
    phases.push(...score.wait.phases.slice(0, over < 0 ? undefined : over));
  }
  return { phases, current: place.index - first };
}
