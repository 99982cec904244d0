import { expect, test } from "vitest";
import { carry, carryAll, nameOf } from "./identity";

const doc = (title: string) => ({ type: "talk", title });
const names = (list: { [field: string]: unknown }[]) => list.map(nameOf);

test("a passage has one name, and another passage another, also with the same fields", () => {
  const [a, b] = [doc("a"), doc("a")];
  expect(nameOf(a)).toBe(nameOf(a));
  expect(nameOf(b)).not.toBe(nameOf(a));
});

test("one that is edited stays the one that it was", () => {
  const [before, after] = [doc("a"), doc("b")];
  carry(before, after);
  expect(nameOf(after)).toBe(nameOf(before));
});

const [one, two, three] = [doc("one"), doc("two"), doc("three")];
const before = [one, two, three];
const copy = (...titles: string[]) => titles.map(doc);

test.each([
  ["the middle one is changed", copy("one", "other", "three"), [0, 1, 2]],
  ["one is added at the end", copy("one", "two", "three", "new"), [0, 1, 2, null]],
  ["one is split", copy("one", "two a", "two b", "three"), [0, 1, null, 2]],
  ["one is removed", copy("one", "three"), [0, 2]],
  ["all are changed", copy("x", "y", "z"), [0, 1, 2]],
  ["nothing is", copy("one", "two", "three"), [0, 1, 2]],
  ["it becomes empty", [], []],
])("%s", (_, after, from) => {
  carryAll(before, after);
  const known = names(before);
  expect(names(after).map((name) => (known.includes(name) ? known.indexOf(name) : null))).toEqual(from);
});
