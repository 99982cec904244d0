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
  return isUncounted(phase) || phase.open;
}

/** Whether the phase is talk, natural breath or a natural pause. */
export function isUncounted(phase: ScorePhase): boolean {
  return ["talk", "free", "still"].includes(phase.kind);
}

/** The part of the running count: a zone, a movement, an aperture; nothing where there is none. */
export function partWord(place: Place): string {
  return place.phase?.parts?.[place.count] ?? "";
}

/** countShown is what stands large for the running count; a word's own beat has nothing. */
export function countShown(place: Place): string {
  return place.phase?.shows[place.count] ?? "";
}

/** Unit is the phases that are shown together, and which of them is in progress; -1 for none. */
export type Unit = { phases: ScorePhase[]; current: number };

function together(a: ScorePhase, b: ScorePhase): boolean {
  return a.passage === b.passage && a.stage === b.stage && a.round === b.round && a.kept === b.kept;
}

/** unit is the round in progress, or the opening, closing or stretch; before a round the round that comes is there already. */
export function unit(score: Score, place: Place): Unit {
  const here = place.phase;
  if (!here) return { phases: [], current: -1 };
  const all = score.wait ? [...score.phases, ...score.wait.phases] : score.phases;
  let first = place.index;
  while (!all[first]!.starts && first > 0 && together(all[first - 1]!, here)) first--;
  let end = endOfUnit(all, place.index);
  while (end < all.length && leadsOn(all[end - 1]!) && all[end]!.passage === here.passage)
    end = endOfUnit(all, end);
  return { phases: all.slice(first, end), current: place.index - first };
}

function endOfUnit(all: ScorePhase[], from: number): number {
  let end = from + 1;
  while (end < all.length && together(all[end]!, all[from]!) && !all[end]!.starts) end++;
  return end;
}

/** Whether a phase belongs to what comes after it: a beat, a lead-in, a rest. */
function leadsOn({ stage }: ScorePhase): boolean {
  return stage === "setup" || stage === "rest";
}
