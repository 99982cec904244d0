import { useEffect, useRef, useState } from "react";
import type { Score, Spoken } from "../../wire/contract";
import { useClock } from "../clock";
import { classTime, type Place } from "../usePlace";
import type { Choice } from "./choice";
import { spokenTo } from "./spoken";

/** How each phase feels in a hand that holds the device, in ms on and off. */
const felt: { [phase: string]: number[] } = {
  inhale: [180],
  hold: [50],
  exhale: [90, 70, 90],
  empty: [50, 70, 50],
};

export const canVibrate = "vibrate" in navigator;

/** useVoices is the voices that the browser has; some browsers know them only after a while, some have none. */
export function useVoices(): SpeechSynthesisVoice[] {
  const speech = window.speechSynthesis as SpeechSynthesis | undefined;
  const [voices, setVoices] = useState(() => speech?.getVoices() ?? []);
  useEffect(() => {
    if (!speech) return;
    const look = () => setVoices(speech.getVoices());
    speech.addEventListener("voiceschanged", look);
    return () => speech.removeEventListener("voiceschanged", look);
  }, [speech]);
  return voices;
}

/** What the voice says besides the count now, if its moment has just come. */
function dueAt(spoken: Spoken[], view: string, at: number): string {
  // What is for the teacher alone never reaches a room's screen.
  const due = (s: Spoken) => s.at_ms <= at && at < s.at_ms + late && (view === "room" || s.who !== "room");
  return spoken.findLast(due)?.text ?? "";
}

const every = 500; // ms in real time at most between two looks

function say(speech: SpeechSynthesis, text: string, language: string, volume: number) {
  const said = new SpeechSynthesisUtterance(text);
  said.lang = language;
  said.volume = volume;
  speech.speak(said);
}

const softly = 0.5; // of the volume

/** sayAnswer says what a key did, in the language of the screen. It waits for what is being said. */
export function sayAnswer(words: string, volume: number) {
  const speech = window.speechSynthesis as SpeechSynthesis | undefined;
  if (speech) say(speech, words, "en", volume * softly);
}

const late = 1000; // ms after which it is no longer said

/**
 * useSpoken says the words of the class through the browser's own voice, but for what a recorded one says, and lets the
 * device be felt, where wanted.
 */
export function useSpoken(view: string, score: Score, place: Place, choice: Choice): void {
  const clock = useClock();
  const { on, voice, volume, vibrate, others, whose } = choice;
  const { phase, count } = place;
  const text = phase?.says[count] ?? "";
  const counts = voice === "counts";
  const { language, speaker } = score;
  const mute = !on || voice === "off" || (speaker !== null && whose === "only");
  const recorded = whose === "browser" ? undefined : speaker?.said;
  // A phase is the same after an adjustment that leaves its beginning: then nothing is said or felt again.
  const which = phase && `${phase.passage} ${phase.at_ms[0]} ${phase.kind}`;
  const pattern = felt[phase?.kind ?? ""];
  const besides = useRef(false); // what is being said is a call, the hand or a line
  const last = useRef("");
  useEffect(() => {
    const speech = window.speechSynthesis as SpeechSynthesis | undefined;
    if (mute || voice === "cues" || !speech || text === "" || recorded?.[text] || (count > 0 && !counts))
      return;
    if (count > 0 && besides.current && speech.speaking) return; // a number does not cut off a call
    besides.current = false;
    speech.cancel(); // what is late is not said at all
    say(speech, text, language, volume);
    // What a recorded voice says changes with each score; it is not said again for that.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [mute, voice, counts, volume, language, text, which, count]);
  useEffect(() => {
    const speech = window.speechSynthesis as SpeechSynthesis | undefined;
    if (mute || !speech) return;
    let timer: ReturnType<typeof setTimeout>;
    const spoken = spokenTo(score, others).filter((s) => !recorded?.[s.text]);
    const look = () => {
      const at = classTime(score, clock);
      const due = dueAt(spoken, view, at);
      if (due !== "" && due !== last.current) {
        besides.current = true;
        say(speech, due, language, volume);
      }
      last.current = due;
      const next = spoken.find((s) => s.at_ms > at)?.at_ms ?? Infinity;
      timer = setTimeout(look, Math.max(1, Math.min(every, clock.inReal(next - at))));
    };
    look();
    return () => clearTimeout(timer);
  }, [view, mute, volume, language, score, clock, others, recorded]);
  useEffect(() => {
    if (on && vibrate && canVibrate && pattern) navigator.vibrate(pattern);
  }, [on, vibrate, pattern, which]);
}
