import { compile } from "sass";
import { expect, test } from "vitest";

const views = import.meta.glob<string>("./**/*.tsx", { query: "?raw", import: "default", eager: true });
const sheets = Object.keys(import.meta.glob("./**/*.css")).map((path) => path.replace(".", "src"));

const classesIn = (sheet: string) => {
  const { css } = compile(sheet, {
    loadPaths: ["node_modules"],
    quietDeps: true,
    silenceDeprecations: ["import", "global-builtin", "color-functions", "if-function"],
  });
  return [...css.matchAll(/\.(-?[A-Za-z_][\w-]*)/g)].map(([, name]) => name!);
};

const bootstraps = new Set(classesIn("node_modules/bootstrap/scss/bootstrap.scss"));

// Reading Bootstrap takes its time on a busy machine. Each page has only those parts of Bootstrap that it needs. One that a view names and the page lacks is no error anywhere: the view
// only looks wrong.
test.each([
  ["teacher", /^\.\/(?!room\/|home\/page\/)/, ["src/frame/styles.scss"]],
  ["room", /^\.\/(room|player)\//, ["src/room/styles.scss", "src/room/cards.scss"]],
  ["home", /^\.\/(home\/page|player\/(?!sound\/))/, ["src/home/page/styles.scss"]],
])(
  "what views name of Bootstrap is on their page: %s",
  (_, rooms, pages) => {
    const there = new Set([...pages, ...sheets].flatMap(classesIn));
    const missing: string[] = [];
    for (const [path, text] of Object.entries(views))
      if (rooms.test(path))
        for (const [, names] of text.matchAll(/className="([^"]*)"/g))
          for (const name of names!.split(" "))
            if (bootstraps.has(name) && !there.has(name)) missing.push(`${path}: ${name}`);
    expect(missing.join("\n")).toBe("");
  },
  60_000,
);
