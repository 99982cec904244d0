import { expect, it } from "vitest";
import type { Score, ScorePassage } from "../wire/contract";
import { moved, overrun } from "./overrun";

const wait = { planned_end_ms: 20_000, length_ms: 30_000, phases: [] } as unknown as Score["wait"];
const passage = { start_ms: 20_000, end_ms: 50_000 } as ScorePassage;

it("is nothing before the planned end, and where nothing waits", () => {
  expect(overrun({ wait }, 19_000)).toBe(0);
  expect(overrun({ wait: null }, 90_000)).toBe(0);
});

it("grows with every second beyond the plan", () => {
  expect(overrun({ wait }, 25_000)).toBe(5000);
});

it("moves what comes after, and makes what waits longer", () => {
  expect(moved(passage, false, true, 5000)).toMatchObject({ start_ms: 25_000, end_ms: 55_000 });
  expect(moved(passage, true, false, 5000)).toMatchObject({ start_ms: 20_000, end_ms: 55_000 });
  expect(moved(passage, false, false, 5000)).toBe(passage);
  expect(moved({ ...passage, start_ms: -1 }, false, true, 5000).start_ms).toBe(-1);
});
