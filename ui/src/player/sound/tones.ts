import type { Score, ScorePhase } from "../../wire/contract";
import { isUncounted } from "../phases";

/** Tone is one sound of a class: when, how long, from which pitch to which, on which side. Times are of the class, ms. */
export type Tone = {
  at: number;
  length: number;
  from: number; // Hz
  to: number;
  pan: number; // -1 left, 0 both, 1 right
  loud: number; // 0 to 1
};

// A fifth to move in, soft to closed eyes; the empty hold lies a fourth below.
const low = 196;
const high = 294;
const below = 147;
const tick = { length: 35, pitch: 1175, loud: 0.16 };
const doubled = 110; // ms between the two ticks before a change of nostril

const glide: { [phase: string]: [number, number] } = {
  inhale: [low, high],
  hold: [high, high],
  exhale: [high, low],
  empty: [below, below],
};

const panOf: { [through: string]: number } = { left: -1, right: 1 };

/** underVoice is how much softer tones are where a recorded voice speaks: it is to be understood. */
export const underVoice = 0.5;

const longestRest = 120_000; // ms: a phase that waits is not forgotten for longer

/**
 * tonesOf is what is heard of a score: a glide for each phase, a tick for each count, two before a change of nostril. A phase
 * that waits glides for its planned length, and then rests softly on the pitch that it has come to until the teacher goes on.
 */
export function tonesOf({ phases, wait }: Pick<Score, "phases" | "wait">): Tone[] {
  return phases.flatMap((phase, i) => {
    if (phase.end_ms < 0 && wait && !isUncounted(phase)) return waiting(phase, wait.planned_end_ms);
    if (phase.end_ms < 0 || isUncounted(phase)) {
      return phase.stage === "recall" ? [callBack(phase)] : [];
    }
    const pan = panOf[phase.through] ?? 0;
    const tones: Tone[] = [];
    const [from, to] = glide[phase.kind] ?? [0, 0];
    if (from > 0) {
      const at = phase.at_ms[0]!;
      tones.push({ at, length: phase.end_ms - at, from, to, pan, loud: 0.5 });
    }
    phase.at_ms.forEach((at, n) => {
      tones.push(tickAt(at, pan));
      const last = n === phase.at_ms.length - 1;
      if (last && changesNostril(phases, i)) tones.push(tickAt(at + doubled, pan));
    });
    return tones;
  });
}

function waiting(phase: ScorePhase, planned: number): Tone[] {
  const pan = panOf[phase.through] ?? 0;
  const at = phase.at_ms[0]!;
  const [from, to] = glide[phase.kind] ?? [0, 0];
  if (from === 0) return [tickAt(at, pan)];
  const rests = Math.max(planned, at);
  return [
    { at, length: rests - at, from, to, pan, loud: 0.5 },
    { at: rests, length: longestRest, from: to, to, pan, loud: 0.2 },
    tickAt(at, pan),
  ].filter((tone) => tone.length > 0);
}

function tickAt(at: number, pan: number): Tone {
  return { at, length: tick.length, from: tick.pitch, to: tick.pitch, pan, loud: tick.loud };
}

export function isTick(tone: Tone): boolean {
  return tone.length === tick.length;
}

const shortest = 60; // ms; less than that of a glide is only a click

/** rest is what is left of a glide at the time, from the pitch that it has come to; nothing of a tick, or when it is over. */
export function rest(tone: Tone, now: number): Tone | null {
  const left = tone.at + tone.length - now;
  if (isTick(tone) || left < shortest) return null;
  const from = tone.to - ((tone.to - tone.from) * left) / tone.length;
  return { ...tone, at: now, length: left, from };
}

/** callBack sounds once where everybody is called back from their own pace. */
function callBack(phase: ScorePhase): Tone {
  return { at: phase.at_ms[0]!, length: 1200, from: low, to: high, pan: 0, loud: 0.5 };
}

/** changesNostril tells whether the next breath of air goes through the other nostril than this one's. */
function changesNostril(phases: ScorePhase[], i: number): boolean {
  const next = phases[i + 1];
  if (!next || !(next.through in panOf)) return false;
  const before = phases.slice(0, i + 1).findLast((s) => s.through in panOf);
  return before !== undefined && before.through !== next.through;
}

export type Channel = { mono: boolean; swap: boolean };

/** play puts a tone on the audio clock, at that second, its length scaled by the speed of the class. */
export function play(
  context: BaseAudioContext,
  out: AudioNode,
  tone: Tone,
  at: number,
  seconds: number,
  channel: Channel,
): AudioScheduledSourceNode {
  const source = new OscillatorNode(context, { type: "triangle", frequency: tone.from });
  const gain = new GainNode(context, { gain: 0 });
  const side = channel.mono ? 0 : channel.swap ? -tone.pan : tone.pan;
  const pan = new StereoPannerNode(context, { pan: side * 0.85 });
  const edge = Math.min(0.02, seconds / 4); // no click at either end
  source.frequency.setValueAtTime(tone.from, at);
  source.frequency.linearRampToValueAtTime(tone.to, at + seconds);
  gain.gain.setValueAtTime(0, at);
  gain.gain.linearRampToValueAtTime(tone.loud, at + edge);
  gain.gain.setValueAtTime(tone.loud, at + seconds - edge);
  gain.gain.linearRampToValueAtTime(0, at + seconds);
  source.connect(gain).connect(pan).connect(out);
  source.start(at);
  source.stop(at + seconds);
  return source;
}
