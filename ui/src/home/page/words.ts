import { message, type Arguments, written } from "../../wire/message";
import type { Words } from "../../player/say";
import type english from "../../../../language/en/page.json";

export type Key = keyof typeof english;
type Messages = { [key in Key]: string };

// The page is one file and carries every language: it is opened where nothing can be loaded.
const files = import.meta.glob<Messages>("../../../../language/*/page.json", {
  import: "default",
  eager: true,
});
const messagesOf = (tag: string) => files[`../../../../language/${tag}/page.json`];

let current = "en";

/** speak writes the page in a language; in English where there is no such language. */
export function speak(tag: string): void {
  current = messagesOf(tag) ? tag : "en";
  document.documentElement.lang = current;
}

const rooms = import.meta.glob<Words["messages"]>("../../../../language/*/room.json", {
  import: "default",
  eager: true,
});

/** roomWords is what stands around the count, in the page's language. */
export const roomWords = (): Words => ({
  tag: current,
  messages: rooms[`../../../../language/${current}/room.json`]!,
});

/** tag is the tag of the page's language. */
export const tag = (): string => current;

/** t is a text of the page with its places filled in. */
export function t(key: Key, args: Arguments = {}): string {
  return written(message(messagesOf(current)![key]), args, { tag: current, text: () => "" });
}
