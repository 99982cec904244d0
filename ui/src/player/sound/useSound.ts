import type { Choice } from "./choice";
import { useEffect, useRef, useState } from "react";
import { inReal } from "../clock";
import type { Score } from "../../wire/contract";
import { classTime, type Place } from "../usePlace";
import { felt, type Sign, sign, signsOf } from "./signs";
import { isTick, play, rest, type Tone, tonesOf } from "./tones";
import { canVibrate, sayAnswer, useSpoken } from "./useSpoken";

const usual: Choice = {
  on: false,
  volume: 0.6,
  tones: true,
  ticks: true,
  voice: "off",
  others: false,
  vibrate: false,
  signs: true,
  ear: "both",
  answers: false,
  mono: false,
  swap: false,
};

function stored(view: string): Choice {
  try {
    const kept = JSON.parse(localStorage.getItem(`sound:${view}`) ?? "{}") as Partial<Choice>;
    return { ...usual, ...kept, on: false }; // a browser lets a page sound only after a press
  } catch {
    return usual;
  }
}

// For tests: what is heard of a score, to be rendered offline and held against its sheet.
Object.assign(window, { lanternSound: { tonesOf, play, signsOf, sign } });

const ahead = 1500; // ms that are scheduled ahead, in real time: a hidden page looks once a second
const every = 100;
const belated = 1000; // ms: a call that an adjustment gave at once comes with its answer, a little later

/**
 * useSound plays the score on the audio clock, scheduled a little ahead; a changed score replaces at once what was
 * scheduled and has not begun.
 */
export function useSound(view: string, score: Score, place: Place) {
  const [choice, setChoice] = useState(() => stored(view));
  const context = useRef<AudioContext>(undefined);
  const out = useRef<GainNode>(undefined);
  const given = useRef(new Set<string>()); // the signs that were heard, or are about to be

  const change = (part: Partial<Choice>) => {
    const next = { ...choice, ...part };
    try {
      localStorage.setItem(`sound:${view}`, JSON.stringify(next));
    } catch {
      // a page that is opened from a file may not be let to keep anything: it sounds all the same
    }
    setChoice(next);
    if (next.on && !context.current) {
      context.current = new AudioContext();
      out.current = new GainNode(context.current, { gain: next.volume });
      out.current.connect(context.current.destination);
    }
    void (next.on ? context.current?.resume() : context.current?.suspend());
    if (out.current) out.current.gain.value = next.volume;
  };

  useSpoken(view, score, place, choice);

  const { on, tones: glides, ticks, mono, swap, signs, ear, vibrate } = choice;
  useEffect(() => {
    const audio = context.current;
    const to = out.current;
    if (!on || !audio || !to) return;
    const tones = tonesOf(score.phases).filter((t) => (isTick(t) ? ticks : glides));
    const scheduled = new Map<Tone, AudioScheduledSourceNode>();
    const schedule = () => {
      const now = classTime(score);
      for (const tone of tones) {
        const wait = inReal(tone.at - now);
        if (wait > ahead || scheduled.has(tone)) continue;
        const heard = wait < 0 ? rest(tone, now) : tone;
        if (!heard) continue;
        const at = audio.currentTime + Math.max(0, wait) / 1000;
        scheduled.set(tone, play(audio, to, heard, at, inReal(heard.length) / 1000, { mono, swap }));
      }
    };
    schedule();
    const timer = setInterval(schedule, every);
    return () => {
      clearInterval(timer);
      // All of it stops, and the new score takes up what still sounds at the pitch that it has come to.
      for (const source of scheduled.values()) source.stop();
    };
  }, [on, glides, ticks, mono, swap, score]);
  useEffect(() => {
    const audio = context.current;
    const to = out.current;
    if (view !== "lead" || !on || !signs || !audio || !to) return;
    const stops: (() => void)[] = [];
    const schedule = () => {
      const now = classTime(score);
      for (const { at, which } of signsOf(score)) {
        const name = `${score.class_id} ${at} ${which}`;
        const wait = inReal(at - now);
        if (wait < -belated || wait > ahead || given.current.has(name)) continue;
        const begin = audio.currentTime + Math.max(0, wait) / 1000;
        const sources = sign(audio, to, which, ear, begin);
        const buzz = vibrate && canVibrate && setTimeout(() => navigator.vibrate(felt[which]), wait);
        given.current.add(name);
        stops.push(() => {
          if (audio.currentTime >= begin) return; // it was heard
          if (buzz) clearTimeout(buzz);
          for (const source of sources) source.stop();
          given.current.delete(name);
        });
      }
    };
    schedule();
    const timer = setInterval(schedule, every);
    return () => {
      clearInterval(timer);
      for (const stop of stops) stop();
    };
  }, [view, on, signs, ear, vibrate, score]);
  useEffect(() => () => void context.current?.close(), []);

  /** check lets one side be heard, before class. */
  const check = (pan: number) => {
    if (!context.current || !out.current) return;
    const tone: Tone = { at: 0, length: 700, from: 294, to: 294, pan, loud: 0.5 };
    play(context.current, out.current, tone, context.current.currentTime + 0.02, 0.7, choice);
  };

  /** give lets the teacher hear, and feel, what became of a press. */
  const give = (which: Sign) => {
    if (!choice.on || !choice.signs) return;
    if (context.current && out.current) sign(context.current, out.current, which, choice.ear);
    if (choice.vibrate && canVibrate) navigator.vibrate(felt[which]);
  };
  /** tell says what a key did, softly, where that is wanted. */
  const tell = (words: string) => {
    if (choice.on && choice.answers) sayAnswer(words, choice.volume);
  };
  return { choice, change, check, give, tell };
}

export type Sound = ReturnType<typeof useSound>;
