import { useEffect, useLayoutEffect, useState } from "react";
import { inReal, now, rate } from "./clock";
import type { Score, ScorePhase } from "../wire/contract";

/** Place is where a class is: a phase of the score and the count in it. */
export type Place = {
  /** ms from the start of the class, at the moment the place was found */
  at: number;
  /** the phase in progress; null before the first and after the last */
  phase: ScorePhase | null;
  /** the index of the phase in the score */
  index: number;
  /** the index of the running count in the phase */
  count: number;
  over: boolean;
};

/** classTime is how far the class is, in ms. */
export function classTime(score: Score): number {
  return now() - score.started_ms;
}

export function locate(score: Score, at: number): Place {
  const index = score.phases.findIndex((s) => at >= s.at_ms[0]! && (s.end_ms < 0 || at < s.end_ms));
  const phase = score.phases[index] ?? null;
  const count = phase ? phase.at_ms.findLastIndex((t) => t <= at) : 0;
  const last = score.phases.at(-1);
  return { at, phase, index, count, over: !last || (last.end_ms >= 0 && at >= last.end_ms) };
}

/** until is the time of the next change after the place, in ms from the start of the class. */
function until(place: Place): number {
  if (!place.phase) return Infinity;
  const next = place.phase.at_ms[place.count + 1] ?? place.phase.end_ms;
  return next < 0 ? Infinity : next;
}

// A timer may be early or the clock be set: it looks again at least so often.
const atLeast = 200;

/**
 * usePlace is the running clock of a screen, the only one: it plays the score by itself, changes exactly when a count
 * does, and at once when the score is replaced.
 */
export function usePlace(score: Score): Place {
  const [found, setFound] = useState(() => find(score));
  // A place of the score before points at phases that may be gone: it must not be drawn even once.
  const current = found.score === score ? found : find(score);
  if (current !== found) setFound(current);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    const tick = () => {
      const next = find(score);
      setFound((old) => (same(old, next) ? old : next));
      timer = setTimeout(tick, Math.max(1, Math.min(atLeast, inReal(until(next.place) - next.place.at))));
    };
    const woken = () => {
      clearTimeout(timer); // a hidden page's timers come late
      tick();
    };
    tick();
    document.addEventListener("visibilitychange", woken);
    return () => {
      clearTimeout(timer);
      document.removeEventListener("visibilitychange", woken);
    };
  }, [score]);
  useLayoutEffect(() => measure(current), [current]);
  return current.place;
}

/** A count as it was shown, for measuring: when it was due on the application's clock, and when the frame with it began. */
type Shown = { due: number; shown: number };

declare global {
  interface Window {
    /** Where a test puts a list, each count that is shown is added to it. Both times are in ms since 1970. */
    lanternShown?: Shown[];
  }
}

function measure({ score, place }: Found): void {
  const due = score.started_ms + (place.phase?.at_ms[place.count] ?? NaN);
  // This is drawn with the next frame, which begins here; of the true time, not of what this page takes it for.
  if (window.lanternShown)
    requestAnimationFrame(() =>
      window.lanternShown?.push({ due, shown: performance.timeOrigin + performance.now() }),
    );
}

type Found = { score: Score; place: Place };

// What is found now is drawn after some ms and seen with the frame after that, up to 17 ms later: to be ahead by half a
// frame and the drawing is nearest to the truth (measured, docs/performance.md).
const beforehand = 11; // ms

/** drawnTime is how far the class will be when what is found now is seen. */
export function drawnTime(score: Score): number {
  return classTime(score) + beforehand * rate();
}

function find(score: Score): Found {
  return { score, place: locate(score, drawnTime(score)) };
}

function same(a: Found, b: Found): boolean {
  return (
    a.score === b.score &&
    a.place.phase === b.place.phase &&
    a.place.count === b.place.count &&
    a.place.over === b.place.over
  );
}

/** useSeconds is the class's time in whole seconds, for what is shown as a clock. */
export function useSeconds(score: Score): number {
  const [seconds, setSeconds] = useState(() => Math.floor(classTime(score) / 1000));
  useEffect(() => {
    const timer = setInterval(() => setSeconds(Math.floor(classTime(score) / 1000)), 200);
    return () => clearInterval(timer);
  }, [score]);
  return seconds;
}
