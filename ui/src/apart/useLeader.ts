import { useEffect, useMemo, useState, useSyncExternalStore } from "react";
import type { Score } from "../wire/contract";
import { type Alone, Leader } from "./leader";

/** useLeader is the leader of a class that is in progress, and how it does without the program. */
export function useLeader(
  id: number,
  score: Score | undefined,
  connected: boolean,
  take: (score: Score) => void,
): { leader: Leader | null; alone: Alone | null } {
  // Once: where this screen goes on by itself, the class can be over on the program and not here.
  const [leads, setLeads] = useState<boolean | null>(null);
  if (leads === null && score) setLeads(!score.over);
  const leader = useMemo(() => (leads ? new Leader(id, take) : null), [id, leads, take]);
  useEffect(() => {
    void leader?.begin(); // after the page is usable: it shows the program's score already
    return () => leader?.end();
  }, [leader]);
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
