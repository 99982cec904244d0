import type { Tone } from "./sounding";
import type { Pace } from "./strokes";

/**
 * Told is all that leaves the thread on which a microphone is heard: numbers, ten times a second and when a chant ends. No sample
 * is in it. Its times are seconds of the audio clock.
 */
export type Told = {
  at: number;
  /** how the room strokes; null where it cannot be told */
  pace: Pace | null;
  /** the chant, the hum or the breath that sounds now; null in silence */
  sounding: Tone | null;
  /** the one that has just ended */
  ended: Tone | null;
  /** whether the microphone gives digital silence: it is switched off, or muted */
  dead: boolean;
};

/** Ask is what that thread is asked. */
export type Ask = {
  listensFor: ListensFor;
  /** at which beat strokes are led, in strokes a minute; 0 where none are */
  beat: number;
  /** whether each stroke may be heard twice, in and out */
  bothWays: boolean;
};

/** ListensFor is what is listened for: a voice is a chant or a hum, a breath is one that is loud itself. "nothing" only follows the noise. */
export type ListensFor = "strokes" | "voice" | "breath" | "nothing";

/** earName is under what name the processor is known. */
export const earName = "ear";
