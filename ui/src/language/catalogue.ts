import type frame from "../../../language/en/frame.json";
import type groups from "../../../language/en/groups.json";
import type help from "../../../language/en/help.json";
import type home from "../../../language/en/home.json";
import type keys from "../../../language/en/keys.json";
import type language from "../../../language/en/language.json";
import type lead from "../../../language/en/lead.json";
import type plan from "../../../language/en/plan.json";
import type practices from "../../../language/en/practices.json";
import type programmes from "../../../language/en/programmes.json";
import type rehearse from "../../../language/en/rehearse.json";
import type school from "../../../language/en/school.json";
import type taught from "../../../language/en/taught.json";
import type today from "../../../language/en/today.json";
import type voices from "../../../language/en/voices.json";
import { writeDatesIn } from "../player/format";

/** Key names a text of the teacher's screens: the part before the dot is its file, language/<tag>/<file>.json. */
export type Key =
  | keyof typeof frame
  | keyof typeof groups
  | keyof typeof help
  | keyof typeof home
  | keyof typeof keys
  | keyof typeof language
  | keyof typeof lead
  | keyof typeof plan
  | keyof typeof practices
  | keyof typeof programmes
  | keyof typeof rehearse
  | keyof typeof school
  | keyof typeof taught
  | keyof typeof today
  | keyof typeof voices;

type Messages = { [key: string]: string };

/** Language is the texts of the teacher's screens in one language: those of all views, or only those of Today. */
export type Language = { tag: string; messages: Messages; whole: boolean };

const files = import.meta.glob<Messages>(
  ["../../../language/*/*.json", "!../../../language/*/room.json", "!../../../language/*/*.about.json"],
  { import: "default" },
);
const tagOf = (path: string) => path.split("/").at(-2)!;
const nameOf = (path: string) => path.split("/").at(-1)!;
const names = Object.keys(files)
  .filter((path) => tagOf(path) === "en")
  .map(nameOf);

/** languages is the tags of the languages that the teacher's screens are written in. */
export const languages = [...new Set(Object.keys(files).map(tagOf))].sort();

let current: Language = { tag: "en", messages: {}, whole: false };
const followers = new Set<() => void>();

/** inUse is the language of the screens, once it is loaded. */
export const inUse = (): Language => current;

/** tag is the tag of the language of the screens. */
export const tag = (): string => current.tag;

/** followLanguage tells of another language of the screens, until what it returns is called. */
export function followLanguage(follower: () => void): () => void {
  followers.add(follower);
  return () => void followers.delete(follower);
}

/** first is what Today needs: the first page loads no more texts than these. */
const first = ["facts.json", "frame.json", "today.json"];

const fileOf = (tag: string, name: string) => files[`../../../language/${tag}/${name}`];

/** cautionsAreTranslated tells whether the cautions are shown in another language than the one they were written in. */
export const cautionsAreTranslated = (): boolean =>
  current.tag !== "en" && fileOf(current.tag, "facts.json") !== undefined;

/** isWhole tells whether all of the teacher's screens are written in a language. */
export const isWhole = (tag: string): boolean => names.every((name) => fileOf(tag, name) !== undefined);

/** load is the messages of some files of a language. What a language lacks is English; a whole one needs no English. */
async function load(tag: string, wanted: string[]): Promise<Messages> {
  const tags = isWhole(tag) ? [tag] : ["en", tag];
  const parts = tags.flatMap((one) => wanted.flatMap((name) => fileOf(one, name)?.() ?? []));
  return Object.assign({}, ...(await Promise.all(parts))) as Messages;
}

/** speak loads a language and writes the screens in it: all of it where another view than Today has been open. */
export async function speak(tag: string): Promise<void> {
  const whole = current.whole;
  write({ tag, messages: await load(tag, whole ? names : first), whole });
}

/** readAll loads the texts of all views but Today. */
export async function readAll(): Promise<void> {
  const language = current;
  if (language.whole) return;
  Object.assign(language.messages, await load(language.tag, names));
  language.whole = true;
}

/** write writes the screens in a language that is loaded. */
export function write(language: Language): void {
  current = language;
  writeDatesIn(language.tag);
  if (typeof document !== "undefined") document.documentElement.lang = language.tag; // a test has no page
  followers.forEach((tell) => tell());
}

const cookie = /(?:^|; )language=([a-z]{2})(?:;|$)/;

/**
 * chosen is the language that a person chose on this device, else the first of the browser's that is whole, else English.
 * One of which only some screens are written has to be chosen.
 */
export function chosen(): string {
  const own = cookie.exec(document.cookie)?.[1];
  if (own && languages.includes(own)) return own;
  return navigator.languages.map((l) => l.split("-")[0]!).find(isWhole) ?? "en";
}

/** choose writes the screens in a language from now on. A cookie keeps it, so that files and papers of the program follow. */
export async function choose(tag: string): Promise<void> {
  await speak(tag);
  document.cookie = `language=${tag}; path=/; max-age=31536000; samesite=lax`;
}
