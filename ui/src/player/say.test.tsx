import { renderHook, waitFor } from "@testing-library/react";
// @vitest-environment jsdom
import { describe, expect, it } from "vitest";
import about from "../../../language/en/room.about.json";
import english from "../../../language/en/room.json";
import { message } from "../wire/message";
import { type Key, roomLanguages, sayIn, useWords } from "./say";

const files = import.meta.glob<{ [key: string]: string }>("../../../language/*/room.json", {
  import: "default",
  eager: true,
});
const keys = Object.keys(english).sort();

type Pieces = ReturnType<typeof message>;

/** places is the names that a text fills in, also in its cases. */
function places(pieces: Pieces): string[] {
  const names = pieces.flatMap((piece) =>
    piece === null || typeof piece === "string"
      ? []
      : [piece.name, ...[...(piece.cases?.values() ?? [])].flatMap(places)],
  );
  return [...new Set(names)].sort();
}

describe("the texts of the room's screens", () => {
  it("are there in every language, and each is described", () => {
    expect(roomLanguages).toEqual(["de", "en", "es", "fr", "pt"]);
    expect(Object.keys(about).sort()).toEqual(keys);
    for (const [path, messages] of Object.entries(files))
      expect(Object.keys(messages).sort(), path).toEqual(keys);
  });

  it("fill in the same places in every language", () => {
    for (const [path, messages] of Object.entries(files))
      for (const key of keys)
        expect(places(message(messages[key]!)), `${path}: ${key}`).toEqual(
          places(message(english[key as Key])),
        );
  });

  it("are said with their arguments", () => {
    const de = sayIn({ tag: "de", messages: files["../../../language/de/room.json"] as typeof english });
    expect(de("side-round", { side: "left", round: de("round-of", { n: 2, of: 9 }) })).toBe(
      "linke Seite, Runde 2 von 9",
    );
    expect(de("in-minutes", { minutes: 1 })).toBe("in 1 Minute");
    expect(de("recorded-not", { list: "ein", more: 0 })).toBe("Nicht aufgenommen: ein.");
  });

  it("are English until a language has come, and where there is none", async () => {
    const { result, rerender } = renderHook(({ tag }) => useWords(tag), { initialProps: { tag: "fr" } });
    expect(result.current.tag).toBe("en");
    await waitFor(() => expect(result.current.tag).toBe("fr"));
    expect(document.documentElement.lang).toBe("fr");
    rerender({ tag: "tlh" });
    expect(result.current.tag).toBe("en");
  });
});
