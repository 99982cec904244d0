import { describe, expect, it, test } from "vitest";
import type { OwnLine } from "../wire/contract";
import { placeText, readersText } from "./ownLine";

const line = (with_: Partial<OwnLine>): OwnLine => ({
  text: "soften",
  place: [],
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

test("the parts of a place stand beside each other", () => {
  const place = [{ id: "own-line.round", args: { first: 3 } }, { id: "own-line.phase.hold" }];
  expect(placeText(line({ place }))).toBe("round 3, hold");
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
