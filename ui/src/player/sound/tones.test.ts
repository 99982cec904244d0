import { expect, test } from "vitest";
import { aPhase } from "../../test/score";
import type { Score } from "../../wire/contract";
import { isTick, rest, tonesOf } from "./tones";

const inhale = aPhase({ kind: "inhale", at_ms: [1000, 2000, 3000, 4000], end_ms: 5000 });
const glides = (score: Pick<Score, "phases" | "wait">) => tonesOf(score).filter((tone) => !isTick(tone));

test("a counted inhale rises to its end, with a tick for each count", () => {
  const tones = tonesOf({ phases: [inhale], wait: null });
  const [glide] = tones;
  expect(glide).toMatchObject({ at: 1000, length: 4000 });
  expect(glide!.to).toBeGreaterThan(glide!.from);
  expect(tones.filter(isTick).map((tone) => tone.at)).toEqual([1000, 2000, 3000, 4000]);
});

test("an inhale by hand rises for its planned length, then rests on that pitch until the teacher goes on", () => {
  const waits = aPhase({ kind: "inhale", at_ms: [1000], end_ms: -1, open: true });
  const wait = { planned_end_ms: 5000 } as Score["wait"];
  const [rises, rests, ...more] = glides({ phases: [waits], wait });
  expect(more).toEqual([]);
  expect(rises).toMatchObject({ at: 1000, length: 4000 });
  expect(rests).toMatchObject({ at: 5000, from: rises!.to, to: rises!.to });
  expect(rests!.loud).toBeLessThan(rises!.loud);
  expect(rest(rests!, 60_000)).toMatchObject({ at: 60_000, from: rises!.to }); // a screen that joins late hears it too
  expect(tonesOf({ phases: [waits], wait }).filter(isTick)).toHaveLength(1);
});

test("what is not breathed by anybody's count is silent while it waits", () => {
  const talk = aPhase({ kind: "talk", at_ms: [0], end_ms: -1 });
  expect(tonesOf({ phases: [talk], wait: { planned_end_ms: 5000 } as Score["wait"] })).toEqual([]);
});
