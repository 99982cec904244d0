import { expect, test } from "vitest";
import type { Score } from "../wire/contract";
import { hasLane, laneScore } from "./lane";

const cue = (kind: string, text: string) => ({ kind, text, at_ms: 0, until_ms: 9, passage: 1, who: "all" });
const passage = (beside: string) => ({
  name: "Square breath",
  counts: "4:4:4:4",
  script: "soft",
  lines_for: ["all"],
  in_force: { beside },
});
const score = (lane: unknown[]) =>
  ({
    phases: ["main"],
    lane,
    cues: [cue("now", "hold"), cue("line", "soft jaw"), cue("next", "exhale")],
    lane_cues: [cue("now", "natural breath")],
    passages: [passage("breathe")],
    wait: { planned_end_ms: 3 },
  }) as unknown as Score;

test("the lane has its own phases, now, next and hand, and everybody's lines", () => {
  const lane = laneScore(score([{ word: "exhale", side: "right", shows: ["1", "2"], says: ["", ""] }]))!;
  expect(lane.phases[0]!.says).toEqual(["exhale right", "2"]);
  expect(lane.cues.map((c) => c.text)).toEqual(["natural breath", "soft jaw"]);
  expect(lane.passages[0]!.script).toBe("");
  expect(laneScore(score([]))).toBeNull();
});

test("a passage has two lanes where the second has a name", () => {
  type P = Parameters<typeof hasLane>[0];
  const of = (beside: string) => ({ lane_names: { main: "4:4:4", beside } }) as unknown as P;
  expect(hasLane(of(""))).toBe(false);
  expect(hasLane(of("through the holds"))).toBe(true);
  expect(hasLane(undefined)).toBe(false);
});
