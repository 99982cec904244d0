import { band, mix, rate, shaped, silence, type Sound } from "./parts";
import type { Random } from "./random";

/** Voice is what tells the sounds of one person from another's. */
export type Voice = { pitch: number; hiss: number; loud: number; late: number };

/** people are so many voices. apart is the standard deviation of how late each of them is, in seconds. */
export function people(count: number, random: Random, apart = 0): Voice[] {
  return Array.from({ length: count }, () => ({
    pitch: random.next() < 0.6 ? random.between(165, 235) : random.between(95, 140),
    hiss: random.between(1800, 3600),
    loud: 10 ** (random.normal(2.5) / 20),
    late: random.normal(apart),
  }));
}

function noise(seconds: number, random: Random): Sound {
  return silence(seconds).map(() => random.next() * 2 - 1);
}

/** stroke is one short exhale through the nose. */
export function stroke(voice: Voice, random: Random): Sound {
  const sound = band(noise(random.between(0.11, 0.16), random), voice.hiss * random.between(0.95, 1.05), 0.8);
  for (let i = 0; i < sound.length; i++) {
    const t = i / rate;
    sound[i]! *= Math.min(1, t / 0.012) * Math.exp(-Math.max(0, t - 0.03) / 0.045) * voice.loud;
  }
  return sound;
}

type Formants = [hz: number, q: number, gain: number][];

const o: Formants = [
  [450, 6, 1],
  [800, 8, 0.6],
  [2600, 10, 0.08],
];
const m: Formants = [
  [250, 5, 1],
  [1100, 8, 0.12],
];

/** buzz is the sound of the vocal folds: harmonics that fall by 12 dB an octave, with a little unrest. */
function buzz(pitch: number, seconds: number, random: Random, glide = 0): Sound {
  const sound = silence(seconds);
  const [wide, quick, start] = [random.between(0.002, 0.006), random.between(4.5, 6), random.next() * 6];
  let phase = random.next();
  for (let i = 0; i < sound.length; i++) {
    const t = i / rate;
    const hz = pitch * (1 + wide * Math.sin(2 * Math.PI * quick * t + start) + (glide * t) / seconds);
    phase = (phase + hz / rate) % 1;
    const open = phase < 0.6 ? phase / 0.6 : 0; // a pulse that rises and closes at once
    sound[i] = open * open - 0.2 + 0.01 * (random.next() - 0.5);
  }
  return sound;
}

function mouth(sound: Sound, formants: Formants): Sound {
  const sum = new Float32Array(sound.length);
  for (const [hz, q, gain] of formants) mix(sum, band(sound, hz, q), 0, gain);
  return sum;
}

/** om goes from the vowel to the closed lips. */
export function om(voice: Voice, seconds: number, random: Random): Sound {
  const folds = buzz(voice.pitch, seconds, random, random.between(-0.03, 0.01));
  const [open, shut] = [mouth(folds, o), mouth(folds, m)];
  const sum = open.map((x, i) => {
    const closed = Math.min(1, Math.max(0, i / open.length / 0.15 - 3)); // from 45 % of it to 60 %
    return voice.loud * (x * (1 - closed) + shut[i]! * closed * 1.2);
  });
  return shaped(sum, 0.2, 0.3);
}

/** hum is bee breath. */
export function hum(voice: Voice, seconds: number, random: Random): Sound {
  const sum = mouth(buzz(voice.pitch * 1.1, seconds, random, random.between(-0.02, 0.02)), m);
  for (let i = 0; i < sum.length; i++) sum[i]! *= voice.loud;
  return shaped(sum, 0.2, 0.3);
}

/** sigh is an exhale with an open mouth: a whispered vowel, and air, that grow softer to the end. */
export function sigh(voice: Voice, seconds: number, random: Random): Sound {
  const air = noise(seconds, random);
  const sum = mouth(air, [
    [650 * random.between(0.9, 1.1), 3, 1],
    [1200 * random.between(0.9, 1.1), 4, 0.8],
    [2500, 4, 0.6],
    [voice.hiss * 1.3, 1, 0.3],
  ]);
  for (let i = 0; i < sum.length; i++) sum[i]! *= voice.loud * 10 ** ((-10 * i) / sum.length / 20);
  return shaped(sum, 0.2, 0.3);
}

/** ocean is a breath of ocean breath: air that rubs in the throat, as strong in its middle as it becomes. */
export function ocean(voice: Voice, seconds: number, inward: boolean, random: Random): Sound {
  const sum = mouth(noise(seconds, random), [
    [(inward ? 900 : 600) * random.between(0.9, 1.1), 2, 1],
    [inward ? 2200 : 1600, 2.5, 0.8],
    [voice.hiss * 1.2, 1.5, 0.4],
  ]);
  for (let i = 0; i < sum.length; i++) {
    const swell = 0.35 + 0.65 * Math.sin((Math.PI * i) / sum.length);
    sum[i]! *= voice.loud * (inward ? 0.8 : 1) * swell;
  }
  return shaped(sum, 0.3, 0.4);
}

const vowels: Formants[] = [
  [
    [700, 8, 1],
    [1200, 9, 0.6],
    [2600, 12, 0.2],
  ],
  [
    [400, 8, 1],
    [2000, 10, 0.5],
    [2700, 12, 0.3],
  ],
  [
    [500, 8, 1],
    [900, 9, 0.6],
    [2500, 12, 0.1],
  ],
  [
    [300, 8, 1],
    [2300, 12, 0.4],
    [3000, 12, 0.3],
  ],
];

/** consonant is a short hiss, as of an s. */
function consonant(seconds: number, random: Random): Sound {
  return shaped(band(noise(seconds, random), random.between(2500, 5000), 1), 0.01, 0.02);
}

/** word is about what a spoken word sounds like: hisses, closed lips and a vowel or two. */
export function word(voice: Voice, random: Random): Sound {
  const sound = silence(0.75);
  let at = 0;
  if (random.next() < 0.6) {
    const length = random.between(0.06, 0.14);
    mix(sound, consonant(length, random), at, 0.25 * voice.loud);
    at += length;
  }
  for (let syllables = random.next() < 0.35 ? 2 : 1; syllables > 0; syllables--) {
    const length = random.between(0.11, 0.22);
    const pitch = voice.pitch * random.between(0.9, 1.15);
    const vowel = mouth(
      buzz(pitch, length, random, -0.1),
      vowels[Math.floor(random.next() * vowels.length)]!,
    );
    mix(sound, shaped(vowel, 0.02, 0.04), at, voice.loud);
    at += length + (syllables > 1 ? random.between(0, 0.05) : 0);
  }
  if (random.next() < 0.4) {
    mix(sound, consonant(random.between(0.05, 0.12), random), at, 0.2 * voice.loud);
  }
  return sound;
}
