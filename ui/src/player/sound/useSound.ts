import type { Choice } from "./choice";
import { useEffect, useRef, useState } from "react";
import type { Score } from "../../wire/contract";
import { useClock } from "../clock";
import type { Place } from "../usePlace";
import type { Sign } from "./signs";
import type { Tone } from "./tones";
import { sayAnswer, useSpoken } from "./useSpoken";

const usual: Choice = {
  on: false,
  volume: 0.6,
  tones: true,
  ticks: true,
  voice: "off",
  whose: "own",
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

type Engine = typeof import("./engine");

const load = () => import("./engine");

// For tests: what is heard of a score, to be rendered offline and held against its sheet.
Object.assign(window, { lanternSound: load });

/**
 * useSound plays the score on the audio clock, scheduled a little ahead; a changed score replaces at once what was
 * scheduled and has not begun.
 */
export function useSound(view: string, score: Score, place: Place) {
  const clock = useClock();
  const [choice, setChoice] = useState(() => stored(view));
  const [engine, setEngine] = useState<Engine>();
  const context = useRef<AudioContext>(undefined);
  const out = useRef<GainNode>(undefined);

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

  const { on, tones, ticks, mono, swap, voice, whose, others, signs, ear, vibrate } = choice;
  const own = on && voice !== "off" && whose !== "browser" && score.speaker !== null;
  useEffect(() => {
    if (!on || engine) return;
    let over = false;
    load().then(
      (loaded) => over || setEngine(loaded),
      () => over || setChoice((now) => ({ ...now, on: false })), // it cannot be had at the moment: the switch says so
    );
    return () => void (over = true);
  }, [on, engine]);
  useEffect(() => {
    if (on && engine && context.current && out.current)
      return engine.playTones(context.current, out.current, score, clock, { tones, ticks, mono, swap }, own);
  }, [on, engine, own, tones, ticks, mono, swap, score, clock]);
  useEffect(() => {
    if (view === "lead" && on && signs && engine && context.current && out.current)
      return engine.playSigns(context.current, out.current, score, clock, { ear, vibrate });
  }, [view, on, engine, signs, ear, vibrate, score, clock]);
  useEffect(() => {
    if (own && engine && context.current && out.current)
      return engine.speak(context.current, out.current, score, clock, { voice, others }, view);
  }, [view, engine, own, voice, others, score, clock]);
  useEffect(() => () => void context.current?.close(), []);

  /** check lets one side be heard, before class. */
  const check = (pan: number) => {
    if (!engine || !context.current || !out.current) return;
    const tone: Tone = { at: 0, length: 700, from: 294, to: 294, pan, loud: 0.5 };
    engine.play(context.current, out.current, tone, context.current.currentTime + 0.02, 0.7, choice);
  };

  /** give lets the teacher hear, and feel, what became of a press. */
  const give = (which: Sign) => {
    if (!choice.on || !choice.signs) return;
    if (engine && context.current && out.current)
      engine.sign(context.current, out.current, which, choice.ear);
    if (choice.vibrate) engine?.feel(which);
  };
  /** tell says what a key did, softly, where that is wanted. */
  const tell = (words: string) => {
    if (choice.on && choice.answers) sayAnswer(words, choice.volume);
  };
  return { choice, change, check, give, tell, speaker: score.speaker };
}

export type Sound = ReturnType<typeof useSound>;
