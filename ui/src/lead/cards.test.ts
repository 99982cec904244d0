import { expect, test } from "vitest";
import { aPassage, aPhase, aScore } from "../test/score";
import type { Control } from "./adjustments";
import { another, cardsOf, turning } from "./cards";

const talk = aPhase({ kind: "talk", stage: "talk" });
const score = aScore([talk], { passages: [aPassage({ cards: ["Who is new?", "Sit tall.", "Breathe."] })] });
const none = { passage: 0, card: 0 };
const on = { id: "go-on", name: "Go on", effect: "ends the talk", met: false } as Control;

test("a talk begins with its first card, and the key that goes on turns the others up", () => {
  const first = cardsOf(score, talk, none);
  expect(first).toMatchObject({ card: 0, of: 3, text: "Who is new?" });
  expect(another(first, -1)).toBeNull();
  expect(turning(on, first)).toMatchObject({ name: "Next card", effect: "card 2 of 3", met: true });
});

test("the last card goes on", () => {
  const last = cardsOf(score, talk, { passage: 1, card: 2 });
  expect(last!.text).toBe("Breathe.");
  expect(another(last, 1)).toBeNull();
  expect(another(last, -1)).toEqual({ passage: 1, card: 1 });
  expect(turning(on, last)).toBe(on);
});

test("a card of another passage, or one that is no longer there, is not shown", () => {
  expect(cardsOf(score, talk, { passage: 2, card: 2 })!.card).toBe(0);
  expect(cardsOf(score, talk, { passage: 1, card: 9 })!.text).toBe("Breathe.");
});

test("words in one part are no cards, and neither are those of a practice", () => {
  const one = aScore([talk], { passages: [aPassage({ cards: ["Who is new?"] })] });
  expect(cardsOf(one, talk, none)).toBeNull();
  expect(cardsOf(score, aPhase({ stage: "round" }), none)).toBeNull();
  expect(turning(on, null)).toBe(on);
});
