import type { Random } from "./random";

/** rate is that of all made sounds, in samples a second. */
export const rate = 16_000;

/** Sound is samples of one channel. */
export type Sound = Float32Array;

export function silence(seconds: number): Sound {
  return new Float32Array(Math.round(seconds * rate));
}

/** mix adds a sound to another from a moment on, in seconds; what reaches beyond is left out. */
export function mix(into: Sound, sound: Sound, at: number, gain = 1): void {
  const from = Math.round(at * rate);
  for (let i = Math.max(0, -from); i < sound.length && from + i < into.length; i++)
    into[from + i]! += gain * sound[i]!;
}

/** rms is the root mean square of a stretch, in seconds. */
export function rms(sound: Sound, from = 0, to = sound.length / rate): number {
  const part = sound.subarray(Math.round(from * rate), Math.round(to * rate));
  return Math.sqrt(part.reduce((sum, x) => sum + x * x, 0) / Math.max(1, part.length));
}

/** pink is noise that falls by 3 dB an octave, as fans and streets do (filter of Paul Kellet, common practice). */
export function pink(seconds: number, random: Random): Sound {
  const sound = silence(seconds);
  let [a, b, c] = [0, 0, 0];
  for (let i = 0; i < sound.length; i++) {
    const white = random.next() * 2 - 1;
    a = 0.99765 * a + white * 0.099046;
    b = 0.963 * b + white * 0.2965164;
    c = 0.57 * c + white * 1.0526913;
    sound[i] = (a + b + c + white * 0.1848) * 0.2;
  }
  return sound;
}

/** band is a second-order band pass around a frequency (R. Bristow-Johnson's audio EQ cookbook). */
export function band(sound: Sound, hz: number, q: number): Sound {
  const w = (2 * Math.PI * Math.min(hz, rate * 0.45)) / rate;
  const alpha = Math.sin(w) / (2 * q);
  const [b0, b2, a0, a1, a2] = [alpha, -alpha, 1 + alpha, -2 * Math.cos(w), 1 - alpha];
  const out = new Float32Array(sound.length);
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  for (let i = 0; i < sound.length; i++) {
    const x = sound[i]!;
    const y = (b0 * x + b2 * x2 - a1 * y1 - a2 * y2) / a0;
    [x2, x1, y2, y1] = [x1, x, y1, y];
    out[i] = y;
  }
  return out;
}

/** shaped rises and falls in seconds; between it stays as it is. */
export function shaped(sound: Sound, rises: number, falls: number): Sound {
  const up = Math.max(1, rises * rate);
  const down = Math.max(1, falls * rate);
  for (let i = 0; i < sound.length; i++)
    sound[i]! *= Math.min(1, i / up) * Math.min(1, (sound.length - 1 - i) / down);
  return sound;
}

/** echo is the sound in a room that takes so many seconds to fall by 60 dB: four combs and two all-passes (Schroeder, 1962). */
export function echo(sound: Sound, seconds: number, wet = 0.35): Sound {
  if (seconds === 0) return sound;
  const sum = new Float32Array(sound.length);
  for (const delay of [0.0297, 0.0371, 0.0411, 0.0437]) {
    const line = new Float32Array(Math.round(delay * rate));
    const gain = 10 ** ((-3 * delay) / seconds);
    for (let i = 0, at = 0; i < sound.length; i++, at = (at + 1) % line.length) {
      const out = line[at]!;
      line[at] = sound[i]! + gain * out;
      sum[i]! += out / 4;
    }
  }
  for (const delay of [0.005, 0.0017]) {
    const line = new Float32Array(Math.round(delay * rate));
    for (let i = 0, at = 0; i < sum.length; i++, at = (at + 1) % line.length) {
      const out = line[at]! - 0.7 * sum[i]!;
      line[at] = sum[i]! + 0.7 * out;
      sum[i] = out;
    }
  }
  return sum.map((x, i) => sound[i]! * (1 - wet) + x * wet);
}
