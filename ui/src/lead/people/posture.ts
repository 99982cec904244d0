import type { Watched, WatchedAct } from "../../wire/contract";
import { t } from "../../language/text";

/** Posture is how somebody sits at a moment, as it is drawn. Numbers are from 0 to 1 where nothing else is said. */
export type Posture = {
  /** how full the breath is */
  breath: number;
  /** how far the belly is drawn in, in strokes */
  belly: number;
  shoulders: number; // lifted
  mouth: number; // open
  eyes: number; // open
  brows: number; // drawn together
  turn: number; // of the head to a side, -1 to 1
  sunk: number; // of the head
  lean: number; // of the body to a side, -1 to 1
  /** which nostril the hand closes, the breather's own; empty where it lies in the lap */
  hand: "" | "left" | "right" | "both";
  forehead: boolean; // the hand lies there
  /** 0 for a place that is empty, 1 for somebody who sits; between, on the way through the room */
  here: number;
};

const still: Posture = {
  breath: 0.2,
  belly: 0,
  shoulders: 0,
  mouth: 0,
  eyes: 0,
  brows: 0,
  turn: 0,
  sunk: 0,
  lean: 0,
  hand: "",
  forehead: false,
  here: 1,
};

const full = (part: number) => 0.5 - 0.5 * Math.cos(Math.PI * part);

/** actAt is what somebody does at a time: the last act that has begun. */
function actAt(
  acts: WatchedAct[],
  at: number,
): { act: WatchedAct | undefined; before: WatchedAct | undefined } {
  const index = acts.findLastIndex((act) => act.at_ms <= at);
  return { act: acts[index], before: acts[index - 1] };
}

/** postureAt is how somebody sits at a time of the class, in ms: what they do, and what is to be seen of them. */
export function postureAt(person: Watched, at: number, place: number): Posture {
  const posture = { ...still };
  const { act, before } = actAt(person.acts, at);
  breathe(posture, act, at, person.breath_ms, place);
  posture.hand = handOf(act, before);
  for (const sign of person.signs) {
    if (at < sign.at_ms || at >= sign.until_ms) continue;
    const since = at - sign.at_ms;
    const strength = Math.min(1, since / 250, (sign.until_ms - at) / 400);
    show(posture, sign.id, strength, since, place);
  }
  return posture;
}

function breathe(p: Posture, act: WatchedAct | undefined, at: number, natural: number, place: number): void {
  const part = act ? Math.min(1, (at - act.at_ms) / Math.max(1, act.until_ms - act.at_ms)) : 0;
  switch (act?.do) {
    case "inhale":
      p.breath = full(part);
      return;
    case "hold":
      p.breath = 1;
      return;
    case "exhale":
      p.breath = 1 - full(part);
      return;
    case "empty":
      p.breath = 0;
      return;
    case "stroke": {
      const stroke = (part * (act.counts ?? 1)) % 1;
      p.breath = 0.4;
      p.belly = stroke < 0.35 ? full(stroke / 0.35) : 1 - full((stroke - 0.35) / 0.65);
      return;
    }
    case "absent":
      p.here = 0;
      return;
    case "comes":
      p.here = 0.05 + 0.9 * part;
      return;
    default: // by themselves, each in their own time: a little lower, with the eyes not quite closed
      p.breath = 0.22 + 0.16 * Math.sin((2 * Math.PI * at) / natural + place);
      p.eyes = 0.25;
      p.sunk = 0.15;
  }
}

/** handOf is where the hand is: one that follows a nostril closes the other, and stays at the nose in a hold. */
function handOf(act: WatchedAct | undefined, before: WatchedAct | undefined): Posture["hand"] {
  const closes = { left: "right", right: "left" } as const;
  if (act?.through === "left" || act?.through === "right") return closes[act.through];
  const held = act?.do === "hold" || act?.do === "empty";
  return held && (before?.through === "left" || before?.through === "right") ? "both" : "";
}

/** show is what a sign looks like. Its name stands nowhere: to see it is what is practised. */
function show(p: Posture, sign: string, strength: number, since: number, place: number): void {
  switch (sign) {
    case "gasp":
      p.mouth = strength;
      p.shoulders = Math.max(p.shoulders, strength);
      p.eyes = Math.max(p.eyes, 0.5 * strength);
      return;
    case "rushed":
      p.mouth = Math.max(p.mouth, 0.6 * strength);
      p.sunk = Math.max(p.sunk, 0.8 * strength);
      return;
    case "early":
      p.eyes = Math.max(p.eyes, 0.7 * strength);
      p.sunk = Math.max(p.sunk, 0.3 * strength);
      return;
    case "late":
      p.eyes = Math.max(p.eyes, 0.6 * strength);
      p.turn = 0.35 * strength * (place % 2 === 0 ? 1 : -1);
      return;
    case "tight":
      p.shoulders = Math.max(p.shoulders, 0.75 * strength);
      p.brows = strength;
      return;
    case "restless":
      p.eyes = strength;
      p.turn = strength * Math.sin(since / 900 + place);
      p.lean = 0.25 * strength * Math.sin(since / 1300 + place);
      return;
    case "strokes":
      p.mouth = Math.max(p.mouth, 0.5 * strength);
      p.brows = Math.max(p.brows, 0.6 * strength);
      p.lean = 0.35 * strength * Math.sin(since / 230);
      p.belly *= 0.5 + 0.5 * Math.sin(since / 310 + place);
      return;
    case "unwell":
      p.sunk = strength;
      p.lean = 0.8 * strength * (place % 2 === 0 ? 1 : -1);
      p.forehead = strength > 0.3;
      p.hand = "";
  }
}

/** toward goes a step from one posture to the next, so that nobody jumps. */
export function toward(from: Posture | undefined, to: Posture, step: number): Posture {
  if (!from) return to;
  const next = { ...to };
  for (const name of ["breath", "shoulders", "mouth", "eyes", "brows", "turn", "sunk", "lean"] as const)
    next[name] = from[name] + (to[name] - from[name]) * step;
  return next;
}

/** inWords is what is to be seen of somebody, for who cannot see it: the look, not its name. */
export function inWords(p: Posture): string {
  if (p.here === 0) return t("lead.an-empty-place");
  if (p.here < 1) return t("lead.comes-in");
  const seen = [
    p.forehead && t("lead.holds-the-forehead-and-leans"),
    p.mouth > 0.4 && t("lead.mouth-open"),
    p.shoulders > 0.4 && t("lead.shoulders-lifted"),
    p.brows > 0.4 && t("lead.face-tight"),
    Math.abs(p.turn) > 0.5 && t("lead.looks-around"),
    !p.forehead && p.sunk > 0.5 && t("lead.sinks"),
    p.eyes > 0.5 && t("lead.eyes-open"),
  ].filter(Boolean);
  return seen.length > 0 ? seen.join(", ") : t("lead.sits-quietly");
}
