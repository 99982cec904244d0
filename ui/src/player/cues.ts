import type { Score, ScorePhase } from "../wire/contract";
import type { Cue } from "./useCue";

/** The word for what is done, in the words of the class. */
export function phaseWord(phase: ScorePhase): string {
  return phase.word;
}

/** The side as it is said; nothing where both nostrils breathe. */
export function sideWord(phase: ScorePhase): string {
  return phase.kind === "lead" ? "" : phase.side;
}

/** Sides is how sides are said: as the class says them, or as a participant would rather read them. */
export type Sides = "class" | "named" | "hand";

export function sideSaid(score: Score, phase: ScorePhase, sides: Sides): string {
  if (sides === "class" || (phase.through !== "left" && phase.through !== "right")) return sideWord(phase);
  return phase.kind === "lead" ? "" : score[phase.through][sides];
}

/** Whether the phase is a single stretch of time and not counts. */
export function isStretch(phase: ScorePhase): boolean {
  return ["talk", "free", "still"].includes(phase.kind) || phase.open;
}

/** The part of the running count: a zone, a movement, an aperture; nothing where there is none. */
export function partWord(cue: Cue): string {
  return cue.phase?.parts?.[cue.count] ?? "";
}

/** number of the running count as it is shown; a word's own beat has none. */
export function countShown(cue: Cue): string {
  if (!cue.phase || isStretch(cue.phase)) return "";
  const n = cue.phase.first + cue.count;
  return n === 0 ? "" : String(n);
}

/** following is the phases after the one in progress, those behind a wait included. */
export function following(score: Score, cue: Cue): ScorePhase[] {
  const later = score.phases.slice(cue.index + 1);
  return score.wait ? [...later, ...score.wait.phases] : later;
}

/** nextInWords says what comes after the phase in progress: "hold, 4", "exhale right, 8". */
export function nextInWords(score: Score, cue: Cue): string {
  const next = following(score, cue)[0];
  if (!next) return "the end of the class";
  const passage = score.passages[next.passage - 1];
  if (cue.phase && next.passage !== cue.phase.passage && passage) return passage.name;
  const side = sideWord(next);
  const what = side ? `${phaseWord(next)} ${side}` : phaseWord(next);
  return isStretch(next) ? what : `${what}, ${next.of}`;
}

const callShown = 6000; // ms

/** calling is what is called out now: the last round, half way, a minute left, a prompt of the teacher's own. */
export function calling(score: Score, at: number): string {
  return score.calls
    .filter((c) => c.at_ms <= at && at < c.at_ms + callShown)
    .map((c) => c.text)
    .join(" · ");
}

/** unit is the phases that are shown together with the one in progress: its round, opening, closing or stretch. */
export function unit(score: Score, cue: Cue): { phases: ScorePhase[]; current: number } {
  const here = cue.phase;
  if (!here) return { phases: [], current: -1 };
  const together = (a: ScorePhase) =>
    a.passage === here.passage && a.stage === here.stage && a.round === here.round && a.kept === here.kept;
  let first = cue.index;
  while (!score.phases[first]!.starts && first > 0 && together(score.phases[first - 1]!)) first--;
  let end = cue.index + 1;
  while (end < score.phases.length && together(score.phases[end]!) && !score.phases[end]!.starts) end++;
  const phases = score.phases.slice(first, end);
  if (end === score.phases.length && score.wait) {
    // What follows an open phase of the same round.
    const over = score.wait.phases.findIndex((s) => !together(s) || s.starts);
    phases.push(...score.wait.phases.slice(0, over < 0 ? undefined : over));
  }
  return { phases, current: cue.index - first };
}
