import { expect, it } from "vitest";
import { readTimeOfDay, weekly } from "./format";

it.each([
  ["18:42", 67_320],
  ["18:42:30", 67_350],
  ["6:42 pm", 67_320],
  ["6:42:30 p.m.", 67_350],
  ["12:05 am", 300],
  ["12:00 PM", 43_200],
  ["24:00", null],
  ["13:00 pm", null],
  ["18:60", null],
  ["soon", null],
])("reads %s", (text, seconds) => {
  expect(readTimeOfDay(text)).toBe(seconds);
});

it("leaves what is no time as it is", () => {
  expect(weekly("")).toBe("");
  expect(weekly("half past six")).toBe("half past six");
  expect(weekly("18:30")).toMatch(/6:30|18:30/);
});
