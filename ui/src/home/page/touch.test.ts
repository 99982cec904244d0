import { describe, expect, it } from "vitest";
import type { Score } from "../../wire/contract";
import { untilTouched, waiting } from "./touch";

const phase = (at: number, end: number, open: boolean) => ({ at_ms: [at], end_ms: end, open });
const score = {
  phases: [
    phase(0, 2000, false),
    phase(2000, 6000, true),
    phase(6000, 10_000, true),
    phase(10_000, 12_000, false),
  ],
  cues: [
    { at_ms: 0, until_ms: 3000 },
    { at_ms: 2500, until_ms: 8000 },
    { at_ms: 6000, until_ms: 7000 },
  ],
  spoken: [{ at_ms: 2000 }, { at_ms: 6000 }],
  lane_spoken: [{ at_ms: 6000 }],
} as unknown as Score;

describe("a phase that waits for a touch", () => {
  it("is the next one from a moment on", () => {
    expect(waiting(score, 0)).toBe(1);
    expect(waiting(score, 5999)).toBe(1);
    expect(waiting(score, 6000)).toBe(2);
    expect(waiting(score, 10_000)).toBe(-1);
  });

  it("has no end, and nothing comes after it", () => {
    const until = untilTouched(score, 0);
    expect(until.phases.map((p) => p.end_ms)).toEqual([2000, -1]);
    expect(until.cues.map((c) => [c.at_ms, c.until_ms])).toEqual([
      [0, 3000],
      [2500, -1],
    ]);
    expect(until.spoken).toHaveLength(1);
    expect(until.lane_spoken).toHaveLength(0);
  });

  it("leaves a score as it is where none comes", () => {
    expect(untilTouched(score, 10_000)).toBe(score);
  });
});
