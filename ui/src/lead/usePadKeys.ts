import { settingsQuery } from "../wire/queries";
import { useQuery } from "@tanstack/react-query";
import { useLayoutEffect, useRef } from "react";
import { letterOf, usualKeys } from "../frame/keys/letters";

/**
 * usePadKeys gives the keys to what is opened in the place of the keys, before any live key can fire. pressed tells whether
 * it took the key; letters come in lower case, others by their names, also those of pedals.
 */
export function usePadKeys(pressed: (key: string) => boolean): void {
  const latest = useRef(pressed);
  // In the same moment as the drawing: a key pressed on what is seen must mean what is seen.
  useLayoutEffect(() => {
    latest.current = pressed;
  });
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
      if (!latest.current(event.key.length === 1 ? event.key.toLowerCase() : event.key)) return;
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener("keydown", listen, true);
    return () => window.removeEventListener("keydown", listen, true);
  }, []);
}

/** useAccepts tells which keys accept what is shown: Enter, and whatever means to go on. */
export function useAccepts(): (key: string) => boolean {
  const { data } = useQuery(settingsQuery);
  const keys = data?.keys ?? usualKeys;
  const goesOn = (key: string) =>
    keys.remote.some((r) => r.key === key && r.press === "short" && r.means === "go-on");
  return (key) => key === "Enter" || key === letterOf("go-on", keys) || goesOn(key);
}

/** useLetter is the key of a control or a panel, in lower case; nothing where it was switched off. */
export function useLetter(id: string): string {
  const { data } = useQuery(settingsQuery);
  return letterOf(id, data?.keys ?? usualKeys);
}
