import { expect, test } from "vitest";
import type { ScorePhase } from "../wire/contract";
import { fitLamps, groupsOf, sizeOf } from "./lampFit";

const phase = (lamps: number, more: Partial<ScorePhase> = {}) =>
  ({
    kind: "inhale",
    through: "both",
    first: 1,
    at_ms: Array.from({ length: lamps }, (_, i) => i * 1000),
    end_ms: lamps * 1000,
    ...more,
  }) as ScorePhase;

const lamps = (p: ScorePhase) => groupsOf(p).map((group) => `${group.name} ${group.lamps.join()}`.trim());

test("lamps stand as they are said: in fours, by zone, by width, and a word's own beat counts for none", () => {
  expect(lamps(phase(6))).toEqual(["0,1,2,3", "4,5"]);
  expect(lamps(phase(5, { first: 0 }))).toEqual(["0,1,2,3,4"]);
  const zones = ["belly", "belly", "ribs", "ribs", "chest"];
  expect(lamps(phase(5, { parts: zones }))).toEqual(["belly 0,1", "ribs 2,3", "chest 4"]);
  expect(lamps(phase(6, { parts: Array(6).fill("narrow") }))).toEqual(["narrow 0,1,2,3", "4,5"]);
});

const em = (text: string) => text.length * 0.6;
const round = [
  sizeOf(phase(4, { through: "left" }), "inhale left", em),
  sizeOf(phase(16, { kind: "hold" }), "hold", em),
  sizeOf(phase(8, { through: "right" }), "exhale right", em),
];

/** The height that the round needs at the size, counted the long way: lines of as many fours as there is room for. */
function needed(width: number, { lamp, text, labels }: ReturnType<typeof fitLamps>): number {
  const four = 4 * lamp + 3 * 0.18 * lamp;
  let height = 2 * Math.max(3, 0.3 * lamp);
  for (const [fours, label] of [
    [1, 11],
    [4, 4],
    [2, 12],
  ] as const) {
    const room = labels === "above" ? width : width - (label * 0.6 + 1) * text;
    const inALine = Math.floor((room + 0.6 * lamp) / (four + 0.6 * lamp));
    expect(inALine, "a four is never broken").toBeGreaterThan(0);
    const lines = Math.ceil(fours / inALine);
    height += lines * 1.62 * lamp + (lines - 1) * 0.22 * lamp + (labels === "above" ? 1.25 * text : 0);
  }
  return height;
}

test.each([
  [330, 90],
  [360, 400],
  [780, 330],
  [1200, 200],
  [3600, 1200],
])("in %d x %d the lamps are as large as they can be", (width, height) => {
  const fit = fitLamps(round, width, height);
  expect(needed(width, fit)).toBeLessThanOrEqual(height + 0.01);
  expect(fit.lamp).toBeGreaterThan(8);
  const larger = { ...fit, lamp: fit.lamp * 1.05 };
  const capped = fit.lamp > 0.155 * Math.max(width, height);
  if (!capped) expect(needed(width, larger)).toBeGreaterThan(height);
});

test("hundreds of strokes stay in their box", () => {
  const strokes = [sizeOf(phase(300, { kind: "stroke" }), "out", em)];
  expect(fitLamps(strokes, 340, 150).lamp).toBeGreaterThan(4);
});
