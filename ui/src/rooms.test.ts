import { expect, test } from "vitest";

const files = import.meta.glob<string>("./**/*.{ts,tsx}", { query: "?raw", import: "default", eager: true });

/** The rooms that serve all views, each with those that it may import. A view may import all of them, and no other view. */
const served: { [room: string]: string[] } = {
  wire: [],
  player: ["wire", "/language"],
  language: ["wire", "player", "/language"],
  apart: ["wire", "player"],
  ear: [],
  frame: ["wire", "player", "language", "apart"],
};
const all = Object.keys(served);

/** What stands outside: the manual, which is shown as it is, and the catalogues of texts. */
const outside = ["/docs", "/language"];
/** What is made of the program for the screens, as the list of keys. */
const made = "ui";

/** What only tests import. */
const forTests = (path: string) => (path.includes(".test.") ? ["test"] : []);

const roomOf = (path: string) => /^\.\/([a-z]+)\//.exec(path)?.[1] ?? "";

/** roomImported is the room, or the folder outside, of what a file imports. */
function roomImported(from: string, imported: string): string {
  const parts = new URL(imported, `file:///ui/src/${from}`).pathname.split("/").slice(1);
  if (parts[0] !== "ui") return `/${parts[0]!}`; // outside the screens
  return parts[1] === "src" && parts.length > 3 ? parts[2]! : "ui"; // a file of all of them
}

test.each(Object.entries(files).filter(([path]) => roomOf(path) !== ""))(
  "%s imports one way",
  (path, text) => {
    const room = roomOf(path);
    const allowed = [room, made, ...(served[room] ?? [...all, ...outside]), ...forTests(path)];
    for (const [, imported] of text.matchAll(/(?:from|import\(?) ?"(\.{1,2}\/[^"]+)"/g))
      expect(allowed).toContain(roomImported(path, imported!));
  },
);

test("no rule of the job and no word of the wire is asked for outside wire", () => {
  for (const [path, text] of Object.entries(files)) {
    if (roomOf(path) === "wire" || path.includes(".test.")) continue;
    if (path === "./apart/core.worker.ts" || path === "./apart/service.ts") continue; // they run without a page
    expect(text, path).not.toMatch(/\bfetch\(|new EventSource|randomUUID/);
  }
});
