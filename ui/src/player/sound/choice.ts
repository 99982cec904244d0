import type { Ear } from "./signs";

/** Choice is how one screen sounds; each screen has its own. */
export type Choice = {
  on: boolean;
  volume: number;
  tones: boolean;
  ticks: boolean;
  voice: "off" | "cues" | "words" | "counts"; // cues: calls, the hand and lines only
  whose: "own" | "only" | "browser"; // own: recorded, the browser's for what was not; only: nothing for what was not
  others: boolean; // the voice says when a breath of the gentler lane starts
  vibrate: boolean;
  signs: boolean; // of the lead screen
  ear: Ear; // in which the signs are heard
  answers: boolean; // what a key did is said, on the lead screen
  mono: boolean;
  swap: boolean;
};
