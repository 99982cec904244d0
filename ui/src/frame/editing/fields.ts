/** numberOrText keeps what is no number as it was typed, so that the application can say what is wrong with it. */
export function numberOrText(typed: string): number | string | undefined {
  if (typed.trim() === "") return undefined;
  return /^-?\d+(\.\d+)?$/.test(typed) ? Number(typed) : typed;
}

/** text shows a value of a file in a field, whatever it is. */
export function text(value: unknown): string {
  if (value === undefined || value === null) return "";
  return typeof value === "string" ? value : JSON.stringify(value);
}

/** isTyping tells whether a key that goes there is typed into a field. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName))
  );
}
