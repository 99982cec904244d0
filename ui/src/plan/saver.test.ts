import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Failed } from "../wire/api";
import type { Plan } from "../wire/contract";
import { Saver, type Saving } from "./saver";
import type { Version } from "./version";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const version = (title: string): Version => ({ document: { title, passages: [] }, group: 0 });

/** An application that stores each plan, or answers as it is told. */
function application() {
  const sent: [number, unknown][] = [];
  let told: Saving = "saved";
  let answer: (() => Promise<void>) | null = null;
  const saver = new Saver(
    1,
    async (revision, { document }) => {
      sent.push([revision, document.title]);
      await answer?.();
      return { revision: revision + 1 } as Plan;
    },
    (saving) => (told = saving),
    () => undefined,
  );
  return { saver, sent, told: () => told, answers: (next: typeof answer) => (answer = next) };
}

test("what is typed quickly is saved once, when there is a pause", async () => {
  const { saver, sent, told } = application();
  for (const title of ["L", "Lu", "Lunch"]) saver.keep(version(title));
  expect(told()).toBe("saving");
  await vi.runAllTimersAsync();
  expect(sent).toEqual([[1, "Lunch"]]);
  expect(told()).toBe("saved");
});

test("what is typed while it is stored follows, from the revision that came back", async () => {
  const { saver, sent, answers } = application();
  answers(() => new Promise((done) => setTimeout(done, 50)));
  saver.keep(version("one"));
  const saved = saver.save();
  saver.keep(version("two"));
  await vi.runAllTimersAsync();
  await saved;
  expect(sent).toEqual([
    [1, "one"],
    [2, "two"],
  ]);
});

test("without an answer it is tried again by itself, the same first and then what came after", async () => {
  const { saver, sent, told, answers } = application();
  answers(() => Promise.reject(new Failed({ say: { id: "away" } }, 0)));
  saver.keep(version("one"));
  await vi.advanceTimersByTimeAsync(600);
  expect(told()).toEqual({ failed: "away", conflict: false, unanswered: true });
  saver.keep(version("two"));
  answers(null);
  await vi.runAllTimersAsync();
  expect(sent.slice(1)).toEqual([
    [1, "one"],
    [2, "two"],
  ]);
  expect(told()).toBe("saved");
});

test("what another window has saved is overwritten only when that is wanted", async () => {
  const { saver, sent, told, answers } = application();
  answers(() => Promise.reject(new Failed({ say: { id: "theirs" } }, 409)));
  saver.keep(version("mine"));
  await vi.advanceTimersByTimeAsync(600);
  saver.keep(version("mine, more"));
  expect(told()).toMatchObject({ conflict: true });
  answers(null);
  await saver.overwrite(7);
  expect(sent.at(-1)).toEqual([7, "mine, more"]);
  expect(told()).toBe("saved");
});
