import type { Adjust, ScorePassage, ScorePhase } from "../wire/contract";
import { number } from "../player/format";
import { hasLane } from "../player/lane";
import { type Keyed, keyed, type Keys, letterOf } from "../frame/keys/letters";
import { text } from "../language/text";

/** Press is what an adjustment asks for, without its key. */
export type Press = Omit<Adjust, "key">;

/** Control is one live control: its key, what it says and what it would do now. */
export type Control = {
  id: string;
  key: string; // as pressed, lower case; empty if it has none
  name: string;
  effect: string; // what it would do, in words; empty if the name says it
  press: Press;
  met: boolean; // whether it would be accepted where the class is now
  twice: boolean; // must be pressed twice, since it cannot be taken back
  hidden: boolean; // there is nothing that it could offer
  chooses?: number; // it does nothing yet: with how many rounds people will be called back
};

/** met tells whether the adjustment would be accepted in the phase. */
function met(phase: ScorePhase, verb: Adjust["do"]): boolean {
  return phase.verbs?.includes(verb) ?? false;
}

export type Group = { id: string; name: string; controls: Control[] };

export type Where = {
  phase: ScorePhase;
  passage: ScorePassage;
  slot: number; // ms from the start of the class; 0 if none is set
  later: Later;
  recall: number; // with how many rounds people are called back from own pace
  keys: Keys | undefined;
};

/** Later is whether tempo, and leaving out holds, reach later passages too. */
export type Later = { tempo: boolean; holds: boolean };

/** toggled is the other choice, which then holds for both. Until it is made tempo reaches them, and leaving out holds does not. */
export const usualLater: Later = { tempo: true, holds: false };
export const toggled = ({ tempo }: Later): Later => ({ tempo: !tempo, holds: !tempo });

/** Asked is what a control asks for where the class is: with another name than its own, if it does something else there. */
type Asked = {
  press: Press;
  effect?: string;
  name?: string;
  off?: boolean;
  hidden?: boolean;
  chooses?: number;
};

const effect = (id: string, args?: { [name: string]: unknown }) => text({ id: `effect.${id}`, args });
const words = (id: string) => text({ id: `control.${id}` });
const tempo = ({ passage, later }: Where, to: number): Asked => ({
  press: { do: "tempo", to, carry: later.tempo },
  effect: passage.tempo > 0 ? effect("tempo", { from: number(passage.tempo), to: number(to) }) : "",
  off: passage.tempo === 0,
});
const total = ({ passage }: Where, by: number): Asked => ({
  press: { do: "rounds", by },
  effect: passage.rounds > 0 ? effect("rounds", { from: passage.rounds, to: passage.rounds + by }) : "",
});

/** How many rounds people are called back with, until another number is chosen: one to hear that the end comes, and one to end with. */
export const usualRecall = 2;
const mostRecall = 20;

/** recalled is calling back with so many rounds: how many, and on which side they end. */
const recalled = (rounds: number, { passage }: Where) => ({
  press: { do: "recall", rounds } as Press,
  effect: effect("recall", {
    rounds,
    side: passage.own_round.findLast((p) => p.side !== "")?.side ?? "none",
  }),
});

/** chosen is a key that chooses another number of rounds, at own pace; elsewhere it is the total that changes. */
const chosen = (at: Where, by: number): Asked | null => {
  if (!met(at.phase, "recall")) return null;
  const rounds = at.recall + by;
  return { ...recalled(rounds, at), chooses: rounds, off: rounds < 1 || rounds > mostRecall };
};

/** asks is what each control asks for, by its id. What it does is its verb's; this is what comes with it, and how it is named. */
const asks: { [id: string]: (at: Where, verb: Adjust["do"]) => Asked } = {
  slower: (at) => tempo(at, at.passage.slower),
  faster: (at) => tempo(at, at.passage.faster),
  breathed: (at) => ({
    ...tempo(at, at.passage.hand_tempo),
    hidden: at.passage.hand_tempo === 0 || at.passage.hand_tempo === at.passage.tempo,
  }),
  hand: ({ passage }) =>
    passage.in_force.by_hand.length > 0
      ? { press: { do: "by-hand", to: "none" }, name: words("to-beat"), effect: effect("to-beat") }
      : { press: { do: "by-hand", to: "all" }, effect: effect("by-hand") },
  release: (_, verb) =>
    verb === "enough"
      ? { press: { do: "enough" }, name: words("enough"), effect: effect("enough") }
      : { press: { do: "release" }, effect: effect("release") },
  holds: ({ later, passage }, verb) => {
    const carry = later.holds && passage.carries > 0;
    return verb === "restore-holds"
      ? { press: { do: verb, carry }, name: words("holds-back"), effect: effect("holds-back") }
      : { press: { do: "drop-holds", carry }, effect: effect(carry ? "no-holds-later" : "no-holds") };
  },
  again: () => ({ press: { do: "again" }, effect: effect("again") }),
  fewer: (at) => {
    const choice = chosen(at, -1);
    if (choice) return choice;
    const off = at.passage.rounds <= Math.max(1, at.phase.round);
    return { ...total(at, -1), off, ...(off && { effect: "" }) };
  },
  more: (at) => chosen(at, 1) ?? total(at, 1),
  last: (at, verb) =>
    verb === "recall"
      ? { ...recalled(at.recall, at), name: words("recall") }
      : { press: { do: "last-round" }, effect: lastRound(at.phase, at.passage.rounds) },
  "go-on": (_, verb) =>
    verb === "resume"
      ? { press: { do: "resume" }, name: words("resume"), effect: effect("resume") }
      : { press: { do: "advance" }, effect: effect("go-on") },
  undo: () => ({ press: { do: "undo" } }),
  close: ({ phase }) => ({
    press: { do: "close" },
    effect: phase.stage === "round" ? effect("drops-round") : "",
  }),
  next: () => ({ press: { do: "next" }, effect: effect("next") }),
  finish: ({ slot }) => ({
    press: { do: "finish-by", to_ms: slot },
    effect: slot > 0 ? "" : effect("no-slot"),
    off: slot === 0,
  }),
  end: () => ({ press: { do: "end" } }),
  lane: ({ passage }) => {
    const [gentlest] = passage.lanes;
    return hasLane(passage)
      ? {
          press: { do: "beside", to: "none" },
          name: words("close-lane"),
          effect: effect("breathe-the-same"),
        }
      : {
          press: { do: "beside", to: gentlest?.beside ?? "breathe" },
          effect: text(gentlest?.says),
          off: gentlest === undefined,
        };
  },
};

/** control is one of them where the class is. Whether it is met there is the application's word (phase.verbs). */
function control(one: Keyed, at: Where): Control {
  const verbs = one.verbs ?? [];
  const verb = verbs.find((v) => met(at.phase, v)) ?? verbs.at(-1)!;
  const { press, name, effect, off, hidden = false, chooses } = asks[one.id]!(at, verb);
  return {
    id: one.id,
    key: letterOf(one.id, at.keys),
    name: name ?? words(one.id),
    effect: effect ?? "",
    press,
    twice: one.twice ?? false,
    met: met(at.phase, press.do) && !off && !hidden,
    hidden,
    chooses,
  };
}

const controlOf = (id: string, at: Where) =>
  control(
    keyed.find((one) => one.id === id)!,
    at,
  );

/** controls are the live controls where the class is, in their groups: every key lies under the left hand. */
export function controls(at: Where): Group[] {
  return ["tempo", "hold", "rounds", "class"].map((group) => ({
    id: group,
    name: text({ id: `controls.${group}` }),
    controls: keyed
      .filter((one) => one.group === group)
      .map((one) => control(one, at))
      .filter((one) => !one.hidden),
  }));
}

function lastRound(phase: ScorePhase, total: number): string {
  const last = phase.stage === "rest" ? phase.round + 1 : phase.round;
  return last > 0 && total > last ? effect("left-out", { left: total - last }) : "";
}

/** laneOf opens the gentler lane as the core offers it first, or closes the one that is there. */
export const laneOf = (at: Where): Control => controlOf("lane", at);

/** The two that are always in the same place. */
export function natural(phase: ScorePhase): Control {
  return {
    id: "pause",
    key: " ",
    name: words("pause"),
    effect: effect(phase.stage === "pause" ? "pause-now" : "pause"),
    press: { do: "pause" },
    met: met(phase, "pause"),
    twice: false,
    hidden: false,
  };
}

export const goOn = (at: Where): Control => controlOf("go-on", at);

/** handOf leads by the teacher's own breath, or goes back to the beat. */
export const handOf = (at: Where): Control => controlOf("hand", at);

export function keyName(key: string): string {
  return key === " " ? "Space" : key.toUpperCase();
}
