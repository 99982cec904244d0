import { createContext, useContext, useEffect, useState } from "react";
import english from "../../../language/en/room.json";
import { message, written } from "../wire/message";

/** Key names a text of the room's screens: language/<tag>/room.json has them, and language/en/room.about.json describes each. */
export type Key = keyof typeof english;

type Messages = { [key in Key]: string };

/** Words is the texts of the room's screens in one language. */
export type Words = { tag: string; messages: Messages };

const inEnglish: Words = { tag: "en", messages: english };

/** RoomWords is what the room's screens are written in. The teacher's own screens use it too, in English. */
export const RoomWords = createContext(inEnglish);

const files = import.meta.glob<Messages>("../../../language/*/room.json", { import: "default" });
const fileOf = (tag: string) => files[`../../../language/${tag}/room.json`];

/** roomLanguages is the tags of the languages that the room's screens are written in. */
export const roomLanguages = Object.keys(files)
  .map((path) => path.split("/").at(-2)!)
  .sort();

/** useWords is the texts in a language. Until they are there, and where there are none, they are English. */
export function useWords(tag: string): Words {
  const [found, setFound] = useState(inEnglish);
  useEffect(() => {
    let gone = false;
    if (tag === "en") return;
    fileOf(tag)?.().then(
      (messages) => gone || setFound({ tag, messages }),
      () => undefined, // without a network it stays English
    );
    return () => void (gone = true);
  }, [tag]);
  const words = found.tag === tag ? found : inEnglish;
  useEffect(() => void (document.documentElement.lang = words.tag), [words.tag]);
  return words;
}

const read = new Map<string, ReturnType<typeof message>>();

/** Say is a text of the room's screens with its places filled in. */
export type Say = (key: Key, args?: { [name: string]: string | number }) => string;

/** sayIn is the texts of a language. */
export function sayIn({ tag, messages }: Words): Say {
  const writer = { tag, text: () => "" };
  return (key, args = {}) => {
    const source = messages[key];
    let pieces = read.get(source);
    if (!pieces) read.set(source, (pieces = message(source)));
    return written(pieces, args, writer);
  };
}

/** useSay is the texts of this screen. */
export function useSay(): Say {
  return sayIn(useContext(RoomWords));
}

/** useTag is the tag of the language of this screen. */
export const useTag = (): string => useContext(RoomWords).tag;
