import { useEffect, useLayoutEffect, useState } from "react";
import { type PageClock, useClock } from "./clock";
import { frameBegan, half, inThisFrame, keepDrawn } from "./frames";
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

/** classTime is how far the class is on the clock, in ms. */
export function classTime(score: Score, clock: PageClock): number {
  return clock.now() - score.started_ms;
}

export function locate(score: Score, at: number): Place {
  const index = score.phases.findIndex((s) => at >= s.at_ms[0]! && (s.end_ms < 0 || at < s.end_ms));
  const phase = score.phases[index] ?? null;
  const count = phase ? phase.at_ms.findLastIndex((t) => t <= at) : 0;
  const last = score.phases.at(-1);
  return { at, phase, index, count, over: !last || (last.end_ms >= 0 && at >= last.end_ms) };
}

/** until is the time of the next change after the place, in ms from the start of the class. */
export function until(place: Place): number {
  if (!place.phase) return Infinity;
  const next = place.phase.at_ms[place.count + 1] ?? place.phase.end_ms;
  return next < 0 ? Infinity : next;
}

/**
 * usePlace is the running clock of a screen, the only one: it plays the score by itself, changes exactly when a count
 * does, and at once when the score is replaced.
 */
export function usePlace(score: Score): Place {
  const clock = useClock();
  const [found, setFound] = useState(() => find(score, clock));
  // A place of the score before points at phases that may be gone: it must not be drawn even once.
  const current = found.score === score ? found : find(score, clock);
  if (current !== found) setFound(current);
  useEffect(() => {
    let shown: Found | null = null;
    return keepDrawn((ahead) => {
      const next = find(score, clock, ahead);
      if (!shown || !same(shown, next)) inThisFrame(() => setFound((old) => (same(old, next) ? old : next)));
      shown = next;
      return clock.inReal(until(next.place) - next.place.at);
    });
  }, [score, clock]);
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
  // Of the true time, not of what this page takes it for.
  const note = (frame: number) => window.lanternShown?.push({ due, shown: performance.timeOrigin + frame });
  const frame = frameBegan();
  if (!window.lanternShown) return;
  if (frame === null) requestAnimationFrame(note);
  else note(frame);
}

type Found = { score: Score; place: Place };

/** drawnTime is how far the class will be in so many ms, when what is found now is seen. */
export function drawnTime(score: Score, clock: PageClock, ahead = half()): number {
  return classTime(score, clock) + ahead * clock.rate();
}

function find(score: Score, clock: PageClock, ahead?: number): Found {
  return { score, place: locate(score, drawnTime(score, clock, ahead)) };
}

function same(a: Found, b: Found): boolean {
  return (
    a.score === b.score &&
    a.place.phase === b.place.phase &&
    a.place.count === b.place.count &&
    a.place.over === b.place.over
  );
}

/** useSeconds is the class's time in whole seconds since a moment of it, in ms, for what is shown as a clock. */
export function useSeconds(score: Score, since = 0): number {
  const clock = useClock();
  const [shown, setShown] = useState(() => ({ since, seconds: secondsSince(score, clock, since) }));
  const current = shown.since === since ? shown : { since, seconds: secondsSince(score, clock, since) };
  if (current !== shown) setShown(current);
  useEffect(() => {
    const look = () => {
      const seconds = secondsSince(score, clock, since);
      setShown((old) => (old.since === since && old.seconds === seconds ? old : { since, seconds }));
    };
    const timer = setInterval(look, 200);
    return () => clearInterval(timer);
  }, [score, clock, since]);
  return current.seconds;
}

function secondsSince(score: Score, clock: PageClock, since: number): number {
  return Math.floor((classTime(score, clock) - since) / 1000);
}
