// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { page } from "../test/page";
import type { ScorePassage } from "../wire/contract";
import { EarPad } from "./EarPad";
import type { Ear } from "./useEar";

const shown = { strokes: null, sounds: null, still: "none", last: null, early: false, dead: false };
const passage = {
  hears: "exhale",
  practice: "sigh",
  in_force: { by_hand: [] as string[] },
} as unknown as ScorePassage;

/** pad is the pad for listening, as it is before it listens or while it does, with the teacher's own letters. */
function pad(is: "off" | "on", letters: { [id: string]: string }) {
  const hearing = is === "on" ? { is, name: "", late: 0, changed: false } : { is };
  const ear = {
    hearing,
    shown,
    hears: "exhale",
    proposal: null,
    simulated: true,
    wants: {},
  } as unknown as Ear;
  return page(<EarPad ear={ear} passage={passage} onClose={vi.fn()} />, {
    "GET /settings": { keys: { letters, no_letters: false, remote: [] }, meanings: [] },
  });
}

test("a pad prints the letters that the teacher chose", async () => {
  pad("off", { "go-on": "k" });
  expect(await screen.findByRole("button", { name: "K Listen" })).toBeTruthy();
});

test("where going on has no letter, Enter accepts", async () => {
  pad("off", { "go-on": "" });
  expect(await screen.findByRole("button", { name: "Enter Listen" })).toBeTruthy();
});

test("the key for leading by hand is named where there is one", async () => {
  pad("on", { hand: "j" });
  expect(await screen.findByText(/^Led by hand \(J\), it can go on/)).toBeTruthy();
});

test("and left out where there is none", async () => {
  pad("on", { hand: "" });
  expect(await screen.findByText(/^Led by hand, it can go on/)).toBeTruthy();
});
