import { useEffect, useState } from "react";
import { synchronize } from "../player/clock";
import { get } from "../wire/api";
import type { Room } from "../wire/contract";
import { follow } from "../wire/follow";

/** useRoom is the class that is led, for who may only look, in a language or that of the class. Without a connection the last score is played on. */
export function useRoom(code: string, language: string) {
  const at = `/rooms/${encodeURIComponent(code.toUpperCase())}`; // one address, which a proxy can keep
  const path = language === "" ? at : `${at}/in/${encodeURIComponent(language)}`;
  const [room, setRoom] = useState<Room | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [tries, setTries] = useState(0);
  const [connected, setConnected] = useState(true);
  useEffect(() => {
    let gone = false;
    const load = async () => {
      await synchronize(); // a score is of use only to a screen that knows what time it is
      const found = await get<Room>(path);
      if (!gone) setRoom(found);
    };
    load().catch((failed: Error) => !gone && setError(failed));
    return () => {
      gone = true;
    };
  }, [path, tries]);
  const known = room !== null;
  useEffect(() => {
    if (!known) return;
    return follow<Room>(`/api${path}/stream`, {
      take: setRoom,
      onConnected: setConnected,
      onOpen: () => void synchronize().catch(() => undefined), // without an answer the last reading holds
    });
  }, [path, known]);
  // What comes next changes with the time, and nothing tells of that.
  const waiting = room !== null && room.score === null;
  useEffect(() => {
    if (!waiting) return;
    const look = () =>
      void get<Room>(path)
        .then((found) => setRoom((old) => (old?.score ? old : found)))
        .catch(() => undefined);
    const timer = setInterval(look, 60_000);
    return () => clearInterval(timer);
  }, [path, waiting]);
  const retry = () => {
    setError(null);
    setTries(tries + 1);
  };
  return { room, error, retry, connected };
}
