// What this device holds for when the application does not answer: which of it is shown, and since when.

/** heldCache is the cache of a browser in which the answers of the application are held. */
export const heldCache = "lantern-held";

/** heldAt is the header of an answer that was held: when it was, in ms since 1970. */
export const heldAt = "X-Held-At";

/** answerOf is an answer of the application as it comes, to be held. */
export const answerOf = (path: string): Promise<Response> => fetch(path);

let shown: number | null = null;
const listeners = new Set<() => void>();

/** shownFrom is the moment from which what is shown was held, in ms since 1970; null while the application answers. */
export const shownFrom = (): number | null => shown;

export function followHeld(changed: () => void): () => void {
  listeners.add(changed);
  return () => listeners.delete(changed);
}

/** noteHeld notes an answer that was held, or with null that the application answers. */
export function noteHeld(at: number | null): void {
  const older = at === null ? null : Math.min(at, shown ?? at);
  if (older === shown) return;
  shown = older;
  for (const listener of listeners) listener();
}
