import { useEffect, useState } from "react";
import type { Score } from "../../wire/contract";
import type { Cue } from "../useCue";
import type { Choice } from "./choice";

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

/** useSpoken says the words of the class through the browser's own voice, and lets the device be felt, where wanted. */
export function useSpoken(score: Score, cue: Cue, choice: Choice): void {
  const { on, voice, volume, vibrate } = choice;
  const { phase, count } = cue;
  const text = phase?.says[count] ?? "";
  const counts = voice === "counts";
  const { language } = score;
  // A phase is the same after an adjustment that leaves its beginning: then nothing is said or felt again.
  const which = phase && `${phase.passage} ${phase.at_ms[0]} ${phase.kind}`;
  const pattern = felt[phase?.kind ?? ""];
  useEffect(() => {
    const speech = window.speechSynthesis as SpeechSynthesis | undefined;
    if (!on || voice === "off" || !speech || text === "" || (count > 0 && !counts)) return;
    speech.cancel(); // what is late is not said at all
    const said = new SpeechSynthesisUtterance(text);
    said.lang = language;
    said.volume = volume;
    speech.speak(said);
  }, [on, voice, counts, volume, language, text, which, count]);
  useEffect(() => {
    if (on && vibrate && canVibrate && pattern) navigator.vibrate(pattern);
  }, [on, vibrate, pattern, which]);
}
