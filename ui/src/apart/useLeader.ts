import { useEffect, useMemo, useState, useSyncExternalStore } from "react";
import type { Score } from "../wire/contract";
import { type Alone, Leader } from "./leader";

// The leader of the class that was begun here last: it goes on when the program has given the class its number.
let begunHere: Leader | null = null;

function leaderOf(id: number, take: (score: Score) => void): Leader {
  if (begunHere?.current().number === id) {
    begunHere.goOn(take);
    return begunHere;
  }
  const leader = new Leader(id, take);
  if (id < 0) begunHere = leader;
  return leader;
}

/**
 * useLeader is the leader of a class that is in progress, or of one that the program lacks presses of, and how it does alone.
 * Without a score of the program, it leads what this device keeps where alone is set.
 */
export function useLeader(
  id: number,
  score: Score | undefined,
  connected: boolean,
  take: (score: Score) => void,
  byItself: boolean,
): { leader: Leader | null; alone: Alone | null } {
  const [over, setOver] = useState<boolean | null>(null); // when this page was opened
  if (over === null && (score || byItself)) setOver(score?.over ?? false);
  const leader = useMemo(() => (over === null ? null : leaderOf(id, take)), [id, over, take]);
  useEffect(() => {
    void leader?.begin(over === true); // after the page is usable: it shows the program's score already
    return () => leader?.end();
  }, [leader, over]);
  useEffect(() => {
    if (score) leader?.heard(score);
  }, [leader, score]);
  useEffect(() => {
    if (connected) leader?.connected();
  }, [leader, connected]);
  const alone = useSyncExternalStore(leader?.listen ?? nothing, leader?.current ?? none);
  return { leader, alone };
}

const nothing = () => () => undefined;
const none = () => null;
