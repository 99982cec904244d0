import type { Score } from "../../wire/contract";

/** waiting is the first phase at or after a moment that a touch ends; -1 where none comes. */
export function waiting(score: Score, from: number): number {
  return score.phases.findIndex((phase) => phase.open && phase.end_ms > from);
}

/**
 * untilTouched is a score as it runs from a moment on until a touch: its next phase that waits has no end. Where none comes
 * it is the score itself.
 */
export function untilTouched(score: Score, from: number): Score {
  const index = waiting(score, from);
  if (index < 0) return score;
  const end = score.phases[index]!.end_ms;
  const until = (at: number) => (at < 0 || at >= end ? -1 : at);
  const before = <One extends { at_ms: number }>(list: One[]) => list.filter((one) => one.at_ms < end);
  const cues = before(score.cues).map((cue) => ({ ...cue, until_ms: until(cue.until_ms) }));
  return {
    ...score,
    phases: score.phases
      .slice(0, index + 1)
      .map((phase, i) => (i === index ? { ...phase, end_ms: -1 } : phase)),
    cues,
    spoken: before(score.spoken),
    lane_spoken: before(score.lane_spoken),
  };
}
