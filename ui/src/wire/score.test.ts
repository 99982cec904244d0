import { expect, test } from "vitest";
import { opened } from "./score";

const look = (word: string, says: string[]) => ({ word, says, round: 0, breath: 0, at_ms: [], end_ms: 0 });

// As studio/contract/packed.go packs it: two rounds of an inhale and an exhale, one count of which was cut short.
const packed = {
  title: "Lunch",
  phases: [],
  wait: { planned_end_ms: 9000, phases: [], length_ms: 1000 },
  packed_lists: {
    moments: [1000, 1000, 1000, 900, 1000, 1000, -3900, -2001, 1001],
    times: [0, 2, 1, 3, -6, 3, 3, -3],
    looks: [look("inhale", ["in", "2"]), look("exhale", ["out"])],
    cues: [{ kind: "now", text: "inhale" }],
    says: [{ who: "all", text: "hand down" }],
    phases: { looks: [0, 1, 0], rounds: [1, 0, 1], breaths: [0, 0, 0] },
    lane: { looks: [], rounds: [], breaths: [] },
    wait: { looks: [1], rounds: [3], breaths: [1] },
    main_cues: [0],
    lane_cues: [],
    spoken: [0],
    lane_spoken: [],
  },
};

test("the lists of a score are written out, wherever it stands in an answer", () => {
  const { score } = opened({ score: packed }) as unknown as {
    score: { [list: string]: unknown };
  };
  expect(score.title).toBe("Lunch");
  expect(score.phases).toEqual([
    { word: "inhale", says: ["in", "2"], round: 1, breath: 0, at_ms: [1000, 2000], end_ms: 3000 },
    { word: "exhale", says: ["out"], round: 1, breath: 0, at_ms: [3000], end_ms: 3900 },
    { word: "inhale", says: ["in", "2"], round: 2, breath: 0, at_ms: [3900, 4900], end_ms: 5900 },
  ]);
  expect(score.wait).toEqual({
    planned_end_ms: 9000,
    length_ms: 1000,
    phases: [{ word: "exhale", says: ["out"], round: 3, breath: 1, at_ms: [2000], end_ms: -1 }],
  });
  expect(score.cues).toEqual([{ kind: "now", text: "inhale", at_ms: 1000, until_ms: 3900 }]);
  expect(score.spoken).toEqual([{ who: "all", text: "hand down", at_ms: 2000 }]);
});

test("what has nothing packed stays as it is", () => {
  const answer = { list: [1, { a: null }], say: "x", packed: { moments: [1] } };
  expect(opened(answer)).toEqual(answer);
});
