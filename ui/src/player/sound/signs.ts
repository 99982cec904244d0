import type { Score } from "../../wire/contract";

/** Sign is something that the teacher hears with closed eyes, on the lead screen only. */
export type Sign = "taken" | "refused" | "last" | "half" | "minute" | "half-minute" | "waiting" | "slot";

export type Ear = "both" | "left" | "right";

const quiet = 0.14;

type Note = { pitch: number; at: number; length: number }; // Hz, s, s

/** The notes of each sign. Calls are high, like a glass; what waits is in the middle and asks; the slot's end is low. */
const notes: { [sign in Sign]: Note[] } = {
  taken: [
    { pitch: 660, at: 0, length: 0.07 },
    { pitch: 880, at: 0.08, length: 0.09 },
  ],
  refused: [{ pitch: 155, at: 0, length: 0.32 }],
  last: [
    { pitch: 1320, at: 0, length: 0.06 },
    { pitch: 1320, at: 0.14, length: 0.06 },
    { pitch: 1320, at: 0.28, length: 0.2 },
  ],
  half: [
    { pitch: 1320, at: 0, length: 0.06 },
    { pitch: 990, at: 0.14, length: 0.2 },
  ],
  minute: [{ pitch: 1056, at: 0, length: 0.35 }],
  "half-minute": [
    { pitch: 1056, at: 0, length: 0.12 },
    { pitch: 1056, at: 0.2, length: 0.12 },
  ],
  waiting: [
    { pitch: 495, at: 0, length: 0.12 },
    { pitch: 587, at: 0.16, length: 0.3 },
  ],
  slot: [
    { pitch: 330, at: 0, length: 0.25 },
    { pitch: 247, at: 0.3, length: 0.45 },
  ],
};

const pans: { [ear in Ear]: number } = { both: 0, left: -1, right: 1 };

/** sign plays a sign at that second of the audio clock. A sine, so that it is none of the tones of the breath. */
export function sign(
  context: BaseAudioContext,
  out: AudioNode,
  which: Sign,
  ear: Ear = "both",
  begin = context.currentTime,
): AudioScheduledSourceNode[] {
  const pan = new StereoPannerNode(context, { pan: pans[ear] });
  pan.connect(out);
  return notes[which].map(({ pitch, at, length }) => {
    const from = begin + at;
    const source = new OscillatorNode(context, { type: "sine", frequency: pitch });
    const gain = new GainNode(context, { gain: 0 });
    gain.gain.setValueAtTime(0, from);
    gain.gain.linearRampToValueAtTime(quiet, from + 0.01);
    gain.gain.setValueAtTime(quiet, from + length - 0.02);
    gain.gain.linearRampToValueAtTime(0, from + length);
    source.connect(gain).connect(pan);
    source.start(from);
    source.stop(from + length);
    return source;
  });
}

/** TimedSign is a sign that comes by itself, in ms from the start of the class. */
export type TimedSign = { at: number; which: Sign };

const calls: { [kind: string]: Sign } = {
  last: "last",
  half: "half",
  minute: "minute",
  "half-minute": "half-minute",
};
const reminded = 20_000; // ms after what waits was to end
const beforeSlot = 120_000; // ms

/** signsOf is the signs of what is to come: the calls of the core, what waits for the teacher, and the slot's end. */
export function signsOf(score: Score): TimedSign[] {
  const list: TimedSign[] = score.cues.flatMap((c) => {
    const which = c.who === "room" ? undefined : calls[c.kind];
    return which ? [{ at: c.at_ms, which }] : [];
  });
  const waits = score.phases.at(-1);
  if (score.wait && waits && waits.end_ms < 0 && waits.stage !== "pause") {
    const due = Math.max(score.wait.planned_end_ms, waits.at_ms[0]!);
    list.push({ at: due, which: "waiting" }, { at: due + reminded, which: "waiting" });
  }
  const near = score.slot_ms - beforeSlot;
  if (score.slot_ms > 0 && near > 0 && score.end_ms > near) list.push({ at: near, which: "slot" });
  return list.sort((a, b) => a.at - b.at);
}

/** felt is the same for a hand that holds the device, in ms on and off. */
export const felt: { [sign in Sign]: number[] } = {
  taken: [40],
  refused: [40, 60, 40, 60, 40],
  last: [200, 80, 200],
  half: [200],
  minute: [120, 60, 120],
  "half-minute": [80, 60, 80],
  waiting: [60, 120, 60, 120, 60],
  slot: [400],
};
