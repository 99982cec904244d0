/** Pressed is what a key event tells. */
export type Pressed = Pick<KeyboardEvent, "key" | "repeat" | "ctrlKey" | "metaKey" | "altKey">;

/** isPlain tells whether a key is pressed by itself, and for the first time. */
export function isPlain({ repeat, ctrlKey, metaKey, altKey }: Pressed): boolean {
  return !repeat && !ctrlKey && !metaKey && !altKey;
}
