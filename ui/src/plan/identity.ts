import type { PassageDoc } from "../wire/plan";

/**
 * A passage keeps its identity while it is edited, moved, or comes back from the application changed, so that what is half
 * typed in its row stays with it and not with its place.
 */
const names = new WeakMap<PassageDoc, string>();
let made = 0;

/** nameOf is the passage's own name, the same as long as the page is open. */
export function nameOf(passage: PassageDoc): string {
  let name = names.get(passage);
  if (!name) {
    name = `passage ${++made}`;
    names.set(passage, name);
  }
  return name;
}

/** carry makes a changed passage the one that it was. */
export function carry(from: PassageDoc | undefined, to: PassageDoc | undefined): void {
  if (from && to && from !== to) names.set(to, nameOf(from));
}

const same = (a: PassageDoc | undefined, b: PassageDoc | undefined) =>
  JSON.stringify(a) === JSON.stringify(b);

/**
 * carryAll does the same for all passages of a document that came back from the application with one change: those at the
 * beginning and at the end that are the same, and those between them by their place.
 */
export function carryAll(before: PassageDoc[], after: PassageDoc[]): void {
  const shorter = Math.min(before.length, after.length);
  let first = 0;
  while (first < shorter && same(before[first], after[first])) first++;
  let last = 0;
  while (last < shorter - first && same(before.at(-1 - last), after.at(-1 - last))) last++;
  for (let i = 0; i < shorter - last; i++) carry(before[i], after[i]);
  for (let i = 1; i <= last; i++) carry(before.at(-i), after.at(-i));
}
