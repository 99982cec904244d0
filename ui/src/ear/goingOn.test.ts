import { expect, test } from "vitest";
import { goesOn, type Open } from "./goingOn";

const tone = (from: number, end: number | null, sure = true) => ({
  from,
  end,
  sure,
  still: null,
});
const open = (part: Partial<Open>): Open => ({
  from: 10_000,
  now: 20_000,
  sounding: null,
  ended: null,
  longest: 0,
  ...part,
});

test.each([
  ["silent for a second", { ended: tone(11_000, 19_000) }, "silence"],
  ["silent for less", { ended: tone(11_000, 19_100) }, null],
  ["it sounds again", { ended: tone(11_000, 15_000), sounding: tone(18_000, null) }, null],
  ["nobody sounded", {}, null],
  ["it ended before the phase began", { ended: tone(4_000, 9_900) }, null],
  ["it began before its cue", { ended: tone(9_000, 18_000) }, "silence"],
  ["a cough", { ended: tone(11_000, 11_700) }, null],
  ["what ended cannot be told surely", { ended: tone(11_000, 15_000, false) }, null],
  ["as long as is allowed, though it sounds", { sounding: tone(11_000, null), longest: 10 }, "longest"],
  ["as long as is allowed, though nobody was heard", { longest: 10 }, "longest"],
  ["not yet as long", { longest: 15 }, null],
])("%s", (_, part, why) => {
  expect(goesOn(open(part))).toBe(why);
});
