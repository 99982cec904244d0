import type { Score } from "../../wire/contract";
import type { Choice } from "./choice";
import { spokenTo } from "./spoken";

/** Utterance is something that is said: when, in ms of the class, and what it may interrupt. */
export type Utterance = { at: number; text: string; kind: "phase" | "count" | "call" };

/** Wanted is what of it is wanted: that of a choice of the sound. */
export type Wanted = Pick<Choice, "voice" | "others">;

/** utterances is all that is said in a score, in its order: a phase's word before a call of the same moment, and both before a number. */
export function utterances(score: Score, { voice, others }: Wanted, view: string): Utterance[] {
  const list: Utterance[] = [];
  if (voice === "words" || voice === "counts")
    for (const phase of score.phases)
      phase.says.forEach((text, n) => {
        if (text !== "" && (n === 0 || voice === "counts"))
          list.push({ at: phase.at_ms[n]!, text, kind: n === 0 ? "phase" : "count" });
      });
  if (voice !== "off")
    for (const { at_ms, text, who } of spokenTo(score, others))
      if (view === "room" || who !== "room") list.push({ at: at_ms, text, kind: "call" });
  const rank = { phase: 0, call: 1, count: 2 };
  return list.sort((a, b) => a.at - b.at || rank[a.kind] - rank[b.kind]);
}

/** Heard is an utterance as it is heard: it may begin later than its moment, and be cut off. */
export type Heard = Utterance & { until: number };

const patience = 3000; // ms for which a call waits until something else is said

/**
 * heard lays out what is said so that nothing is said over something else: a call waits until a word is over, a number is
 * left out where a word or a call still sounds, and the word of a phase cuts off what is late. lengthOf is in ms of the
 * class, 0 for what this voice does not say.
 */
export function heard(list: Utterance[], lengthOf: (text: string) => number): Heard[] {
  const all: Heard[] = [];
  for (const one of list) {
    const length = lengthOf(one.text);
    if (length === 0) continue;
    const before = all.at(-1);
    let { at } = one;
    if (before && before.until > at) {
      if (one.kind === "count" && before.kind !== "count") continue;
      if (one.kind === "call") {
        if (before.until - at > patience) continue;
        at = before.until;
      } else if (before.at >= at)
        continue; // two lanes, one moment
      else before.until = at;
    }
    all.push({ ...one, at, until: at + length });
  }
  return all;
}
