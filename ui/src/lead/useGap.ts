import { useEffect, useState } from "react";
import { useClock } from "../player/clock";
import type { Score } from "../wire/contract";
import { classTime, type Place } from "../player/usePlace";

const tooLong = 8000; // ms in real time; a page that is loaded again is back sooner
const every = 1000;
const stored = "lead:seen";

/** Seen is up to which moment of which class this screen showed the count. */
type Seen = { class: number; at: number };

function lastSeen(score: Score): number | null {
  try {
    const seen = JSON.parse(localStorage.getItem(stored) ?? "null") as Seen | null;
    return seen?.class === score.class_id ? seen.at : null;
  } catch {
    return null;
  }
}

/** forget is for a teacher who leaves the screen on purpose: there is nothing to ask on the return. */
export function forget(): void {
  localStorage.removeItem(stored);
}

/**
 * useGap tells from which moment on this screen did not show the count, if it was too long: the lid was closed, or the
 * browser had ended. It is asked about once.
 */
export function useGap(
  score: Score,
  place: Place,
  live: boolean,
): { from: number | null; settle: () => void } {
  const clock = useClock();
  const [from, setFrom] = useState<number | null>(() => {
    const seen = live ? lastSeen(score) : null;
    return seen !== null && clock.inReal(classTime(score, clock) - seen) > tooLong ? seen : null;
  });
  useEffect(() => {
    if (!live) return;
    const look = () => {
      const at = classTime(score, clock);
      const seen = lastSeen(score);
      if (seen !== null && clock.inReal(at - seen) > tooLong) setFrom((old) => old ?? seen);
      if (place.over) {
        if (seen !== null && clock.inReal(at - seen) <= tooLong) forget(); // it was seen to its end: there is nothing to ask later
        return;
      }
      localStorage.setItem(stored, JSON.stringify({ class: score.class_id, at } satisfies Seen));
    };
    look();
    const timer = setInterval(look, every);
    return () => clearInterval(timer);
  }, [score, clock, place.over, live]);
  // Where the class waits for the teacher since before the gap, nothing was missed.
  const waited =
    from !== null && place.phase !== null && place.phase.end_ms < 0 && place.phase.at_ms[0]! <= from;
  return {
    from: waited ? null : from,
    settle: () => {
      if (place.over) forget();
      setFrom(null);
    },
  };
}
