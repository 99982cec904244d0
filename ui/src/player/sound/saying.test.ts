import { expect, test } from "vitest";
import type { Score } from "../../wire/contract";
import { heard, type Utterance, utterances } from "./saying";

const score = {
  phases: [
    { says: ["inhale left", "two", ""], at_ms: [0, 1000, 2000] },
    { says: ["", "ribs"], at_ms: [3000, 4000] },
  ],
  spoken: [
    { at_ms: 1000, text: "half way", who: "all" },
    { at_ms: 1500, text: "look at the corner", who: "teacher" },
    { at_ms: 2000, text: "rest your face", who: "room" },
  ],
  lane_spoken: [{ at_ms: 500, text: "others, exhale", who: "all" }],
} as unknown as Score;

const texts = (list: Utterance[]) => list.map((one) => one.text);

test("each way of speaking says what it should, in its order", () => {
  const say = (voice: "off" | "cues" | "words" | "counts", others = false, view = "lead") =>
    texts(utterances(score, { voice, others }, view));
  expect(say("off")).toEqual([]);
  expect(say("cues")).toEqual(["half way", "look at the corner"]);
  expect(say("words")).toEqual(["inhale left", "half way", "look at the corner"]);
  expect(say("counts", true)).toEqual([
    "inhale left",
    "others, exhale",
    "half way", // before the number of the same moment
    "two",
    "look at the corner",
    "ribs",
  ]);
  expect(say("words", false, "room")).toContain("rest your face");
});

const one = (at: number, kind: Utterance["kind"], text: string = kind) => ({ at, kind, text });
const laid = (list: Utterance[], length: number) =>
  heard(list, (text) => (text === "unsaid" ? 0 : length)).map(({ at, until, kind }) => [kind, at, until]);

test("a call waits until a word is over, and a number gives way to it", () => {
  expect(laid([one(0, "phase"), one(0, "call"), one(1000, "count"), one(2000, "count")], 700)).toEqual([
    ["phase", 0, 700],
    ["call", 700, 1400],
    ["count", 2000, 2700],
  ]);
});

test("the next word cuts off what is late, and a number the number before it", () => {
  expect(laid([one(0, "call"), one(500, "phase"), one(1500, "count"), one(2000, "count")], 900)).toEqual([
    ["call", 0, 500],
    ["phase", 500, 1400],
    ["count", 1500, 2000],
    ["count", 2000, 2900],
  ]);
});

test("nothing is said over something else, and what is not recorded leaves no gap in the rest", () => {
  const list = [
    one(0, "phase"),
    one(100, "count", "unsaid"),
    one(200, "call"),
    one(5000, "phase"),
    one(5000, "call"),
  ];
  const all = heard(list, (text) => (text === "unsaid" ? 0 : 6000));
  for (const [i, h] of all.entries()) expect(h.until).toBeLessThanOrEqual(all[i + 1]?.at ?? Infinity);
  expect(texts(all)).not.toContain("unsaid");
});
