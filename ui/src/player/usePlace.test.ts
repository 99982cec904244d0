import { expect, test, vi } from "vitest";
import type { Score, ScorePhase } from "../wire/contract";

vi.stubGlobal("window", {}); // the clock of the page hangs itself up there for tests
const { locate } = await import("./usePlace");

const phase = (kind: ScorePhase["kind"], at_ms: number[], end_ms: number) =>
  ({ kind, at_ms, end_ms }) as ScorePhase;
const score = {
  phases: [phase("inhale", [0, 1000], 2000), phase("exhale", [2000, 3000, 4000], 5000)],
} as Score;

test.each([
  [-1, undefined, 0, false],
  [0, "inhale", 0, false],
  [999, "inhale", 0, false],
  [1000, "inhale", 1, false],
  [2000, "exhale", 0, false],
  [4999, "exhale", 2, false],
  [5000, undefined, 0, true],
])("at %d ms the place is %s, count %d", (at, kind, count, over) => {
  const place = locate(score, at);
  expect([place.phase?.kind, place.count, place.over]).toEqual([kind, count, over]);
});

test("a phase that waits goes on until there is a new score", () => {
  const waiting = { phases: [phase("free", [0], -1)] } as Score;
  expect(locate(waiting, 3_600_000)).toMatchObject({ index: 0, over: false });
});
