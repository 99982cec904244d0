import type { Score, ScorePassage } from "../wire/contract";

/** overrun is how long what waits has lasted beyond its plan, in ms: everything after it comes so much later. */
export function overrun({ wait }: Pick<Score, "wait">, now: number): number {
  return wait ? Math.max(0, now - wait.planned_end_ms) : 0;
}

/** moved is a passage as it will come: later by the overrun, or longer where it is the one that waits. */
export function moved(passage: ScorePassage, here: boolean, after: boolean, by: number): ScorePassage {
  if (by === 0 || passage.start_ms < 0 || (!here && !after)) return passage;
  return { ...passage, start_ms: passage.start_ms + (after ? by : 0), end_ms: passage.end_ms + by };
}
