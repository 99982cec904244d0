import { expect, test } from "vitest";
import { Framer } from "./frames";
import { Listener } from "./listener";
import type { Tone } from "./sounding";
import { rate as samplesASecond, type Sound } from "./sounds/parts";
import { Random } from "./sounds/random";
import { type Scene, strokesOf, talk, tonesOf } from "./sounds/rooms";
import type { Pace } from "./strokes";

// `make listen` judges many more rooms, and prints the tables of docs/listening.md.
const whole = import.meta.env.VITE_LISTEN === "whole";
const levels = whole ? [30, 20, 10, 5, 0] : [20, 10];
const seeds = whole ? 6 : 2;
const crowds = whole ? [1, 6, 20] : [1, 6];
const echoes = [0, 0.4, 1];
const minutes = 600_000;

/** listen is what is heard in a sound, and what is told of the pace each second. */
function listen(sound: Sound, beat: number) {
  const tones: Tone[] = [];
  const told: { at: number; pace: Pace | null }[] = [];
  const listener = new Listener((tone) => tones.push(tone));
  new Framer(samplesASecond).push(sound, (frame) => {
    listener.push(frame);
    if (frame.at >= told.length + 1) told.push({ at: frame.at, pace: listener.pace(beat) });
  });
  return { tones, told };
}

const share = (part: number, of: number) => (of === 0 ? NaN : part / of);
const percent = (part: number) => (Number.isNaN(part) ? "-" : `${Math.round(part * 100)} %`);

function print(...cells: (string | number)[]): void {
  if (whole) console.log(`| ${cells.join(" | ")} |`);
}

test("strokes: the rate is told, and is right", { timeout: minutes }, () => {
  for (const over of levels) {
    let [seconds, told, right] = [0, 0, 0];
    for (let seed = 1; seed <= seeds; seed++) {
      for (const people of crowds) {
        const random = new Random(seed * 77 + people);
        const rate = random.between(50, 120);
        const beat = rate * random.between(0.85, 1.15);
        const echo = echoes[seed % 3]!;
        const room = strokesOf(
          { seed: seed * 10 + people, seconds: whole ? 40 : 25, people, over, echo },
          rate,
        );
        for (const { at, pace } of listen(room.sound, beat).told) {
          if (at < 14) continue; // it takes some strokes
          seconds++;
          if (pace) told++;
          if (pace && Math.abs(pace.rate - rate) <= 2) right++;
        }
      }
    }
    print("strokes", over, percent(share(told, seconds)), percent(share(right, told)));
    if (over < 10) continue;
    expect(share(told, seconds), `told at ${over} dB`).toBeGreaterThan(0.95);
    expect(share(right, told), `right at ${over} dB`).toBeGreaterThan(0.95);
  }
});

/** ends is how far from its end each tone of the room was said to end, in seconds; null where it was not said. */
function ends(room: Scene, tones: Tone[]): (number | null)[] {
  return room.tones.map(({ from, end }) => {
    const heard = tones.find((t) => t.from < end && t.end! > from + 1 && Math.abs(t.end! - end) < 2.5);
    return heard?.sure ? heard.end! - end : null;
  });
}

test("chants and hums: the end is found when the last voice has died away", { timeout: minutes }, () => {
  for (const kind of ["om", "hum"] as const) {
    for (const over of levels) {
      const errors: (number | null)[] = [];
      let invented = 0;
      for (let seed = 1; seed <= seeds; seed++) {
        for (const people of crowds) {
          const echo = echoes[seed % 3]!;
          const room = tonesOf(
            { seed: seed * 10 + people, seconds: whole ? 60 : 40, people, over, echo },
            kind,
          );
          const { tones } = listen(room.sound, 60);
          errors.push(...ends(room, tones));
          invented += tones.filter((t) => !room.tones.some((r) => t.from < r.end && t.end! > r.from)).length;
        }
      }
      const told = errors.filter((error) => error !== null);
      const near = told.filter((error) => Math.abs(error) <= 0.3).length;
      print(
        kind,
        over,
        percent(share(told.length, errors.length)),
        percent(share(near, told.length)),
        invented,
      );
      if (over < 20) continue;
      expect(share(told.length, errors.length), `${kind} told at ${over} dB`).toBeGreaterThan(0.95);
      expect(share(near, told.length), `${kind} near at ${over} dB`).toBeGreaterThan(0.9);
      expect(invented, `${kind} invented at ${over} dB`).toBe(0);
    }
  }
});

test("speech alone has no strokes in it, also where it counts on the beat", { timeout: minutes }, () => {
  const sounds = Array.from({ length: whole ? 20 : 1 }, (_, i) => [
    talk(60, i),
    talk(60, 100 + i, 60),
  ]).flat();
  let [all, invented] = [0, 0];
  for (const sound of sounds) {
    for (const beat of whole ? [45, 60, 80, 110] : [60]) {
      const { told } = listen(sound, beat);
      all += Math.ceil(told.length / 60);
      invented += new Set(told.filter(({ pace }) => pace).map(({ at }) => Math.floor(at / 60))).size;
    }
  }
  print("minutes of speech", all, "with a rate", invented);
  expect(invented / all).toBeLessThanOrEqual(0.01);
});

test("in silence, and in noise alone, nothing is told", () => {
  for (const over of [0, Infinity]) {
    const room = strokesOf({ seed: 3, seconds: 20, people: 0, over, echo: 0 }, 60);
    const { tones, told } = listen(room.sound, 60);
    expect(tones).toEqual([]);
    expect(told.every(({ pace }) => pace === null)).toBe(true);
  }
});
