import { useEffect, useState } from "react";
import type { Cue, Score } from "../wire/contract";
import { useClock } from "./clock";
import { inThisFrame, keepDrawn } from "./frames";
import { drawnTime, type Place, until } from "./usePlace";

/** shownAt is the cues that are there at a moment of the class. */
export function shownAt(score: Score, at: number): Cue[] {
  return score.cues.filter((c) => c.at_ms <= at && (c.until_ms < 0 || at < c.until_ms));
}

/** changes is when the next cue begins or ends after a moment. */
export function changes(score: Score, at: number): number {
  let next = Infinity;
  for (const c of score.cues) {
    if (c.at_ms > at) next = Math.min(next, c.at_ms);
    if (c.until_ms > at) next = Math.min(next, c.until_ms);
  }
  return next;
}

type Found = { score: Score; at: number; list: Cue[] };

function find(score: Score, at: number): Found {
  return { score, at, list: shownAt(score, at) };
}

/**
 * useShown is the cues that are on the screen now. It changes when one begins or ends, and with the score. Beside a place they are those
 * of the count that is shown there: word and next never come from two readings of the clock.
 */
export function useShown(score: Score, place?: Place): Cue[] {
  const clock = useClock();
  const [found, setFound] = useState(() => find(score, drawnTime(score, clock)));
  // Cues of the score before may be gone: they must not be drawn even once.
  const current = found.score === score ? found : find(score, drawnTime(score, clock));
  if (current !== found) setFound(current);
  useEffect(() => {
    let shown: Cue[] | null = null;
    return keepDrawn((ahead) => {
      const at = drawnTime(score, clock, ahead);
      const list = shownAt(score, at);
      if (!shown || !same(shown, list))
        inThisFrame(() =>
          setFound((old) => (same(old.list, list) && old.score === score ? old : { score, at, list })),
        );
      shown = list;
      return clock.inReal(changes(score, at) - at);
    });
  }, [score, clock]);
  if (!place?.phase) return current.list;
  const at = Math.min(Math.max(current.at, place.at), until(place) - 1);
  return at === current.at ? current.list : shownAt(score, at);
}

function same(a: Cue[], b: Cue[]): boolean {
  return a.length === b.length && a.every((c, i) => c === b[i]);
}

/** textOf is the texts of the cues of some kinds, in their order. */
export function textOf(cues: Cue[], ...kinds: Cue["kind"][]): string[] {
  return cues.filter((c) => kinds.includes(c.kind)).map((c) => c.text);
}
