import type { Settings } from "../../wire/contract";

export type Keys = Settings["keys"];

/** What pedals mean until the teacher's choices are there, and where they cannot be read: a class is led all the same. */
export const usualKeys: Keys = {
  letters: {},
  no_letters: false,
  remote: [
    { key: "PageDown", press: "short", means: "go-on" },
    { key: "PageDown", press: "long", means: "pause" },
    { key: "PageDown", press: "double", means: "pause" },
    { key: "PageUp", press: "short", means: "pause" },
  ],
};

/** Everything that has a key of its own while a class is led, in the order of the card of keys. */
export const keyed = [
  { id: "slower", key: "q", name: "Slower" },
  { id: "faster", key: "w", name: "Faster" },
  { id: "release", key: "e", name: "Release the hold; in strokes, enough" },
  { id: "holds", key: "g", name: "No holds; holds back" },
  { id: "fewer", key: "a", name: "One round fewer" },
  { id: "more", key: "s", name: "One round more" },
  { id: "last", key: "d", name: "Last round" },
  { id: "again", key: "r", name: "This round again" },
  { id: "go-on", key: "f", name: "Go on: ends what is not counted; in a pause, resumes" },
  { id: "undo", key: "z", name: "Undo" },
  { id: "close", key: "c", name: "Close" },
  { id: "finish", key: "3", name: "On time: fit to the end of the slot" },
  { id: "next", key: "v", name: "Next passage (press twice)" },
  { id: "end", key: "x", name: "End the class (press twice)" },
  { id: "here", key: "5", name: "Tempo: this passage only, or later ones too" },
  { id: "lane", key: "6", name: "The gentler lane: open it, close it" },
  { id: "seen", key: "1", name: "Seen: what is seen in the room, and what to do about it" },
  { id: "tap", key: "2", name: "Tap the room's counts or inhales, and take its tempo" },
  { id: "counts", key: "4", name: "Counts, or strokes" },
  { id: "note", key: "b", name: "Note" },
  { id: "cautions", key: "t", name: "Cautions" },
] as const;

/** letterOf is the key of a control or a panel, in lower case; nothing where it was switched off. */
export function letterOf(id: string, keys: Keys | undefined): string {
  if (keys?.no_letters) return "";
  return keys?.letters[id] ?? keyed.find((one) => one.id === id)?.key ?? "";
}

/** withLetter gives a control another key. The one that had it gets the key that becomes free. */
export function withLetter(keys: Keys, id: string, key: string): Keys {
  const before = letterOf(id, { ...keys, no_letters: false });
  const other = keyed.find(
    (one) => key !== "" && one.id !== id && letterOf(one.id, { ...keys, no_letters: false }) === key,
  );
  const letters: Keys["letters"] = { ...keys.letters, [id]: key };
  if (other) letters[other.id] = before;
  for (const one of keyed) if (letters[one.id] === one.key) delete letters[one.id]; // as it is where nothing was chosen
  return { ...keys, letters };
}
