import { expect, test } from "vitest";
import { at, differences, merge, withAt } from "./merge";

const base = { name: "Monday", size: 9, conditions: { asthma: 1 }, steps: ["a"], revision: 1 };

test("what only one screen changed is kept, of both", () => {
  const mine = { ...base, size: 12 };
  const theirs = { ...base, conditions: { asthma: 1, pregnancy: 1 }, revision: 2 };
  expect(merge(base, mine, theirs)).toEqual({ ...theirs, size: 12 });
});

test("a field that both changed stays as it was typed here", () => {
  const mine = { ...base, name: "Monday noon", steps: ["a", "b"] };
  const theirs = { ...base, name: "Monday night", steps: ["c"], revision: 2 };
  expect(merge(base, mine, theirs)).toEqual({ ...mine, revision: 2 });
});

test("a field that they removed goes, and one that was removed here stays away", () => {
  const here = { ...base, conditions: {} };
  expect(merge(base, base, here).conditions).toEqual({});
  expect(merge(base, here, { ...base, size: 4 }).conditions).toEqual({});
});

test("the differences are the fields that they changed, each with both values", () => {
  const mine = { ...base, name: "Monday noon", size: 12 };
  const theirs = { ...base, name: "Monday night", conditions: { pregnancy: 1 } };
  expect(differences(base, mine, theirs)).toEqual([
    { path: ["name"], mine: "Monday noon", theirs: "Monday night" },
    { path: ["conditions", "asthma"], mine: 1, theirs: undefined },
    { path: ["conditions", "pregnancy"], mine: undefined, theirs: 1 },
  ]);
  expect(differences(base, mine, { ...mine, size: 9 })).toEqual([]);
});

test("a value is found and put by its path", () => {
  expect(at(base, ["conditions", "asthma"])).toBe(1);
  expect(at(base, ["conditions", "none", "deeper"])).toBeUndefined();
  expect(withAt(base, ["conditions", "asthma"], undefined).conditions).toEqual({});
  expect(withAt(base, ["conditions", "ulcer"], 2).conditions).toEqual({ asthma: 1, ulcer: 2 });
  expect(base.conditions).toEqual({ asthma: 1 });
});
