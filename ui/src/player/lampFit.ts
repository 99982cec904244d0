import type { ScorePhase } from "../wire/contract";
import { isStretch } from "./phases";

/** Group is lamps that are said together: a zone or a width with its name, else four counts. */
export type Group = { name: string; lamps: number[] };

const four = 4;

/**
 * groupsOf is the lamps of a phase as they are said: by zone, by movement, by width, and these in fours. Only the first four
 * of a zone bear its name.
 */
export function groupsOf(phase: ScorePhase): Group[] {
  const groups: Group[] = [];
  let part: string | undefined;
  phase.at_ms.forEach((_, n) => {
    const last = groups.at(-1);
    const begins = (phase.parts?.[n] ?? "") !== part;
    const counted = last?.lamps.filter((lamp) => !isWord(phase, lamp)).length ?? 0;
    part = phase.parts?.[n] ?? "";
    if (last && !begins && counted < four) last.lamps.push(n);
    else groups.push({ name: begins ? part : "", lamps: [n] });
  });
  return groups;
}

/** Whether the lamp is the beat that a word has of its own. */
export function isWord(phase: ScorePhase, lamp: number): boolean {
  return phase.first === 0 && lamp === 0;
}

/** StringSize is what the size of a string of lamps rests on; widths of text are in em. */
export type StringSize = {
  label: number;
  /** hung neither left nor right */
  middle: boolean;
  /** the height of embers, in em; 0 where there are lamps */
  embers: number;
  groups: { name: number; lamps: number }[];
};

export function sizeOf(phase: ScorePhase, label: string, widthOf: (text: string) => number): StringSize {
  const middle = phase.through !== "left" && phase.through !== "right";
  if (isStretch(phase) && !phase.open)
    return { label: widthOf(label), middle, groups: [], embers: phase.kind === "still" ? 0.5 : 1.4 };
  return {
    label: widthOf(label),
    middle,
    embers: 0,
    groups: groupsOf(phase).map((group) => ({
      name: widthOf(group.name),
      lamps: group.lamps.reduce((all, lamp) => all + (isWord(phase, lamp) ? wordLamp : 1), 0),
    })),
  };
}

export type Fit = { lamp: number; text: number; labels: "above" | "beside" };

// Shares of a lamp's width, as lamps.css has them.
const wordLamp = 0.55;
const lampHeight = 1.62; // the pane, its notch and the gap between
const gap = 0.18; // between lamps
const groupGap = 0.6;
const lineGap = 0.22;
const stringGap = 0.3;

const smallest = 4; // px of a lamp

/**
 * fitLamps is the largest lamps with which all strings stand in the box, in px: with the names above the strings, or beside
 * them where that leaves more.
 */
export function fitLamps(strings: StringSize[], width: number, height: number): Fit {
  const readable = Math.max(11, Math.min(height * 0.05, width * 0.022));
  const text = Math.max(8, Math.min(readable, (height / strings.length - 4) / 1.25)); // a name needs its own row
  const largest = Math.max(smallest, Math.min(height / lampHeight, Math.max(width, height) * 0.16));
  const best = (labels: Fit["labels"]): Fit => {
    const fits = (lamp: number) => heightOf(strings, { lamp, text, labels }, width) <= height;
    let low = smallest;
    let high = largest;
    if (!fits(low)) return { lamp: low, text, labels };
    while (high - low > 0.25) {
      const middle = (low + high) / 2;
      if (fits(middle)) low = middle;
      else high = middle;
    }
    return { lamp: low, text, labels };
  };
  const above = best("above");
  const beside = best("beside");
  return beside.lamp > above.lamp * 1.08 ? beside : above;
}

function heightOf(strings: StringSize[], fit: Fit, width: number): number {
  const label = longestLabel(strings);
  const gaps = (strings.length - 1) * Math.max(3, fit.lamp * stringGap);
  return strings.reduce((all, string) => all + stringHeight(string, fit, width, label), gaps);
}

/** longestLabel is the room that each middle string leaves for its name, so that their lamps stand under one another. */
export function longestLabel(strings: StringSize[]): number {
  return Math.max(0, ...strings.filter((string) => string.middle).map((string) => string.label));
}

function stringHeight(string: StringSize, fit: Fit, width: number, longest: number): number {
  const { lamp, text, labels } = fit;
  const { groups, embers, middle } = string;
  const label = labels === "beside" && middle && string.label > 0 ? longest : string.label;
  const above = labels === "above";
  const named = label > 0 && above ? text * 1.25 : 0;
  if (embers > 0) return above ? named + text * embers : text * Math.max(embers, label > 0 ? 1.25 : 0);
  const room = width - (above || label === 0 ? 0 : (label + 1) * text);
  let lines = 1;
  let used = 0;
  for (const group of groups) {
    const wide = Math.max(
      group.lamps * lamp + (Math.ceil(group.lamps) - 1) * gap * lamp,
      group.name * text * 0.95,
    );
    if (wide > room) return Infinity;
    if (used > 0 && used + groupGap * lamp + wide > room) {
      lines++;
      used = 0;
    }
    used += (used > 0 ? groupGap * lamp : 0) + wide;
  }
  const names = groups.some((group) => group.name > 0) ? text * 1.15 : 0;
  const strung = lines * (lampHeight * lamp + names) + (lines - 1) * lineGap * lamp;
  return above ? named + strung : Math.max(strung, label > 0 ? text * 1.25 : 0);
}
