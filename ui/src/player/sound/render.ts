import type { Score } from "../../wire/contract";
import type { Choice } from "./choice";
import { voiceOf } from "./ownVoice";
import { heard, utterances } from "./saying";
import { sign, signsOf } from "./signs";
import { isTick, play, tonesOf, underVoice } from "./tones";

/** What is heard in a file. voice is what the recorded voice says. */
export type Wanted = {
  tones: boolean;
  ticks: boolean;
  calls: boolean;
  mono: boolean;
  voice: Choice["voice"];
};

/** The samples a second of a file: enough for pitches up to 12 kHz, and a whole number of them a millisecond. */
export const sampleRate = 24_000;
const perMs = sampleRate / 1000;

/** Piece is some seconds of a file, left and right, and how much of it is done with this, from 0 to 1. */
export type Piece = { left: Float32Array; right: Float32Array; done: number };

const pieceMs = 20_000; // about; a piece begins with a phase, so that no tone is cut
const tailMs = 1_000; // a sign that begins in a piece may end after it, and what is said later still
const headroom = 0.8; // of the loudest, so that a voice and a tone together are not cut

/**
 * render plays a score into samples, piece by piece and faster than it is heard. What sounds begins at its millisecond. The
 * first and the last minute are faded, shorter ones of a short score.
 */
export async function* render(score: Score, wanted: Wanted): AsyncGenerator<Piece> {
  const tones = tonesOf(score).filter((t) => (isTick(t) ? wanted.ticks : wanted.tones));
  const signs = wanted.calls ? signsOf(score) : [];
  const channel = { mono: wanted.mono, swap: false };
  const speaks = wanted.voice !== "off" && score.speaker !== null;
  const loading = new OfflineAudioContext(2, 1, sampleRate);
  const voice = await voiceOf(loading, speaks ? score : { ...score, speaker: null });
  const said = heard(
    utterances(score, { voice: wanted.voice, others: false }, "room"),
    (text) => voice.lengthOf(text) * 1000,
  );
  const tail = Math.max(tailMs, ...said.map((s) => Math.ceil(s.until - s.at)));
  let over: [Float32Array, Float32Array] = [new Float32Array(0), new Float32Array(0)]; // from the piece before
  for (const [from, to] of stretches(score)) {
    const within = ({ at }: { at: number }) => at >= from && at < to;
    const context = new OfflineAudioContext(2, (to - from + tail) * perMs, sampleRate);
    const out = new GainNode(context, { gain: speaks ? headroom : 1 });
    out.connect(context.destination);
    for (const tone of tones.filter(within))
      play(
        context,
        out,
        speaks ? { ...tone, loud: tone.loud * underVoice } : tone,
        (tone.at - from) / 1000,
        tone.length / 1000,
        channel,
      );
    for (const { at, which } of signs.filter(within)) sign(context, out, which, "both", (at - from) / 1000);
    for (const { at, text, until } of said.filter(within))
      voice.say(context, out, text, (at - from) / 1000, (until - at) / 1000);
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
