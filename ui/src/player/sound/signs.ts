/** Sign is something that the teacher hears with closed eyes, on the lead screen only. */
export type Sign = "taken" | "refused" | "last";

const quiet = 0.14;

/** The notes of each sign, in Hz and s: two that rise, one that is low and long, and three like a knock at a glass. */
const notes: { [sign in Sign]: { pitch: number; at: number; length: number }[] } = {
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
};

/** sign plays a sign at once, in the middle. A sine, so that it is none of the tones of the breath. */
export function sign(context: BaseAudioContext, out: AudioNode, which: Sign): void {
  for (const { pitch, at, length } of notes[which]) {
    const from = context.currentTime + at;
    const source = new OscillatorNode(context, { type: "sine", frequency: pitch });
    const gain = new GainNode(context, { gain: 0 });
    gain.gain.setValueAtTime(0, from);
    gain.gain.linearRampToValueAtTime(quiet, from + 0.01);
    gain.gain.setValueAtTime(quiet, from + length - 0.02);
    gain.gain.linearRampToValueAtTime(0, from + length);
    source.connect(gain).connect(out);
    source.start(from);
    source.stop(from + length);
  }
}

/** felt is the same for a hand that holds the device, in ms on and off. */
export const felt: { [sign in Sign]: number[] } = {
  taken: [40],
  refused: [40, 60, 40, 60, 40],
  last: [200, 80, 200],
};
