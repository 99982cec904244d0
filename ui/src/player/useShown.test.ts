import { expect, test, vi } from "vitest";
import type { Cue, Score } from "../wire/contract";

vi.stubGlobal("window", {}); // the clock of the page hangs itself up there for tests
const { changes, shownAt, textOf } = await import("./useShown");

const cue = (kind: Cue["kind"], at_ms: number, until_ms: number, text: string) =>
  ({ kind, at_ms, until_ms, text }) as Cue;
const score = {
  cues: [
    cue("now", 0, 4000, "inhale"),
    cue("next", 0, 4000, "exhale, 4"),
    cue("hand", 1000, 4000, "hand up"),
    cue("now", 4000, -1, "rest"),
  ],
} as Score;

test("a cue is there from its beginning until just before its end", () => {
  expect(shownAt(score, 999).map((c) => c.text)).toEqual(["inhale", "exhale, 4"]);
  expect(shownAt(score, 3999)).toHaveLength(3);
  expect(shownAt(score, 4000).map((c) => c.text)).toEqual(["rest"]);
  expect(shownAt(score, 1e9).map((c) => c.text)).toEqual(["rest"]);
});

test("the screen looks again when one begins or ends", () => {
  expect(changes(score, 0)).toBe(1000);
  expect(changes(score, 1000)).toBe(4000);
  expect(changes(score, 4000)).toBe(Infinity);
});

test("texts come by their kinds, in order", () => {
  expect(textOf(score.cues, "hand", "now")).toEqual(["inhale", "hand up", "rest"]);
});
