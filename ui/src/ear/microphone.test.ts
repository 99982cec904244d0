import { expect, test } from "vitest";
import { troubleOf } from "./microphone";

// The names of errors are those of W3C Media Capture and Streams, section 10.2 (from memory).
test.each([
  ["NotAllowedError", "denied"],
  ["SecurityError", "denied"],
  ["NotFoundError", "none"],
  ["OverconstrainedError", "none"],
  ["NotReadableError", "busy"],
  ["AbortError", "busy"],
  ["TypeError", "unsupported"],
])("%s means: %s", (name, trouble) => {
  expect(troubleOf(new DOMException("", name))).toBe(trouble);
});
