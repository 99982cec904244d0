import { expect, test } from "vitest";

const files = import.meta.glob<string>("./**/*.{ts,tsx}", { query: "?raw", import: "default", eager: true });

/** The rooms that serve all views, each with those that it may import. A view may import all of them, and no other view. */
const served: { [room: string]: string[] } = {
  wire: [],
  player: ["wire"],
  language: ["wire", "player"],
  frame: ["wire", "player", "language"],
};
const all = Object.keys(served);

/** What stands outside: the manual, which is shown as it is, and the catalogue of messages. */
const outside = ["docs", "language"];

/** What only tests import. */
const forTests = (path: string) => (path.includes(".test.") ? ["test"] : []);

const roomOf = (path: string) => /^\.\/([a-z]+)\//.exec(path)?.[1] ?? "";

test.each(Object.entries(files).filter(([path]) => roomOf(path) !== ""))(
  "%s imports one way",
  (path, text) => {
    const room = roomOf(path);
    const allowed = [room, ...(served[room] ?? [...all, ...outside]), ...forTests(path)];
    for (const [, imported] of text.matchAll(/(?:from|import\(?) ?"(?:\.\.\/)+([a-z]+)\//g))
      expect(allowed).toContain(imported);
  },
);

test("no rule of the job and no word of the wire is asked for outside wire", () => {
  for (const [path, text] of Object.entries(files)) {
    if (roomOf(path) === "wire" || path.includes(".test.")) continue;
    expect(text, path).not.toMatch(/\bfetch\(|new EventSource|randomUUID/);
  }
});
