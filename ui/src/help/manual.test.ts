import { expect, test } from "vitest";
import { languages } from "../language/catalogue";

const texts = import.meta.glob<string>(["../../../docs/manual/**/*.md", "!../../../docs/manual/README.md"], {
  query: "?raw",
  import: "default",
  eager: true,
});

const named = Object.fromEntries(
  Object.entries(texts).map(([path, text]) => [path.split("/manual/")[1]!, text]),
);
const english = Object.keys(named).filter((name) => !name.includes("/"));
const whole = languages.filter((tag) => tag !== "en" && tag !== "pt");

const links = (text: string) => [...text.matchAll(/\]\(([\w-]+\.md)\)/g)].map((m) => m[1]!).sort();
const count = (text: string, form: RegExp) => [...text.matchAll(form)].length;

test.each(whole)("the manual in %s has every page, with the same parts and links", (tag) => {
  for (const name of english) {
    const here = named[`${tag}/${name}`]!;
    const there = named[name]!;
    expect(here, `${tag}/${name}`).toBeDefined();
    expect(here).toMatch(/^# .+\n/);
    expect(count(here, /^#+ /gm), `headings of ${tag}/${name}`).toBe(count(there, /^#+ /gm));
    expect(links(here), `links of ${tag}/${name}`).toEqual(links(there));
    expect(count(here, /^\d+\. |^- /gm), `lists of ${tag}/${name}`).toBe(count(there, /^\d+\. |^- /gm));
    expect(count(here, /^\*\*/gm), `paragraphs of ${tag}/${name}`).toBeGreaterThanOrEqual(
      count(there, /^\*\*/gm) - 2,
    );
    expect(here).not.toBe(there);
  }
  expect(links(Object.values(named).join("\n")).filter((link) => !english.includes(link))).toEqual([]);
});
