import { expect, test } from "vitest";
import cases from "../../score.cases.json";
import { opened } from "./score";

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
