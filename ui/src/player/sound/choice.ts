/** Choice is how one screen sounds; each screen has its own. */
export type Choice = {
  on: boolean;
  volume: number;
  tones: boolean;
  ticks: boolean;
  voice: "off" | "words" | "counts";
  vibrate: boolean;
  signs: boolean; // of the lead screen
  mono: boolean;
  swap: boolean;
};
