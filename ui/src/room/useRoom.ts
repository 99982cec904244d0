import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { get } from "../shared/api";
import { synchronize } from "../shared/clock";
import type { Room } from "../shared/contract";

/** unpack reads an event of the room: JSON, packed with gzip, in base64. */
async function unpack(packed: string): Promise<Room> {
  const bytes = Uint8Array.from(atob(packed), (letter) => letter.charCodeAt(0));
  const plain = new Blob([bytes]).stream().pipeThrough(new DecompressionStream("gzip"));
  return (await new Response(plain).json()) as Room;
}

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
    const stream = new EventSource(`/api/rooms/${encodeURIComponent(code)}/stream`);
    let last = Promise.resolve(); // unpacking takes a moment: the order is kept
    stream.addEventListener("room", (event) => {
      setConnected(true);
      const packed = (event as MessageEvent<string>).data;
      last = last.then(async () => {
        queries.setQueryData(["room", code], await unpack(packed));
      });
    });
    stream.onopen = () => {
      setConnected(true);
      void synchronize().catch(() => undefined);
    };
    stream.onerror = () => setConnected(false);
    return () => stream.close();
  }, [code, known, queries]);
  return { room: room.data, error: room.error, retry: room.refetch, connected };
}
