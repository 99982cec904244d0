import { echo, mix, pink, rms, silence, type Sound } from "./parts";
import { hum, ocean, om, people, sigh, stroke, word } from "./people";
import { Random } from "./random";

/** Scene is a stretch of a class as a microphone hears it, and what is true of it. */
export type Scene = {
  sound: Sound;
  /** moments of the strokes, in seconds */
  strokes: number[];
  /** strokes a minute */
  rate: number;
  /** chants and hums: from when to when anybody sounds, and when each of the people ends, in seconds */
  tones: { from: number; end: number; ends: number[] }[];
};

/** Ask is how a scene is made. */
export type Ask = {
  seed: number;
  seconds: number;
  people: number;
  /** by how much the sound of the people is louder than the noise of the room, in dB; Infinity for no noise */
  over: number;
  /** seconds in which an echo falls by 60 dB */
  echo: number;
};

function finished(
  ask: Ask,
  random: Random,
  parts: Omit<Scene, "sound">,
  people: Sound,
  level: number,
): Scene {
  const sound = echo(people, ask.echo);
  if (ask.over < Infinity) {
    const noise = pink(ask.seconds, random);
    mix(sound, noise, 0, (level || 0.01) / rms(noise) / 10 ** (ask.over / 20)); // also where nobody is there
  }
  return { ...parts, sound };
}

const none = { strokes: [], rate: 0, tones: [] };

/**
 * strokesOf is a room that strokes at a rate a minute, with people so many seconds apart. Both ways, an inhale about half way to the
 * next stroke is nearly as loud.
 */
export function strokesOf(ask: Ask, rate: number, apart = 0.025, bothWays = false): Scene {
  const random = new Random(ask.seed);
  const sound = silence(ask.seconds);
  const voices = people(ask.people, random, apart);
  const strokes: number[] = [];
  const [turn, soft] = bothWays ? [random.between(0.45, 0.55), random.between(0.5, 1)] : [0, 0];
  for (let at = 1.5; at < ask.seconds - 0.5; at += 60 / rate) {
    strokes.push(at);
    for (const voice of voices) {
      const one = stroke(voice, random);
      mix(sound, one, at + voice.late + random.normal(0.012), 0.1);
      if (!bothWays) continue;
      const inhale = stroke({ ...voice, hiss: voice.hiss * 1.2 }, random);
      mix(sound, inhale, at + (turn * 60) / rate + voice.late + random.normal(0.02), 0.1 * soft);
    }
  }
  return finished(ask, random, { ...none, strokes, rate }, sound, rmsAround(sound, strokes, 0.1));
}

/** rmsAround is the level while something sounds. */
function rmsAround(sound: Sound, moments: number[], seconds: number): number {
  const levels = moments.map((at) => rms(sound, at, at + seconds));
  return levels.reduce((sum, one) => sum + one, 0) / Math.max(1, levels.length);
}

/** tonesOf is a room that chants or hums, again and again; people end up to a second and a half after one another. */
export function tonesOf(ask: Ask, kind: "om" | "hum"): Scene {
  const random = new Random(ask.seed);
  const sound = silence(ask.seconds);
  const voices = people(ask.people, random, 0.15);
  const tones: Scene["tones"] = [];
  for (let at = 2; at < ask.seconds - 14;) {
    const length = random.between(5, 9);
    let [from, end] = [Infinity, 0];
    const ends: number[] = [];
    for (const voice of voices) {
      const own = length * (1 - (ask.people > 1 ? random.between(0, 0.2) : 0));
      const late = Math.max(-0.5, voice.late);
      mix(sound, (kind === "om" ? om : hum)(voice, own, random), at + late, 0.2);
      from = Math.min(from, at + late);
      end = Math.max(end, at + late + own);
      ends.push(at + late + own);
    }
    tones.push({ from, end, ends });
    at = end + random.between(3, 5);
  }
  const level = rmsAround(
    sound,
    tones.map(({ from }) => from + 0.5),
    3,
  );
  return finished(ask, random, { ...none, tones }, sound, level);
}

/** breathsOf is a room that sighs, or breathes ocean breath in and out, again and again. Its tones are the exhales. */
export function breathsOf(ask: Ask, kind: "sigh" | "ocean"): Scene {
  const random = new Random(ask.seed);
  const sound = silence(ask.seconds);
  const voices = people(ask.people, random, 0.2);
  const tones: Scene["tones"] = [];
  for (let at = 2; at < ask.seconds - 12;) {
    const inhale = random.between(3.5, 5);
    const length = kind === "sigh" ? random.between(2, 5) : random.between(4, 6);
    const exhale = at + inhale;
    let [from, end] = [Infinity, 0];
    const ends: number[] = [];
    for (const voice of voices) {
      const own = length * (1 - (ask.people > 1 ? random.between(0, 0.2) : 0));
      const late = Math.max(-0.4, Math.min(0.6, voice.late));
      if (kind === "ocean") mix(sound, ocean(voice, inhale - 0.5, true, random), at + late, 0.1);
      mix(
        sound,
        kind === "sigh" ? sigh(voice, own, random) : ocean(voice, own, false, random),
        exhale + late,
        0.1,
      );
      from = Math.min(from, exhale + late);
      end = Math.max(end, exhale + late + own);
      ends.push(exhale + late + own);
    }
    tones.push({ from, end, ends });
    at = end + (kind === "sigh" ? random.between(1, 3) : random.between(0.4, 0.8));
  }
  const level = rmsAround(
    sound,
    tones.map(({ from }) => from + 0.5),
    1.5,
  );
  return finished(ask, random, { ...none, tones }, sound, level);
}

/** talk is somebody who speaks, as made here; with a beat, who counts on it. */
export function talk(seconds: number, seed: number, beat = 0): Sound {
  const random = new Random(seed);
  const [voice] = people(1, random);
  const sound = silence(seconds);
  for (let at = 0.3; at < seconds - 1;) {
    mix(sound, word(voice!, random), at, 0.15);
    at +=
      beat > 0 ? 60 / beat : random.between(0.3, 0.6) + (random.next() < 0.15 ? random.between(0.4, 1.2) : 0);
  }
  return sound;
}
