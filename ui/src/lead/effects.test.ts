import { expect, test } from "vitest";
import { aPhase, aScore } from "../test/score";
import type { Preview } from "../wire/contract";
import type { Control } from "./adjustments";
import { withPreview } from "./effects";

const undo: Control = {
  id: "undo",
  key: "z",
  name: "Undo",
  effect: "",
  press: { do: "undo" },
  met: true,
  twice: false,
  hidden: false,
};
const refused = { answer: { do: "undo", refused: { id: "refused.nothing-to-undo" } } } as unknown as Preview;
const score = aScore([aPhase()]);

test("a preview of this moment says whether a key is accepted", () => {
  expect(withPreview(undo, refused, score, true)).toMatchObject({
    met: false,
    effect: "nothing to take back",
  });
});

test("a preview of a moment before is shown, and turns no key off: after a press there is something to take back", () => {
  expect(withPreview(undo, refused, score, false)).toMatchObject({
    met: true,
    effect: "nothing to take back",
  });
});
