import type { Version } from "./version";

/** Unsaved is what was typed and had not reached the application when the page ended, and from which revision. */
export type Unsaved = { revision: number; version: Version };

const place = (plan: number) => `plan:${plan}:unsaved`;

export function keepUnsaved(plan: number, unsaved: Unsaved): void {
  try {
    localStorage.setItem(place(plan), JSON.stringify(unsaved));
  } catch {
    // no room: what is typed is still on the screen and will be saved from there
  }
}

export function forgetUnsaved(plan: number): void {
  localStorage.removeItem(place(plan));
}

/** unsavedOf is what a page that ended suddenly has left of the plan. */
export function unsavedOf(plan: number): Unsaved | null {
  try {
    return JSON.parse(localStorage.getItem(place(plan)) ?? "null") as Unsaved | null;
  } catch {
    return null;
  }
}
