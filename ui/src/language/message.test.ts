import { IntlMessageFormat } from "intl-messageformat";
import { expect, test } from "vitest";
import cases from "../../../language/cases.json";
import english from "../../../language/en.json";
import type { Fact } from "../wire/contract";
import { message, written } from "../wire/message";
import { text } from "./text";

const messages: { [id: string]: string } = english;
const ours = / list, /; // what the syntax of ICU does not have

/** Arguments of each message: its names, each with that number and, in a select, with a word of it. */
function argsOf(source: string, n: number): { [name: string]: string | number } {
  const args: { [name: string]: string | number } = {};
  for (const [, name = "", kind, first] of source.matchAll(/\{(\w[\w-]*)(?:, (plural|select), (\S+))?/g))
    args[name] ??= kind === "plural" ? n : kind === "select" ? (first ?? "") : `${name} ${n}`;
  return args;
}

// Held against the library of FormatJS, which reads ICU MessageFormat as its specification has it.
test.each(Object.entries(messages).filter(([, source]) => !ours.test(source)))(
  "%s reads as ICU has it",
  (_, source) => {
    for (const n of [0, 1, 2, 7]) {
      const args = argsOf(source, n);
      expect(written(message(source), args, () => "")).toBe(new IntlMessageFormat(source, "en").format(args));
    }
  },
);

test.each(cases as { fact: Fact; text: string }[])("$fact.id reads as the program has it", (one) => {
  expect(text(one.fact)).toBe(one.text);
});

test("a fact without a message is shown as it is", () => {
  expect(text({ id: "no.such-message", args: { n: 3 } })).toBe('no.such-message {"n":3}');
  expect(text(null)).toBe("");
});
