import type { Score, Spoken } from "../../wire/contract";

/** spokenTo is what the voice says besides the count: to everybody, and if wanted to those on the gentler lane. */
export function spokenTo(score: Score, others: boolean): Spoken[] {
  if (!others || score.lane_spoken.length === 0) return score.spoken;
  return [...score.spoken, ...score.lane_spoken].sort((a, b) => a.at_ms - b.at_ms);
}
