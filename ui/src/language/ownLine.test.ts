import { describe, expect, it } from "vitest";
import type { OwnLine } from "../wire/contract";
import { placeText, readersText } from "./ownLine";

const line = (with_: Partial<OwnLine>): OwnLine => ({
  text: "soften",
  stage: "",
  first: 0,
  last: 0,
  last_round: false,
  breath: 0,
  phase: "",
  through: "",
  part: "",
  second_ms: -1,
  every_ms: 0,
  ahead_ms: 0,
  who: "teacher",
  say: false,
  ...with_,
});

describe("placeText", () => {
  it.each<[Partial<OwnLine>, string]>([
    [{}, "all the time"],
    [{ phase: "inhale" }, "every round, inhale"],
    [{ first: 3, last: 3, phase: "hold" }, "round 3, hold"],
    [{ first: 2, last: 4, breath: 2 }, "rounds 2 to 4, breath 2"],
    [{ last_round: true, phase: "exhale", through: "left" }, "last round, exhale, through the left"],
    [{ stage: "rest", first: 1, last: 1 }, "in the rest, after round 1"],
    [{ stage: "rest", last_round: true }, "in the rest, before the last round"],
    [{ phase: "still" }, "every round, natural pause"],
    [{ second_ms: 60_000, every_ms: 30_000 }, "at 1:00, and every 30 s after it"],
    [{ stage: "closing", through: "mouth" }, "in the closing, through the mouth"],
  ])("%j", (with_, says) => {
    expect(placeText(line(with_))).toBe(says);
  });
});

describe("readersText", () => {
  it.each<[Partial<OwnLine>, string]>([
    [{ ahead_ms: 2000 }, "only you see it, 2 s ahead"],
    [{ who: "room", say: true }, "only the room sees it, said aloud"],
    [{ who: "all" }, "everybody sees it"],
  ])("%j", (with_, says) => {
    expect(readersText(line(with_))).toBe(says);
  });
});
