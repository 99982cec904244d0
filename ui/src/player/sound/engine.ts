import type { Score } from "../../wire/contract";
import type { PageClock } from "../clock";
import { classTime } from "../usePlace";
import type { Choice } from "./choice";
import { heardIn } from "./heard";
import { felt, type Sign, sign, signsOf } from "./signs";
import { canVibrate } from "./useSpoken";
import { isTick, play, rest, type Tone, tonesOf, underVoice } from "./tones";

// What sounds is loaded when the sound is switched on: most phones in a room stay silent.
export { play, sign, signsOf, tonesOf };
export { speak } from "./ownVoice";

const ahead = 1500; // ms that are scheduled ahead, in real time: a hidden page looks once a second
const every = 100;
const belated = 1000; // ms: a call that an adjustment gave at once comes with its answer, a little later

/** repeat does something now and again and again, until it is called. */
function repeat(work: () => void): () => void {
  work();
  const timer = setInterval(work, every);
  return () => clearInterval(timer);
}

/**
 * playTones schedules the glides and ticks of a score a little ahead on the audio clock, until it is stopped. own tells that
 * a recorded voice speaks above them.
 */
export function playTones(
  audio: AudioContext,
  to: AudioNode,
  score: Score,
  clock: PageClock,
  choice: Pick<Choice, "tones" | "ticks" | "mono" | "swap">,
  own: boolean,
): () => void {
  const tones = tonesOf(score).filter((t) => (isTick(t) ? choice.ticks : choice.tones));
  const scheduled = new Map<Tone, AudioScheduledSourceNode>();
  const stop = repeat(() => {
    const now = classTime(score, clock);
    for (const tone of tones) {
      const wait = clock.inReal(tone.at - now);
      if (wait > ahead || scheduled.has(tone)) continue;
      const heard = wait < 0 ? rest(tone, now) : tone;
      if (!heard) continue;
      const at = heardIn(audio, wait);
      const under = own ? { ...heard, loud: heard.loud * underVoice } : heard;
      scheduled.set(tone, play(audio, to, under, at, clock.inReal(heard.length) / 1000, choice));
    }
  });
  return () => {
    stop();
    // All of it stops, and the new score takes up what still sounds at the pitch that it has come to.
    for (const source of scheduled.values()) source.stop();
  };
}

const given = new Set<string>(); // the signs that were heard, or are about to be

/** playSigns schedules what only the teacher hears, until it is stopped. */
export function playSigns(
  audio: AudioContext,
  to: AudioNode,
  score: Score,
  clock: PageClock,
  choice: Pick<Choice, "ear" | "vibrate">,
): () => void {
  const stops: (() => void)[] = [];
  const stop = repeat(() => {
    const now = classTime(score, clock);
    for (const { at, which } of signsOf(score)) {
      const name = `${score.class_id} ${at} ${which}`;
      const wait = clock.inReal(at - now);
      if (wait < -belated || wait > ahead || given.has(name)) continue;
      const begin = heardIn(audio, wait);
      const sources = sign(audio, to, which, choice.ear, begin);
      const buzz = choice.vibrate && canVibrate && setTimeout(() => navigator.vibrate(felt[which]), wait);
      given.add(name);
      stops.push(() => {
        if (audio.currentTime >= begin) return; // it was heard
        if (buzz) clearTimeout(buzz);
        for (const source of sources) source.stop();
        given.delete(name);
      });
    }
  });
  return () => {
    stop();
    for (const one of stops) one();
  };
}

/** feel is a sign for a hand that holds the device. */
export function feel(which: Sign): void {
  if (canVibrate) navigator.vibrate(felt[which]);
}
