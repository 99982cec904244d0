import { expect, test } from "vitest";
import { keyed, type Keys, letterOf, withLetter } from "./letters";

const usual: Keys = { letters: {}, no_letters: false, remote: [] };

test("a letter that is taken changes places, so that no two controls have the same", () => {
  const keys = withLetter(usual, "slower", "w");
  expect([letterOf("slower", keys), letterOf("faster", keys)]).toEqual(["w", "q"]);
  const all = keyed.map((one) => letterOf(one.id, keys));
  expect(new Set(all).size).toBe(keyed.length);
});

test("giving a letter back leaves nothing behind", () => {
  const there = withLetter(usual, "undo", "y");
  expect(there.letters).toEqual({ undo: "y" });
  expect(withLetter(there, "undo", "z")).toEqual(usual);
});

test("one letter can be switched off, and all of them", () => {
  expect(letterOf("end", withLetter(usual, "end", ""))).toBe("");
  expect(letterOf("again", { ...usual, no_letters: true })).toBe("");
});
