import all from "../../../controls.json";
import { text } from "../../language/text";
import type { Adjust, Settings } from "../../wire/contract";

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

/** Keyed is what has a key of its own while a class is led, as the application lists it (studio/contract/controls.go). */
export type Keyed = {
  id: string;
  key: string;
  verbs?: Adjust["do"][];
  group?: string;
  twice?: boolean;
  pedal?: boolean;
};

/** Everything that has a key of its own while a class is led, in the order of the card of keys. */
export const keyed = all as Keyed[];

/** cardText is what the card of keys says of one. */
export function cardText(id: string): string {
  return text({ id: `control.${id}.card` });
}

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
  for (const one of keyed) if (letters[one.id] === one.key) delete letters[one.id]; // as it is if nothing was chosen
  return { ...keys, letters };
}
