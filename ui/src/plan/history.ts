/** History is what was undone and what can be undone of something that is edited. It is never changed, but replaced. */
export type History<T> = { past: T[]; present: T; future: T[] };

export function begin<T>(present: T): History<T> {
  return { past: [], present, future: [] };
}

/** add makes a change; what was undone before is gone then. */
export function add<T>({ past, present }: History<T>, next: T): History<T> {
  return { past: [...past, present], present: next, future: [] };
}

/** undo goes one change back, or is the same where there is none. */
export function undo<T>(history: History<T>): History<T> {
  const before = history.past.at(-1);
  if (before === undefined) return history;
  return { past: history.past.slice(0, -1), present: before, future: [history.present, ...history.future] };
}

/** redo makes again what was undone last. */
export function redo<T>(history: History<T>): History<T> {
  const [next, ...later] = history.future;
  if (next === undefined) return history;
  return { past: [...history.past, history.present], present: next, future: later };
}
