import { describe, expect, it } from "vitest";
import { factText } from "./typed";

describe("factText", () => {
  it.each([
    ["rounds", "1", "1 round"],
    ["rounds", "6", "6 rounds"],
    ["seconds", "90", "90 seconds"],
    ["seconds", "120", "2 minutes"],
    ["tempo", "@48", "48 counts a minute"],
    ["side", "left", "left side"],
    ["script", "knees", "only you read “knees”"],
    ["airway", "through the mouth", "through the mouth"],
  ])("says %s %s", (field, value, says) => {
    expect(factText({ field, value, assumed: false })).toBe(says);
  });
});
