import { expect, test } from "vitest";
import cases from "../../score.cases.json";
import type { Score } from "./contract";
import { newer, opened } from "./score";

// The same cases hold the program (studio/lead/codec_test.go): what it sends, and what is meant.
test.each(cases)("a score that is sent is unpacked to what is meant: $name", ({ sent, lists }) => {
  const { score } = opened({ score: sent }) as unknown as { score: { [list: string]: unknown } };
  for (const [name, list] of Object.entries(lists)) expect(score[name], name).toEqual(list);
  expect(score.title).toBe(sent.title);
  expect(score).not.toHaveProperty("packed_lists");
});

test("what has nothing packed stays as it is", () => {
  const answer = { list: [1, { a: null }], say: "x", packed: { moments: [1] } };
  expect(opened(answer)).toEqual(answer);
});

const made = (revision: number, edition: number) => ({ revision, edition }) as Score;

test("of two scores that cross, the one that knows more is shown", () => {
  const stored = made(2, 12);
  expect(newer(stored, made(2, 11)), "made before the last press was stored").toBe(stored);
  expect(newer(stored, made(1, 13)), "does not know the last press").toBe(stored);
  const pressed = made(3, 12);
  expect(newer(stored, pressed)).toBe(pressed);
  const turned = made(2, 13);
  expect(newer(stored, turned)).toBe(turned);
  expect(newer(undefined, stored)).toBe(stored);
});
