import { useEffect } from "react";

/**
 * usePadKeys gives the keys to what is opened in the place of the keys, before any live key can fire. pressed tells whether
 * it took the key; letters come in lower case, others by their names, also those of pedals.
 */
export function usePadKeys(pressed: (key: string) => boolean): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
      if (!pressed(event.key.length === 1 ? event.key.toLowerCase() : event.key)) return;
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener("keydown", listen, true);
    return () => window.removeEventListener("keydown", listen, true);
  });
}

/** The keys that accept what is shown. */
export function accepts(key: string): boolean {
  return key === "f" || key === "Enter" || key === "PageDown";
}
