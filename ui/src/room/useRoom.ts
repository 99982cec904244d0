import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { get } from "../shared/api";
import { synchronize } from "../shared/clock";
import { follow } from "../wire/follow";
import type { Room } from "../shared/contract";

/** useRoom is the class that is led, for who may only look. Without a connection the last score is played on. */
export function useRoom(code: string) {
  const queries = useQueryClient();
  const [connected, setConnected] = useState(true);
  const room = useQuery({
    queryKey: ["room", code],
    queryFn: async () => {
      await synchronize();
      return get<Room>(`/rooms/${encodeURIComponent(code)}`);
    },
    staleTime: Infinity,
    gcTime: 0,
  });
  const known = room.data !== undefined;
  useEffect(() => {
    if (!known) return;
    return follow<Room>(`/api/rooms/${encodeURIComponent(code)}/stream`, {
      take: (told) => void queries.setQueryData(["room", code], told),
      onConnected: setConnected,
    });
  }, [code, known, queries]);
  return { room: room.data, error: room.error, retry: room.refetch, connected };
}
