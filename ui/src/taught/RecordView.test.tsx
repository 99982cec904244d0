// @vitest-environment jsdom
import { screen, within } from "@testing-library/react";
import { expect, test } from "vitest";
import { page } from "../test/page";
import type { Mark, Record, RecordPassage } from "../wire/contract";
import { RecordView } from "./RecordView";

const passage = (change: Partial<RecordPassage> = {}) =>
  ({
    name: "Counted breath",
    practice: "counted-breath",
    planned_length_ms: 120_000,
    length_ms: 100_000,
    planned_at_ms: 0,
    at_ms: 0,
    planned_rounds: 6,
    rounds: 5,
    abandoned: 0,
    counts: "4:4",
    counts_end: "",
    tempo_start: 60,
    tempo_end: 60,
    tempo_mean: 60,
    per_minute: 7.5,
    longest_hold_ms: 0,
    held_full_ms: 0,
    held_empty_ms: 0,
    left_inhales: 0,
    right_inhales: 0,
    done: [],
    breaths: [],
    mean_breath_ms: [0, 0, 0, 0],
    hand_tempo: 0,
    lanes: [],
    ...change,
  }) as unknown as RecordPassage;

const mark = (kind: Mark["kind"], change: object = {}) =>
  ({
    kind,
    passage: 1,
    stage: "round",
    round: 2,
    breath: 1,
    answer: {
      number: 1,
      at_ms: 65_000,
      do: "tempo",
      did: { id: "did.tempo", args: { from: "60", to: "56" } },
      ...change,
    },
  }) as unknown as Mark;

function record(change: object = {}): Record {
  return {
    class: { id: 7, title: "Lunch", started_ms: 1_772_452_800_000, running: false, group: null },
    plan_id: 0,
    planned_ms: 300_000,
    taught_ms: 280_000,
    seen_after: [],
    heard: [],
    unsaid: [],
    told: { asked: 0, answers: [] },
    remarks: [],
    moods: [],
    homes: [],
    curve: [],
    marks: [],
    acknowledged: [],
    passages: [passage()],
    totals: passage({ rounds: 5, planned_rounds: 6 }),
    ...change,
  } as unknown as Record;
}

/** view shows a record once it has been read. */
async function view(of: Record) {
  const shown = page(
    <RecordView />,
    { "GET /classes/7/record": of },
    { address: "/taught/7", path: "/taught/:id" },
  );
  await screen.findByRole("heading", { level: 1 });
  return shown;
}

const cells = (row: number) =>
  within(screen.getAllByRole("row")[row]!)
    .getAllByRole("cell")
    .map((cell) => cell.textContent.trim());

test("a passage tells what was taught beside what was planned", async () => {
  await view(record());
  expect(cells(1)).toEqual(["1", "Counted breath", "1:40 of 2:00", "5 of 6", "4:4", "60", "7.5", "", "", ""]);
});

test("a tempo that changed tells its beginning, its end and its mean", async () => {
  await view(
    record({ passages: [passage({ tempo_end: 52, tempo_mean: 55.25, counts_end: "4:6", eased: true })] }),
  );
  expect(cells(1)[4]).toBe("4:4 → 4:6 · eased");
  expect(cells(1)[5]).toBe("60 → 52, mean 55.3");
});

test("holds are told full and empty, sides left and right", async () => {
  const held = {
    longest_hold_ms: 16_000,
    held_full_ms: 64_000,
    held_empty_ms: 32_000,
    left_inhales: 3,
    right_inhales: 2,
  };
  await view(record({ passages: [passage(held)] }));
  expect(cells(1).slice(7)).toEqual(["16 s", "1:04 full, 0:32 empty", "3 / 2"]);
});

test("strokes are told as they were done, and open phases by their seconds", async () => {
  const strokes = [{ strokes: 30 }, { strokes: 28 }] as RecordPassage["done"];
  const open = [
    { strokes: 0, inhale_ms: 3000, hold_ms: 12_500, exhale_ms: 6000, empty_ms: 0 },
    { strokes: 0, inhale_ms: 4000, hold_ms: 0, exhale_ms: 5000, empty_ms: 0 },
  ] as RecordPassage["done"];
  await view(record({ passages: [passage({ done: strokes }), passage({ done: open })] }));
  expect(cells(1)[4]).toContain("strokes as done: 30, 28");
  expect(cells(2)[4]).toContain("inhale 3 s, hold 12.5 s, exhale 6 s; inhale 4 s, exhale 5 s");
});

test("a passage that was not reached says so", async () => {
  await view(record({ passages: [passage(), passage({ length_ms: 0, practice: "", name: "Rest" })] }));
  expect(cells(2).slice(1, 3)).toEqual(["Rest", "not reached of 2:00"]);
});

test("a class without a change was led as planned; what else was pressed is put away", async () => {
  const refused = mark("refused", { number: 2, refused: { id: "refused.nothing-to-undo" } });
  await view(record({ marks: [refused] }));
  expect(screen.getByText("Nothing was adjusted: led as planned.")).toBeTruthy();
  expect(screen.getByText("Also pressed: 1, refused or taken back").closest("details")!.open).toBe(false);
});

test("a class by hand says how often it went on, and lists none of it", async () => {
  const on = [1, 2, 3].map((number) => mark("going-on", { number, do: "advance" }));
  await view(record({ marks: on }));
  expect(screen.getByText("Go on was pressed 3 times.")).toBeTruthy();
  expect(document.querySelector(".marks")).toBeNull();
});

test("signs are set beside the holds that they were seen after", async () => {
  const seen = {
    passage: 1,
    phase: "empty" as const,
    sign: { id: "signal.gasp" },
    seen: 2,
    holds: 5,
    over_ms: 12_000,
  };
  await view(record({ seen_after: [seen] }));
  expect(screen.getByRole("heading", { name: "Signs after long holds" })).toBeTruthy();
  expect(screen.getByRole("listitem").textContent).toBe(
    "Counted breath: after empty holds of 12 s or more a gasp on the inhale was seen, in 2 of 5",
  );
});

test("a change stands at its moment, with its place and its reason", async () => {
  await view(record({ marks: [mark("change", { because: "gasp", origin: "phone" })] }));
  const line = document.querySelector(".marks li")!;
  expect(line.querySelector(".at")!.textContent).toBe("1:05");
  expect(line.textContent).toContain("because of");
  expect(line.textContent).toContain("on phone");
  expect(line.textContent).toMatch(/Counted breath, round 2$/);
});

test("a class that is being led leads back to it and cannot be deleted", async () => {
  await view(record({ class: { ...record().class, running: true } }));
  expect(screen.getByRole("link", { name: "being led now" }).getAttribute("href")).toBe("/lead/7");
  expect(screen.queryByRole("button", { name: "Delete this class" })).toBeNull();
});

test("a record that cannot be read says why", async () => {
  page(<RecordView />, {}, { address: "/taught/7", path: "/taught/:id" });
  expect(await screen.findByRole("alert")).toBeTruthy();
});

test("what was planned and not said is kept for next time, or put away", async () => {
  const one = { passage: 1, name: "Counted breath", kind: "line", text: "root lock", settled: "" } as const;
  const unsaid = [one, { ...one, text: "soft jaw", settled: "put-away" }];
  const { user, asked } = await view(record({ unsaid }));
  expect(screen.getByText("put away")).toBeTruthy();
  await user.click(screen.getByRole("button", { name: "Next time" }));
  expect(asked.findLast((a) => a.method === "POST")!.body).toMatchObject({ kind: "next", text: "root lock" });
});

test("a correction stands above what was taught", async () => {
  const corrected = { id: 3, at_ms: 0, kind: "correction", text: "two rounds were led by voice" };
  await view(record({ remarks: [corrected] }));
  expect(screen.getByRole("list", { name: "Corrections" }).textContent).toBe(
    "Corrected: two rounds were led by voice",
  );
});
