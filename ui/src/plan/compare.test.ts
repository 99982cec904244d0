import { expect, test } from "vitest";
import { beside, type Planned, unchanged } from "./compare";

const p = (name: string, practice: string, short: string): Planned => ({ name, practice, short, says: [] });

test("like stands beside like, in order, and what is new or left out beside nothing", () => {
  const last = [
    p("Arrive", "", "1m"),
    p("Even", "even", "4:4 x6"),
    p("Nadi", "nadi", "4:4 x6"),
    p("Rest", "", "2m"),
  ];
  const now = [
    p("Arrive", "", "1m"),
    p("Belly", "belly", "4:4 x8"),
    p("Nadi", "nadi", "4:4:4 x6"),
    p("Rest", "", "2m"),
  ];
  const rows = beside(last, now);
  expect(rows.map((r) => [r.then?.name, r.now?.name])).toEqual([
    ["Arrive", "Arrive"],
    ["Even", undefined],
    [undefined, "Belly"],
    ["Nadi", "Nadi"],
    ["Rest", "Rest"],
  ]);
  expect(rows.map(unchanged)).toEqual([true, false, false, false, true]);
});

test("of two that are alike, the same to the letter stand together", () => {
  const last = [p("Belly", "belly", "8:8 x4")];
  const rows = beside(last, [p("Belly", "belly", "4:4 x8"), p("Belly", "belly", "8:8 x4")]);
  expect(rows.map((r) => r.then?.short ?? "")).toEqual(["", "8:8 x4"]);
});

test("nothing beside nothing", () => {
  expect(beside([], [])).toEqual([]);
});
