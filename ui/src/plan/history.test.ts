import { expect, test } from "vitest";
import { add, begin, redo, undo } from "./history";

test("what was changed is undone and made again, step by step", () => {
  let h = begin("a");
  h = add(add(h, "b"), "c");
  expect(h.present).toBe("c");
  h = undo(undo(h));
  expect(h.present).toBe("a");
  expect(undo(h)).toBe(h);
  h = redo(h);
  expect(h.present).toBe("b");
  expect(redo(redo(h)).present).toBe("c");
});

test("a change after an undo leaves no way to what was undone", () => {
  const h = add(undo(add(begin("a"), "b")), "x");
  expect(h.present).toBe("x");
  expect(redo(h)).toBe(h);
  expect(undo(h).present).toBe("a");
});
