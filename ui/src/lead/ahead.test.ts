import { expect, test } from "vitest";
import { aPhase, aScore } from "../test/score";
import type { Cue, Score } from "../wire/contract";
import { advanced, bounce, Once } from "./ahead";

const open = (kind: "inhale" | "exhale", at: number, end: number) =>
  aPhase({ kind, word: kind, open: true, of: 1, at_ms: [at], end_ms: end });
const hold = (at: number) =>
  aPhase({ kind: "hold", word: "hold", at_ms: [at, at + 1000], end_ms: at + 2000 });

/** An inhale by hand that began at 10 s; then a hold of two counts, and an exhale and an inhale by hand. */
const waiting = (change: Partial<Score> = {}) =>
  aScore([hold(0), open("inhale", 10_000, -1)], {
    wait: {
      planned_end_ms: 14_000,
      phases: [hold(0), open("exhale", 2000, 8000), open("inhale", 8000, 12_000)],
      length_ms: 12_000,
    },
    ...change,
  });

test("going on ends the phase now and begins what was to follow, up to the next that waits", () => {
  const next = advanced(waiting(), 13_500)!;
  expect(next.phases.map((p) => [p.kind, p.at_ms[0], p.end_ms])).toEqual([
    ["hold", 0, 2000],
    ["inhale", 10_000, 13_500],
    ["hold", 13_500, 15_500],
    ["exhale", 15_500, -1],
  ]);
  expect(next.phases[2]!.at_ms).toEqual([13_500, 14_500]);
  expect(next.wait!.planned_end_ms).toBe(21_500);
  expect(next.wait!.phases.map((p) => [p.kind, p.at_ms[0], p.end_ms])).toEqual([["inhale", 0, 4000]]);
  expect(next.wait!.length_ms).toBe(4000);
});

test("it can go on again before the application has answered", () => {
  const again = advanced(advanced(waiting(), 13_500)!, 20_000)!;
  expect(again.phases.slice(-2).map((p) => [p.kind, p.at_ms[0], p.end_ms])).toEqual([
    ["exhale", 15_500, 20_000],
    ["inhale", 20_000, -1],
  ]);
  expect(again.wait!.phases).toEqual([]);
});

test("after the last phase that waits the class runs by itself", () => {
  const last = waiting({ wait: { planned_end_ms: 14_000, phases: [hold(0)], length_ms: 2000 } });
  const next = advanced(last, 12_000)!;
  expect(next.wait).toBeNull();
  expect(next.phases.at(-1)!.end_ms).toBe(14_000);
});

test("what is done now and next ends with the phase, lines go on", () => {
  const cue = (kind: Cue["kind"]) => ({ kind, at_ms: 10_000, until_ms: -1, text: kind }) as Cue;
  const next = advanced(waiting({ cues: [cue("now"), cue("next"), cue("hand"), cue("line")] }), 12_000)!;
  expect(next.cues.map((c) => [c.kind, c.until_ms])).toEqual([
    ["now", 12_000],
    ["next", 12_000],
    ["hand", 12_000],
    ["line", -1],
  ]);
});

test("nothing is shown ahead that would be refused or that does not wait", () => {
  expect(advanced(waiting(), 10_000)).toBeNull(); // nothing of it is done yet
  expect(advanced(aScore([hold(0)]), 1000)).toBeNull();
  expect(advanced(aScore([aPhase({ kind: "talk", at_ms: [0], end_ms: -1 })]), 1000)).toBeNull();
});

test("of presses that come close together the first counts", () => {
  const once = new Once();
  expect([0, bounce - 1, bounce, bounce + 1, 2 * bounce].map((at) => once.counts(at))).toEqual([
    true,
    false,
    true,
    false,
    true,
  ]);
});
