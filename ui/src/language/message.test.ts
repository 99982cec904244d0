import { IntlMessageFormat } from "intl-messageformat";
import { expect, test } from "vitest";
import cases from "../../../language/cases.json";
import type { Fact } from "../wire/contract";
import { message, written } from "../wire/message";
import { text } from "./text";

const files = import.meta.glob<{ [id: string]: string }>(
  ["../../../language/*/*.json", "!../../../language/*/*.about.json"],
  {
    import: "default",
    eager: true,
  },
);
const ours = / list, /; // what the syntax of ICU does not have

/** Arguments of each message: its names, each with that number and, in a select, with a word of it. */
function argsOf(source: string, n: number): { [name: string]: string | number } {
  const args: { [name: string]: string | number } = {};
  for (const [, name = "", kind, first] of source.matchAll(/\{(\w[\w-]*)(?:, (plural|select), (\S+))?/g))
    args[name] ??= kind === "plural" ? n : kind === "select" ? (first ?? "") : `${name} ${n}`;
  return args;
}

// Held against the library of FormatJS, which reads ICU MessageFormat as its specification has it.
test.each(Object.entries(files))("%s reads as ICU has it", (path, messages) => {
  const tag = path.split("/").at(-2)!;
  for (const [id, source] of Object.entries(messages))
    if (!ours.test(source))
      for (const n of [0, 1, 2, 7]) {
        const args = argsOf(source, n);
        const got = written(message(source), args, { tag, text: () => "" });
        expect(got, id).toBe(new IntlMessageFormat(source, tag).format(args));
      }
});

test("numbers have the decimal sign of the language, and no sign between thousands", () => {
  const says = (tag: string, n: number) => written(message("{n} s"), { n }, { tag, text: () => "" });
  expect(says("en", 2.5)).toBe("2.5 s");
  expect(says("de", 2.5)).toBe("2,5 s");
  expect(says("de", 12345)).toBe("12345 s");
});

test("none is one in French, and many in English", () => {
  const says = (tag: string) => {
    const source = "{n, plural, one {one} other {other}}";
    return written(message(source), { n: 0 }, { tag, text: () => "" });
  };
  expect([says("fr"), says("en")]).toEqual(["one", "other"]);
});

test.each(cases as { fact: Fact; text: string }[])("$fact.id reads as the program has it", (one) => {
  expect(text(one.fact)).toBe(one.text);
});

test("a fact without a message is shown as it is", () => {
  expect(text({ id: "no.such-message", args: { n: 3 } })).toBe('no.such-message {"n":3}');
  expect(text(null)).toBe("");
});
