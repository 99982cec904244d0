// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { page } from "../test/page";
import type { HeardPhase, Record } from "../wire/contract";
import HeardRounds from "./HeardRounds";

vi.stubGlobal(
  "ResizeObserver",
  class {
    observe() {}
    unobserve() {}
    disconnect() {}
  },
);

const heard = (part: Partial<HeardPhase>) =>
  ({
    breath: 1,
    planned_rate: 0,
    led_rate: 0,
    heard_rate: 0,
    planned_ms: 0,
    led_ms: 0,
    heard_ms: 0,
    ...part,
  }) as HeardPhase;

test("what was heard is told round by round, beside what was planned and led", () => {
  const record = {
    passages: [{ name: "Skull-shining breath" }, { name: "Chanting Om" }],
    heard: [
      heard({ passage: 1, round: 2, phase: "stroke", planned_rate: 60, led_rate: 62, heard_rate: 66.2 }),
      heard({ passage: 2, round: 1, phase: "exhale", planned_ms: 8000, led_ms: 9100, heard_ms: 7250 }),
    ],
  } as Record;
  page(<HeardRounds record={record} />);
  const plots = screen.getAllByRole("img").map((plot) => plot.getAttribute("aria-label"));
  expect(plots).toEqual([
    "Skull-shining breath, strokes a minute: round 2: heard 66.2, led 62, planned 60",
    "Chanting Om, seconds of sound: round 1: heard 7.3, led 9.1, planned 8",
  ]);
  expect(screen.getByText(/not a measurement/)).toBeTruthy();
});
