import { describe, expect, test } from "vitest";
import { message } from "../wire/message";
import { languages } from "./catalogue";

type Messages = { [key: string]: string };

const files = import.meta.glob<Messages>("../../../language/*/*.json", { import: "default", eager: true });
const sources = import.meta.glob<string>(["../**/*.{ts,tsx}", "!**/*.test.*"], {
  query: "?raw",
  import: "default",
  eager: true,
});

const tagOf = (path: string) => path.split("/").at(-2)!;
const nameOf = (path: string) => path.split("/").at(-1)!;
const isAbout = (path: string) => path.endsWith(".about.json");
const english = (name: string) => files[`../../../language/en/${name}`]!;
const catalogues = Object.entries(files).filter(([path]) => !isAbout(path));

/** Every language has all of these files. Portuguese has those of the room and of Lead. */
const whole = ["de", "en", "es", "fr"];

type Pieces = ReturnType<typeof message>;

/** places is the names that a text fills in, also in its cases, and how. */
function places(pieces: Pieces): string[] {
  const names = pieces.flatMap((piece) =>
    piece === null || typeof piece === "string"
      ? []
      : [piece.name, ...[...(piece.cases?.values() ?? [])].flatMap(places)],
  );
  return [...new Set(names)].sort();
}

/** choices is the choices of a text: each has the case that is taken where no other fits. */
function choices(pieces: Pieces): string[][] {
  return pieces.flatMap((piece) =>
    piece === null || typeof piece === "string" || !piece.cases
      ? []
      : [[...piece.cases.keys()], ...[...piece.cases.values()].flatMap(choices)],
  );
}

const edges = (text: string) => [/^ */.exec(text)![0], / *$/.exec(text)![0]]; // a no-break space is the translator's own

test("the whole languages have every file", () => {
  const names = Object.keys(files).filter((path) => tagOf(path) === "en" && !isAbout(path));
  for (const tag of whole)
    for (const name of names.map(nameOf))
      expect(files, `${tag}/${name}`).toHaveProperty([`../../../language/${tag}/${name}`]);
  expect(languages).toEqual(expect.arrayContaining(whole));
});

describe.each(catalogues)("%s", (path, messages) => {
  const of = english(nameOf(path));

  test("has the keys of the English file", () => {
    const keys = Object.keys(messages);
    if (whole.includes(tagOf(path)) || nameOf(path) !== "frame.json")
      expect(keys.sort()).toEqual(Object.keys(of).sort());
    else expect(Object.keys(of)).toEqual(expect.arrayContaining(keys)); // only what Lead shows of the frame
  });

  test("fills in the same places, and keeps the spaces at the ends", () => {
    for (const [key, text] of Object.entries(messages)) {
      expect(text.trim(), key).not.toBe("");
      expect(places(message(text)), `${key}: ${text}`).toEqual(places(message(of[key]!)));
      expect(edges(text), key).toEqual(edges(of[key]!));
      for (const cases of choices(message(text))) expect(cases, `${key}: ${text}`).toContain("other");
    }
  });
});

test("every text is described: by its key, or by its family as advice.*", () => {
  for (const [path, messages] of catalogues) {
    if (tagOf(path) !== "en") continue;
    const about = files[path.replace(".json", ".about.json")]!;
    for (const key of Object.keys(messages))
      expect(about[key] ?? about[`${key.split(".")[0]}.*`], `${path}: ${key}`).toMatch(/\w{4,}/);
    for (const key of Object.keys(about))
      expect(
        Object.keys(messages).some((k) => k === key || (key.endsWith("*") && k.startsWith(key.slice(0, -1)))),
        `${path}: ${key} describes nothing`,
      ).toBe(true);
  }
});

test("no key is in two files of the teacher's screens", () => {
  const seen = new Map<string, string>();
  for (const [path, messages] of catalogues)
    if (tagOf(path) === "en" && nameOf(path) !== "room.json")
      for (const key of Object.keys(messages)) {
        expect(seen.get(key), key).toBeUndefined();
        seen.set(key, path);
      }
});

test("every text of a screen is used by one", () => {
  const all = Object.values(sources).join("\n");
  const elsewhere = ["facts.json", "leading.json", "planning.json", "room.json"]; // the program, and keys in parts
  for (const [path, messages] of catalogues)
    if (tagOf(path) === "en" && !elsewhere.includes(nameOf(path)))
      for (const key of Object.keys(messages)) expect(all.includes(`"${key}"`), `${path}: ${key}`).toBe(true);
});

test("a text has the quotation marks of its language", () => {
  const marks: { [tag: string]: RegExp } = {
    en: /[„«»]/,
    de: /[“”«»](?<!„[^“]*“)/,
    fr: /[„“”]/,
    es: /[„“”]/,
  };
  for (const [path, messages] of catalogues)
    for (const [key, text] of Object.entries(messages))
      if (marks[tagOf(path)]) expect(text, `${path}: ${key}`).not.toMatch(marks[tagOf(path)]!);
});
