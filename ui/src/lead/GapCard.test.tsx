// @vitest-environment jsdom
import { screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, test, vi } from "vitest";
import { page } from "../test/page";
import type { Gap, Score } from "../wire/contract";
import { deskOf } from "./desk";
import { GapCard } from "./GapCard";
import { Unstored } from "./Unstored";

const score = { class_id: 3, started_ms: Date.now() - 90_000, end_ms: 600_000, over: false } as Score;
const gap = {
  away: { id: "place.round", args: {} },
  now: { id: "place.round", args: {} },
  again: true,
} as unknown as Gap;

beforeEach(() => localStorage.clear());

/** away shows what is asked after a screen was away since the thirtieth second. */
function away(answer: Partial<Gap> = {}) {
  const closed = vi.fn();
  const taken = vi.fn();
  const after = { ...score, revision: 5 };
  const desk = deskOf(3, taken).away!;
  const shown = page(<GapCard score={score} from={30_000.4} away={desk} onClose={closed} />, {
    "GET /settings": { keys: { letters: {}, no_letters: false, remote: [] } },
    "GET /classes/3/gap?from_ms=30000": { ...gap, ...answer },
    "POST /classes/3/again": { answer: {}, score: after },
  });
  return { ...shown, closed, taken, after };
}

test("after a gap the teacher goes on at the clock with the usual key", async () => {
  const { user, closed, asked } = away();
  expect(screen.getByRole("heading").textContent).toMatch(/^This screen was away for 1:0\d$/);
  await screen.findByText("It was at");
  await user.keyboard("f");
  expect(closed).toHaveBeenCalledOnce();
  expect(asked.some((a) => a.method === "POST")).toBe(false);
});

test("what was missed is repeated once, with the moment from which it was", async () => {
  const { user, closed, taken, asked } = away();
  await screen.findByRole("button", { name: /Repeat what was missed/ });
  await user.keyboard("r");
  await waitFor(() => expect(closed).toHaveBeenCalledOnce());
  expect(taken.mock.lastCall?.[0]).toMatchObject({ revision: 5 });
  const sent = asked.filter((a) => a.method === "POST");
  expect(sent).toHaveLength(1);
  expect(sent[0]!.body).toMatchObject({ from_ms: 30_000 });
  expect((sent[0]!.body as { key: string }).key).not.toBe("");
});

test("where nothing can be repeated it is not offered, and its key does nothing", async () => {
  const { user, closed, asked } = away({ again: false });
  await screen.findByText("It was at");
  expect(screen.queryByRole("button", { name: /Repeat/ })).toBeNull();
  await user.keyboard("r");
  expect(closed).not.toHaveBeenCalled();
  expect(asked.some((a) => a.method === "POST")).toBe(false);
});

test("what is not stored is named, each kind once with its first time", () => {
  const presses = [
    { number: 1, at_ms: 61_000, do: "tempo" },
    { number: 2, at_ms: 70_000, do: "tempo" },
    { number: 3, at_ms: 75_000, do: "pause" },
  ] as const;
  page(<Unstored unstored={{ why: { id: "file.disk-full" }, presses: [...presses] }} />);
  expect(screen.getByRole("status").textContent).toContain(
    "Not stored yet: tempo at 1:01 and 1 more, natural breath at 1:15.",
  );
});
