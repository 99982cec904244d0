import { expect, test } from "vitest";
import type { ScorePassage, ScorePhase } from "../wire/contract";
import { controls, goOn, natural } from "./adjustments";
import { type Keyboard, type Meaning, meaningOf, remoteMeaning, waysOf } from "./keys";
import type { Pressed } from "../frame/keys/plain";
import type { Keys } from "../frame/keys/letters";

const usual: Keys = { letters: {}, no_letters: false, remote: [] };

const phase = {
  stage: "round",
  round: 2,
  verbs: ["tempo", "rounds", "again", "drop-holds", "pause"],
} as ScorePhase;
const passage = { tempo: 50, slower: 48, faster: 52, rounds: 6 } as ScorePassage;

function keyboard(change: Partial<Keyboard> = {}): Keyboard {
  const keys = change.keys ?? usual;
  const groups = controls({ phase, passage, slot: 0, keys });
  const all = [...groups.flatMap((g) => g.controls), natural(phase), goOn(phase, keys)];
  return {
    controls: all,
    groups,
    keys,
    panel: "",
    asks: true,
    ...change,
  };
}

/** What a key does, as the id of a control or the name of a panel. */
function does(key: string, change: Partial<Keyboard> = {}, held: Partial<Pressed> = {}): string {
  const pressed = { key, repeat: false, ctrlKey: false, metaKey: false, altKey: false, ...held };
  return inWords(meaningOf(pressed, keyboard(change)));
}

function inWords(meaning: Meaning): string {
  if (!meaning) return "";
  if (meaning === "reach") return meaning;
  return "control" in meaning ? meaning.control.id : meaning.opens;
}

test.each([
  ["q", "slower"],
  ["W", "faster"],
  [" ", "pause"],
  ["f", "go-on"],
  ["x", "end"],
  ["1", "seen"],
  ["?", "keys"],
  ["5", "reach"],
  ["y", ""],
])("the key %s means %s", (key, id) => {
  expect(does(key)).toBe(id);
});

test("a key that is held down, or with Ctrl, is the browser's", () => {
  expect(does("q", {}, { repeat: true })).toBe("");
  expect(does("r", {}, { ctrlKey: true })).toBe("");
});

test("an open panel has the keys, but for natural breath, and no holds beside its caution", () => {
  expect(does("q", { panel: "note" })).toBe("");
  expect(does("g", { panel: "note" })).toBe("");
  expect(does("g", { panel: "cautions" })).toBe("holds");
  expect(does(" ", { panel: "seen" })).toBe("pause");
});

test("other letters, and none", () => {
  const keys: Keys = { ...usual, letters: { slower: "y", again: "" } };
  expect([does("y", { keys }), does("q", { keys }), does("r", { keys })]).toEqual(["slower", "", ""]);
  const none = { ...usual, no_letters: true };
  expect([does("q", { keys: none }), does("1", { keys: none }), does("5", { keys: none })]).toEqual([
    "",
    "",
    "",
  ]);
  expect([does(" ", { keys: none }), does("?", { keys: none })]).toEqual(["pause", "keys"]);
});

test("a pedal means what was chosen for the way it is pressed", () => {
  const keys: Keys = {
    ...usual,
    remote: [
      { key: "PageDown", press: "short", means: "go-on" },
      { key: "PageDown", press: "long", means: "pause" },
      { key: "PageUp", press: "short", means: "none" },
    ],
  };
  const at = keyboard({ keys });
  expect(waysOf("PageDown", keys)).toEqual(["short", "long"]);
  expect(waysOf("PageUp", keys)).toEqual([]);
  expect(inWords(remoteMeaning("PageDown", "short", at))).toBe("go-on");
  expect(inWords(remoteMeaning("PageDown", "long", at))).toBe("pause");
  expect(inWords(remoteMeaning("PageDown", "double", at))).toBe("");
  expect(inWords(remoteMeaning("PageDown", "long", { ...at, panel: "seen" }))).toBe("pause");
  expect(inWords(remoteMeaning("PageDown", "short", { ...at, panel: "seen" }))).toBe("");
});

test("in strokes the pedal that releases a hold means enough", () => {
  const strokes = { ...phase, verbs: ["enough"] } as ScorePhase;
  const groups = controls({ phase: strokes, passage, slot: 0, keys: usual });
  const keys: Keys = { ...usual, remote: [{ key: "PageUp", press: "short", means: "release" }] };
  const at = keyboard({ keys, groups, controls: groups.flatMap((g) => g.controls) });
  expect(inWords(remoteMeaning("PageUp", "short", at))).toBe("enough");
});

test("a try-out has no panels of a real class", () => {
  expect(does("1", { asks: false })).toBe("");
  expect(does("b", { asks: false })).toBe("note");
});
