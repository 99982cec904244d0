import type { Score, Strand } from "../wire/contract";
import type { Cue } from "./useCue";

/** The word for what is done, in the words of the class. */
export function phaseWord(strand: Strand): string {
  return strand.word;
}

/** The side as it is said; nothing where both nostrils breathe. */
export function sideWord(strand: Strand): string {
  return strand.phase === "lead" ? "" : strand.side;
}

/** Sides is how sides are said: as the class says them, or as a participant would rather read them. */
export type Sides = "class" | "named" | "hand";

export function sideSaid(score: Score, strand: Strand, sides: Sides): string {
  if (sides === "class" || (strand.through !== "left" && strand.through !== "right")) return sideWord(strand);
  return strand.phase === "lead" ? "" : score[strand.through][sides];
}

/** Whether the strand is a single stretch of time and not counts. */
export function isStretch(strand: Strand): boolean {
  return ["talk", "free", "still"].includes(strand.phase) || strand.open;
}

/** The part of the running count: a zone, a movement, an aperture; nothing where there is none. */
export function partWord(cue: Cue): string {
  return cue.strand?.parts?.[cue.count] ?? "";
}

/** number of the running count as it is shown; a word's own beat has none. */
export function countShown(cue: Cue): string {
  if (!cue.strand || isStretch(cue.strand)) return "";
  const n = cue.strand.first + cue.count;
  return n === 0 ? "" : String(n);
}

/** following is the strands after the one in progress, those behind a wait included. */
export function following(score: Score, cue: Cue): Strand[] {
  const later = score.strands.slice(cue.index + 1);
  return score.wait ? [...later, ...score.wait.strands] : later;
}

/** nextInWords says what comes after the strand in progress: "hold, 4", "exhale right, 8". */
export function nextInWords(score: Score, cue: Cue): string {
  const next = following(score, cue)[0];
  if (!next) return "the end of the class";
  const passage = score.passages[next.passage - 1];
  if (cue.strand && next.passage !== cue.strand.passage && passage) return passage.name;
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

/** unit is the strands that are shown together with the one in progress: its round, opening, closing or stretch. */
export function unit(score: Score, cue: Cue): { strands: Strand[]; current: number } {
  const here = cue.strand;
  if (!here) return { strands: [], current: -1 };
  const together = (a: Strand) =>
    a.passage === here.passage && a.stage === here.stage && a.round === here.round && a.kept === here.kept;
  let first = cue.index;
  while (!score.strands[first]!.starts && first > 0 && together(score.strands[first - 1]!)) first--;
  let end = cue.index + 1;
  while (end < score.strands.length && together(score.strands[end]!) && !score.strands[end]!.starts) end++;
  const strands = score.strands.slice(first, end);
  if (end === score.strands.length && score.wait) {
    // What follows an open phase of the same round.
    const over = score.wait.strands.findIndex((s) => !together(s) || s.starts);
    strands.push(...score.wait.strands.slice(0, over < 0 ? undefined : over));
  }
  return { strands, current: cue.index - first };
}
