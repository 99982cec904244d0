import rules from "./rules.json";
import type { Tone } from "./sounding";

const { going_on: rule } = rules;

/** Open is a phase that waits for the teacher, and what was heard in it. Times are ms on one clock. */
export type Open = {
  /** when it began */
  from: number;
  now: number;
  /** what sounds now; null in silence */
  sounding: Tone | null;
  /** what ended last; null where nothing did */
  ended: Tone | null;
  /** after how many seconds it goes on whatever is heard; 0 for never */
  longest: number;
};

/**
 * goesOn tells why a phase that waits goes on by itself: the room chanted or hummed in it and has been silent for a second, or it
 * has lasted as long as the teacher allows. It is null while it waits on.
 */
export function goesOn({ from, now, sounding, ended, longest }: Open): "silence" | "longest" | null {
  if (longest > 0 && now - from >= longest * 1000) return "longest";
  if (sounding || !ended?.sure || ended.end === null) return null;
  const inIt = ended.end - Math.max(ended.from, from); // what began before its cue belongs to it
  if (ended.end < from || inIt < rule.least_s * 1000) return null;
  return now - ended.end >= rule.silent_s * 1000 ? "silence" : null;
}
