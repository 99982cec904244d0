import type { Score } from "../../wire/contract";
import { sign, signsOf } from "./signs";
import { isTick, play, tonesOf } from "./tones";

/** What is heard in a file. */
export type Wanted = { tones: boolean; ticks: boolean; calls: boolean; mono: boolean };

/** The samples a second of a file: enough for pitches up to 12 kHz, and a whole number of them a millisecond. */
export const sampleRate = 24_000;
const perMs = sampleRate / 1000;

/** Piece is some seconds of a file, left and right, and how much of it is done with this, from 0 to 1. */
export type Piece = { left: Float32Array; right: Float32Array; done: number };

const pieceMs = 20_000; // about; a piece begins with a phase, so that no tone is cut
const tailMs = 1_000; // a call that begins in a piece may end after it

/**
 * render plays a score into samples, piece by piece and faster than it is heard. What sounds begins at its millisecond. The
 * first and the last minute are faded, shorter ones of a short score.
 */
export async function* render(score: Score, wanted: Wanted): AsyncGenerator<Piece> {
  const tones = tonesOf(score.phases).filter((t) => (isTick(t) ? wanted.ticks : wanted.tones));
  const signs = wanted.calls ? signsOf(score) : [];
  const channel = { mono: wanted.mono, swap: false };
  let over: [Float32Array, Float32Array] = [new Float32Array(0), new Float32Array(0)]; // from the piece before
  for (const [from, to] of stretches(score)) {
    const within = ({ at }: { at: number }) => at >= from && at < to;
    const context = new OfflineAudioContext(2, (to - from + tailMs) * perMs, sampleRate);
    for (const tone of tones.filter(within))
      play(context, context.destination, tone, (tone.at - from) / 1000, tone.length / 1000, channel);
    for (const { at, which } of signs.filter(within))
      sign(context, context.destination, which, "both", (at - from) / 1000);
    const buffer = await context.startRendering();
    const sides = [buffer.getChannelData(0), buffer.getChannelData(1)] as const;
    const length = (to - from) * perMs;
    sides.forEach((samples, side) => {
      over[side]!.forEach((sample, i) => (samples[i]! += sample));
      fade(samples.subarray(0, length), from, score.end_ms);
    });
    over = [sides[0].slice(length), sides[1].slice(length)];
    yield {
      left: sides[0].subarray(0, length),
      right: sides[1].subarray(0, length),
      done: to / score.end_ms,
    };
  }
}

/** stretches cuts the time of a score where phases begin. */
function stretches(score: Score): [number, number][] {
  const cuts = [0];
  for (const phase of score.phases) {
    const at = phase.at_ms[0]!;
    if (at - cuts.at(-1)! >= pieceMs) cuts.push(at);
  }
  return cuts.map((from, i) => [from, cuts[i + 1] ?? score.end_ms]);
}

const minute = 60_000;
const softest = 0.15; // at the very beginning and the end: the first count is still heard

/** fade softens the samples from that moment on, where they lie in the first or the last minute. */
function fade(samples: Float32Array, from: number, end: number): void {
  const faded = Math.min(minute, end / 4);
  for (let i = 0; i < samples.length; i++) {
    const at = from + i / perMs;
    const near = Math.min(at, end - at) / faded;
    if (near < 1) samples[i]! *= softest + (1 - softest) * Math.max(near, 0);
  }
}
