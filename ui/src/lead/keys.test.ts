import { expect, test } from "vitest";
import type { ScorePassage, ScorePhase } from "../wire/contract";
import { controls, goOn, natural } from "./adjustments";
import { type Keyboard, meaningOf, type Pressed } from "./keys";

const phase = {
  stage: "round",
  round: 2,
  verbs: ["tempo", "rounds", "again", "drop-holds", "pause"],
} as ScorePhase;
const passage = { tempo: 50, slower: 48, faster: 52, rounds: 6 } as ScorePassage;

function keyboard(change: Partial<Keyboard> = {}): Keyboard {
  const groups = controls(phase, passage, 0);
  const all = [...groups.flatMap((g) => g.controls), natural(phase), goOn(phase)];
  return {
    controls: all,
    groups,
    pedals: { pedal_down: "pause", pedal_up: "release" },
    panel: "",
    live: true,
    ...change,
  };
}

/** What a key does, as the id of a control or the name of a panel. */
function does(key: string, change: Partial<Keyboard> = {}, held: Partial<Pressed> = {}): string {
  const pressed = { key, repeat: false, ctrlKey: false, metaKey: false, altKey: false, ...held };
  const meaning = meaningOf(pressed, keyboard(change));
  if (!meaning) return "";
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
  ["PageDown", "pause"],
  ["PageUp", "release"],
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

test("in strokes the pedal that releases a hold means enough", () => {
  const strokes = { ...phase, verbs: ["enough"] } as ScorePhase;
  const groups = controls(strokes, passage, 0);
  expect(does("PageUp", { groups, controls: groups.flatMap((g) => g.controls) })).toBe("enough");
});

test("a try-out has no panels of a real class", () => {
  expect(does("1", { live: false })).toBe("");
  expect(does("b", { live: false })).toBe("note");
});
