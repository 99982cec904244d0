import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { get, unanswered } from "../wire/api";
import { synchronize } from "./clock";
import { follow } from "../wire/follow";
import type { Score } from "../wire/contract";
import { newer } from "../wire/score";

const again = 3000; // ms until a class is asked for once more, while the application does not answer

/**
 * useScore is the score of a class: fetched, and replaced whenever the stream tells of an adjustment. Without a
 * connection the last score is played on; connected says whether there is one. A class with a negative number was begun on
 * this device, and the application does not know it.
 */
export function useScore(id: number) {
  const queries = useQueryClient();
  const [connected, setConnected] = useState(true);
  const score = useQuery({
    queryKey: ["score", id],
    // The clock first: a score is of use only to a screen that knows what time it is.
    queryFn: async () => {
      await synchronize();
      return get<Score>(`/classes/${id}/score`);
    },
    enabled: id > 0,
    refetchInterval: ({ state }) => (state.status === "error" && unanswered(state.error) ? again : false),
    staleTime: Infinity,
    gcTime: 0,
    structuralSharing: false, // comparing two scores takes longer than to draw one
  });
  const take = useCallback(
    (fresh: Score) => queries.setQueryData<Score>(["score", id], (old) => newer(old, fresh)),
    [queries, id],
  );
  const known = score.data !== undefined;
  const over = score.data?.over === true;
  useEffect(() => {
    // Of a class that is over nothing more will come, unless what was lost is taken again.
    if (!known || over) return;
    return follow<Score>(`/api/classes/${id}/stream`, {
      take,
      onConnected: setConnected,
      onOpen: () => void synchronize().catch(() => undefined), // without an answer the last reading holds
    });
  }, [id, known, over, take]);
  return {
    score: score.data,
    error: score.error,
    retry: score.refetch,
    connected: known && (connected || over),
    take,
  };
}
