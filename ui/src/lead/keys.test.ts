import { expect, test } from "vitest";
import type { ScorePassage, ScorePhase } from "../wire/contract";
import { controls, goOn, handOf, natural, toggled, usualLater, type Where } from "./adjustments";
import { type Keyboard, type Meaning, meaningOf, remoteMeaning, waysOf } from "./keys";
import type { Pressed } from "../frame/keys/plain";
import type { Keys } from "../frame/keys/letters";

const usual: Keys = { letters: {}, no_letters: false, remote: [] };

const phase = {
  stage: "round",
  round: 2,
  verbs: ["tempo", "rounds", "again", "drop-holds", "pause"],
} as ScorePhase;
const passage = {
  tempo: 50,
  slower: 48,
  faster: 52,
  rounds: 6,
  carries: 1,
  lanes: [],
  own_round: [],
  in_force: { by_hand: [] },
} as unknown as ScorePassage;
const at = { phase, passage, slot: 0, later: usualLater, recall: 2, keys: usual };

function keyboard(change: Partial<Keyboard> = {}): Keyboard {
  const keys = change.keys ?? usual;
  const groups = controls({ ...at, keys });
  const all = [...groups.flatMap((g) => g.controls), natural(phase), goOn({ ...at, keys })];
  return {
    controls: all,
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
  if (meaning === "reach" || meaning === "few") return meaning;
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
  ["9", "few"],
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
  const there = keyboard({ keys });
  expect(waysOf("PageDown", keys)).toEqual(["short", "long"]);
  expect(waysOf("PageUp", keys)).toEqual([]);
  expect(inWords(remoteMeaning("PageDown", "short", there))).toBe("go-on");
  expect(inWords(remoteMeaning("PageDown", "long", there))).toBe("pause");
  expect(inWords(remoteMeaning("PageDown", "double", there))).toBe("");
  expect(inWords(remoteMeaning("PageDown", "long", { ...there, panel: "seen" }))).toBe("pause");
  expect(inWords(remoteMeaning("PageDown", "short", { ...there, panel: "seen" }))).toBe("");
});

test("in strokes the pedal that releases a hold means enough", () => {
  const strokes = { ...phase, verbs: ["enough"] } as ScorePhase;
  const groups = controls({ ...at, phase: strokes });
  const keys: Keys = { ...usual, remote: [{ key: "PageUp", press: "short", means: "release" }] };
  const there = keyboard({ keys, controls: groups.flatMap((g) => g.controls) });
  const meaning = remoteMeaning("PageUp", "short", there);
  expect(
    meaning !== null && typeof meaning !== "string" && "control" in meaning && meaning.control,
  ).toMatchObject({
    name: "Enough",
    press: { do: "enough" },
  });
});

/** What a control says and asks for where the class is. */
function control(id: string, where: Partial<Where>) {
  const here = { ...at, ...where };
  const all = [...controls(here).flatMap((group) => group.controls), handOf(here)];
  return all.find((one) => one.id === id)!;
}

test("one key leads by hand, and back to the beat", () => {
  const led = { ...phase, verbs: ["by-hand"] } as ScorePhase;
  expect(control("hand", { phase: led })).toMatchObject({ press: { do: "by-hand", to: "all" }, met: true });
  const byHand = {
    ...passage,
    in_force: { ...passage.in_force, by_hand: ["inhale", "exhale"] },
  } as ScorePassage;
  expect(control("hand", { phase: led, passage: byHand })).toMatchObject({
    name: "To the beat",
    press: { do: "by-hand", to: "none" },
  });
});

test("leaving out holds stays in the passage until later ones too are chosen", () => {
  const asked = control("holds", {});
  expect([asked.press.carry, asked.effect]).toEqual([false, "in this practice"]);
  const everywhere = control("holds", { later: toggled(toggled(usualLater)) });
  expect([everywhere.press.carry, everywhere.effect]).toEqual([true, "for the rest of the class"]);
  const lastOne = { ...passage, carries: 0 };
  expect(control("holds", { later: { tempo: true, holds: true }, passage: lastOne }).press.carry).toBe(false);
});

test("at own pace the key of the last round calls back", () => {
  const own = { ...phase, stage: "own", verbs: ["recall"] } as ScorePhase;
  expect(control("last", { phase: own })).toMatchObject({
    name: "Call back",
    effect: "2 more",
    press: { do: "recall", rounds: 2 },
    met: true,
  });
});

test("at own pace fewer and more choose how many rounds are called back, and say where they end", () => {
  const own = { ...phase, stage: "own", verbs: ["recall"] } as ScorePhase;
  const alternate = {
    ...passage,
    own_round: [{ side: "left" }, { side: "" }, { side: "right" }],
  } as ScorePassage;
  const here = { phase: own, passage: alternate };
  expect(control("last", here).effect).toBe("2 more, end right");
  expect(control("more", here)).toMatchObject({ chooses: 3, effect: "3 more, end right", met: true });
  expect(control("fewer", here)).toMatchObject({ chooses: 1, effect: "one more, end right", met: true });
  expect(control("fewer", { ...here, recall: 1 }).met).toBe(false);
  expect(control("more", { ...here, recall: 20 }).met).toBe(false);
  expect(control("last", { ...here, recall: 5 }).press).toEqual({ do: "recall", rounds: 5 });
  expect(control("more", {}).chooses).toBeUndefined();
});

test.each([
  [6, 2, "6 → 5", true],
  [2, 2, "", false],
])("of %i rounds, in round %i, one fewer says %s", (rounds, round, says, met) => {
  const less = control("fewer", { phase: { ...phase, round }, passage: { ...passage, rounds } });
  expect([less.effect, less.met]).toEqual([says, met]);
});

test("a try-out has no panels of a real class", () => {
  expect(does("1", { asks: false })).toBe("");
  expect(does("b", { asks: false })).toBe("note");
});
