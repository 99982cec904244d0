import { useEffect, useMemo, useState, useSyncExternalStore } from "react";
import type { Score } from "../wire/contract";
import { type Alone, Leader } from "./leader";

/** useLeader is the leader of a class that is in progress, or of one that the program lacks presses of, and how it does alone. */
export function useLeader(
  id: number,
  score: Score | undefined,
  connected: boolean,
  take: (score: Score) => void,
): { leader: Leader | null; alone: Alone | null } {
  const [over, setOver] = useState<boolean | null>(null); // when this page was opened
  if (over === null && score) setOver(score.over);
  const leader = useMemo(() => (over === null ? null : new Leader(id, take)), [id, over, take]);
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
