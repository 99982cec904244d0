import { expect, test } from "vitest";
import type { Watched, WatchedAct } from "../../wire/contract";
import { layout } from "./layout";
import { inWords, postureAt, toward } from "./posture";

const person = (acts: WatchedAct[], signs: Watched["signs"] = []): Watched => ({
  breath_ms: 4000,
  acts,
  signs,
});
const act = (do_: WatchedAct["do"], at_ms: number, until_ms: number, more = {}): WatchedAct => ({
  do: do_,
  at_ms,
  until_ms,
  ...more,
});

test("a breath fills, is held, and empties; one that is done waits", () => {
  const p = person([
    act("inhale", 0, 4000),
    act("hold", 4000, 8000),
    act("exhale", 8000, 10_000),
    act("empty", 12_000, 14_000),
  ]);
  const breath = (at: number) => postureAt(p, at, 0).breath;
  expect(breath(0)).toBeCloseTo(0);
  expect(breath(2000)).toBeCloseTo(0.5);
  expect(breath(4000)).toBe(1);
  expect(breath(7999)).toBe(1);
  expect(breath(9000)).toBeCloseTo(0.5);
  expect(breath(11_500)).toBeCloseTo(0); // before the count is over
  expect(breath(13_000)).toBe(0);
});

test("the hand closes the nostril that does not breathe, and both in a hold", () => {
  const p = person([
    act("inhale", 0, 4000, { through: "left" }),
    act("hold", 4000, 8000),
    act("exhale", 8000, 12_000, { through: "right" }),
    act("natural", 12_000, 20_000),
  ]);
  expect(postureAt(p, 1000, 0).hand).toBe("right");
  expect(postureAt(p, 5000, 0).hand).toBe("both");
  expect(postureAt(p, 9000, 0).hand).toBe("left");
  expect(postureAt(p, 13_000, 0).hand).toBe("");
});

test("a sign is to be seen for its time, by its look", () => {
  const shows = (id: string) => {
    const p = person([act("inhale", 0, 60_000)], [{ id, at_ms: 1000, until_ms: 4000 }]);
    expect(inWords(postureAt(p, 900, 3))).toBe("sits quietly");
    expect(inWords(postureAt(p, 4000, 3))).toBe("sits quietly");
    return inWords(postureAt(p, 2500, 3));
  };
  expect(shows("gasp")).toBe("mouth open, shoulders lifted");
  expect(shows("tight")).toBe("shoulders lifted, face tight");
  expect(shows("early")).toBe("eyes open");
  expect(shows("unwell")).toBe("holds the forehead and leans");
  expect(shows("rushed")).toBe("mouth open, sinks");
});

test("somebody comes late to a place that was empty", () => {
  const p = person([act("absent", 0, 5000), act("comes", 5000, 11_000), act("natural", 11_000, 11_000)]);
  expect(inWords(postureAt(p, 4000, 0))).toBe("an empty place");
  expect(inWords(postureAt(p, 8000, 0))).toBe("comes in");
  expect(inWords(postureAt(p, 12_000, 0))).toBe("sits quietly");
});

test("belly strokes pump as often as they are counted", () => {
  const p = person([act("stroke", 0, 10_000, { counts: 10 })]);
  let pumps = 0;
  for (let at = 10, before = 0; at < 10_000; at += 10) {
    const { belly } = postureAt(p, at, 0);
    if (before < 0.5 && belly >= 0.5) pumps++;
    before = belly;
  }
  expect(pumps).toBe(10);
});

test("nobody jumps from one posture to the next", () => {
  const from = postureAt(person([act("empty", 0, 1000)]), 500, 0);
  const to = postureAt(person([act("hold", 0, 1000)]), 500, 0);
  expect(toward(from, to, 0.25).breath).toBeCloseTo(0.25);
  expect(toward(undefined, to, 0.25)).toBe(to);
});

test.each([
  [1, 700, 300],
  [8, 700, 300],
  [14, 690, 320],
  [20, 690, 320],
  [20, 370, 180],
])("%i people have room in %i by %i", (people, width, height) => {
  const { places } = layout(people, width, height);
  expect(places).toHaveLength(people);
  for (const { x, y, scale } of places) {
    expect(scale).toBeGreaterThan(0);
    expect(x).toBeGreaterThan(-1);
    expect(x + 100 * scale).toBeLessThan(width + 1);
    expect(y).toBeGreaterThan(-1);
    expect(y + 112 * scale).toBeLessThan(height + 1);
  }
});
