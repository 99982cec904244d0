// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { page } from "../test/page";
import type { FieldError, Offer, PassageSummary } from "../wire/contract";
import type { PassageDoc } from "../wire/plan";
import { PassageRow } from "./PassageRow";

const doc: PassageDoc = { type: "practice", practice: "counted-breath", counts: "4:8", rounds: 6 };

const summary = {
  name: "Counted breath",
  short: "4:8 x6 @50",
  start_ms: 60_000,
  length_ms: 90_000,
  rounds: 6,
  round_ms: 14_400,
  per_minute: 4.2,
  counts: "4:8",
  true_ratio: "4:8",
  longest_hold_ms: 0,
  held_ms: 0,
  own_pace: false,
  own_words: "",
  remark: "",
  check: "none",
  again: [],
  again_on: false,
  says: ["through the mouth"],
  opening: [],
  closing: [],
  cautions: [],
  findings: [],
  lanes: [],
  lines: [],
  round: [],
  roles: [],
  offers: [],
  pacer: "beat",
  pacers: ["beat", "hand", "own"],
  waits: [],
  can_wait: ["inhale", "exhale"],
} as unknown as PassageSummary;

type Given = {
  doc?: PassageDoc;
  summary?: Partial<PassageSummary>;
  errors?: FieldError[];
  open?: boolean;
  number?: number;
  last?: boolean;
  ask?: (change: unknown) => Promise<string | null>;
};

/** row shows one passage and tells what was done with it. */
function row({ ask = () => Promise.resolve(""), ...given }: Given = {}) {
  const changed = vi.fn();
  const moved = vi.fn();
  const asked = vi.fn(ask);
  const toggled = vi.fn();
  const removed = vi.fn();
  const shown = page(
    <PassageRow
      id="passage 1"
      number={given.number ?? 2}
      doc={given.doc ?? doc}
      summary={{ ...summary, ...given.summary }}
      errors={given.errors ?? []}
      starts={null}
      open={given.open ?? false}
      last={given.last ?? false}
      onToggle={toggled}
      onChange={changed}
      onAsk={asked}
      onMove={moved}
      onDuplicate={vi.fn()}
      onRemove={removed}
    />,
  );
  return { ...shown, changed, moved, asked, toggled, removed };
}

const short = () => screen.getByLabelText<HTMLInputElement>("Counts, length and tempo of Counted breath");

test("a row says what the passage amounts to", () => {
  row({ summary: { longest_hold_ms: 8000, held_ms: 48_000, true_ratio: "4:7", own_pace: true } });
  const text = screen.getByRole("listitem").textContent;
  for (const says of ["1:00", "6 rounds of 14.4 s", "4.2 breaths a min", "longest hold 8 s", "0:48 in holds"])
    expect(text).toContain(says);
  expect(text).toContain("runs as 4:7");
  expect(text).toContain("own pace");
  expect(text).toContain("through the mouth");
});

test("what is typed in short is asked of the application, and taken when it was understood", async () => {
  const { user, asked } = row();
  await user.clear(short());
  await user.type(short(), "4:6 x8");
  expect(asked).toHaveBeenLastCalledWith({ do: "short", text: "4:6 x8" });
  await user.tab();
  expect(short().value).toBe("4:8 x6 @50"); // what the application says it is
});

test("what was not understood stays, with the reason", async () => {
  const { user } = row({ ask: () => Promise.resolve("“oops” is not understood") });
  await user.clear(short());
  await user.type(short(), "oops");
  await user.tab();
  expect(await screen.findByText("“oops” is not understood")).toBeTruthy();
  expect(short().value).toBe("oops");
  expect(short().classList.contains("is-invalid")).toBe(true);
});

test("an answer that is overtaken by a newer one changes nothing", async () => {
  const answers = ["“4” is not understood", null];
  const { user } = row({ ask: () => Promise.resolve(answers.shift() ?? null) });
  await user.type(short(), "a");
  await screen.findByText("“4” is not understood");
  await user.type(short(), "b");
  await waitFor(() => expect(answers).toHaveLength(0));
  expect(screen.getByText("“4” is not understood")).toBeTruthy();
});

test("a title is typed, and is gone when it is empty", () => {
  const { changed } = row({ doc: { ...doc, title: "Quiet" } });
  const title = screen.getByLabelText("Title of passage 2");
  fireEvent.change(title, { target: { value: "Quiet breath" } });
  expect(changed).toHaveBeenLastCalledWith({ ...doc, title: "Quiet breath" });
  fireEvent.change(title, { target: { value: "" } });
  expect(changed).toHaveBeenLastCalledWith(doc);
});

test("Alt and the arrow keys move a passage, but not beyond the ends", () => {
  const { moved } = row();
  const row1 = screen.getByRole("listitem");
  fireEvent.keyDown(row1, { key: "ArrowUp", altKey: true });
  fireEvent.keyDown(row1, { key: "ArrowDown", altKey: true });
  fireEvent.keyDown(row1, { key: "ArrowDown" }); // of a field
  expect(moved.mock.calls).toEqual([[-1], [1]]);

  const first = row({ number: 1, last: true });
  fireEvent.keyDown(screen.getByRole("listitem"), { key: "ArrowUp", altKey: true });
  fireEvent.keyDown(screen.getByRole("listitem"), { key: "ArrowDown", altKey: true });
  expect(first.moved).not.toHaveBeenCalled();
  expect(screen.getByRole<HTMLButtonElement>("button", { name: "Move Counted breath up" }).disabled).toBe(
    true,
  );
});

test("an error says which field, what was given and what is allowed", () => {
  const error = {
    field: "counts",
    given: "4:99",
    allowed: { id: "allowed.only-counted" },
  } as unknown as FieldError;
  row({ errors: [error, { ...error, field: "rounds", given: "" }] });
  expect(screen.getByText(/counts: 4:99 is not allowed. Allowed: only on counted practices/)).toBeTruthy();
  expect(screen.getByText(/rounds: missing/)).toBeTruthy();
});

test("strong cautions are counted in the row, and what care asks is offered", async () => {
  const strong = { id: "holds", say: { id: "caution.holds" }, strong: true };
  const { user, changed, asked } = row({
    summary: {
      cautions: [strong, { ...strong, id: "x" }] as never,
      findings: [{ do: "gentle-variant", say: { id: "finding.holds" }, instead: null }] as never,
      lanes: [{ beside: "breathe", says: { id: "lane.breathe" } }] as never,
      gentler: true as never,
    },
  });
  expect(screen.getByText(/2 cautions/)).toBeTruthy();
  await user.click(screen.getByRole("button", { name: "A gentler lane beside" }));
  expect(changed).toHaveBeenCalledWith({ ...doc, beside: "breathe" });
  await user.click(screen.getByRole("button", { name: "Use the gentle variant" }));
  expect(asked).toHaveBeenCalledWith({ do: "gentle" });
});

test("splitting, removing and opening are buttons with the name of the passage", async () => {
  const { user, asked, removed, toggled } = row();
  await user.click(screen.getByRole("button", { name: "Split Counted breath in two" }));
  expect(asked).toHaveBeenCalledWith({ do: "split" });
  await user.click(screen.getByRole("button", { name: "Remove Counted breath" }));
  expect(removed).toHaveBeenCalledOnce();
  await user.click(screen.getByRole("button", { name: "More of Counted breath" }));
  expect(toggled).toHaveBeenCalledOnce();
});

const offers: Offer[] = [
  {
    field: "numbers",
    about: "breath",
    choices: ["as planned", "lamps"],
    flag: false,
    text: false,
    unit: "",
    default: "",
  },
  {
    field: "aperture.inhale",
    about: "breath",
    choices: ["wide", "narrow"],
    flag: false,
    text: false,
    unit: "",
    default: "",
  },
  {
    field: "voice",
    about: "voice",
    choices: ["numbers", "syllables", "silent"],
    flag: false,
    text: false,
    unit: "",
    default: "",
  },
  { field: "syllables", about: "voice", choices: [], flag: false, text: true, unit: "", default: "" },
  { field: "lead_in", about: "around", choices: [], flag: false, text: false, unit: "counts", default: "4" },
  { field: "trial", about: "class", choices: [], flag: true, text: false, unit: "", default: "" },
];

test("the details ask for what the application offers, and leave out what is usual", () => {
  const { changed } = row({ open: true, summary: { offers } });
  const numbers = screen.getByLabelText("Numbers on the room's screens");
  expect([...numbers.querySelectorAll("option")].map((o) => o.textContent)).toEqual([
    "as the plan has it",
    "lamps only",
  ]);
  fireEvent.change(numbers, { target: { value: "lamps" } });
  expect(changed).toHaveBeenLastCalledWith({ ...doc, numbers: "lamps" });
  fireEvent.change(screen.getByLabelText("Nostrils, inhale"), { target: { value: "narrow" } });
  expect(changed).toHaveBeenLastCalledWith({ ...doc, aperture: { inhale: "narrow" } });
  fireEvent.change(screen.getByLabelText("Lead-in, counts"), { target: { value: "8" } });
  expect(changed).toHaveBeenLastCalledWith({ ...doc, lead_in: 8 });
  fireEvent.change(screen.getByLabelText("Lead-in, counts"), { target: { value: "eight" } });
  expect(changed).toHaveBeenLastCalledWith({ ...doc, lead_in: "eight" }); // for the application to refuse
  fireEvent.click(screen.getByLabelText("A try-out, set apart in the record"));
  expect(changed).toHaveBeenLastCalledWith({ ...doc, trial: true });
});

test("a choice of before goes when the usual one is chosen", () => {
  const { changed } = row({
    open: true,
    summary: { offers },
    doc: { ...doc, numbers: "lamps", trial: true },
  });
  fireEvent.change(screen.getByLabelText("Numbers on the room's screens"), {
    target: { value: "as planned" },
  });
  expect(changed).toHaveBeenLastCalledWith({ ...doc, trial: true });
});

test("a value that is no choice stays, and is shown as it is", () => {
  row({ open: true, summary: { offers }, doc: { ...doc, voice: "sung" } });
  expect(screen.getByLabelText<HTMLSelectElement>("Counting").value).toBe("sung");
});

test("syllables go with the voice that says them", () => {
  const { changed } = row({
    open: true,
    summary: { offers },
    doc: { ...doc, voice: "syllables", syllables: ["om"] },
  });
  fireEvent.change(screen.getByLabelText("Syllables, for counts 1, 2, 3 …"), { target: { value: "om ah" } });
  expect(changed).toHaveBeenLastCalledWith({ ...doc, voice: "syllables", syllables: ["om", "ah"] });
  fireEvent.change(screen.getByLabelText("Counting"), { target: { value: "silent" } });
  expect(changed).toHaveBeenLastCalledWith({ ...doc, voice: "silent" });
});

test("who sets the pace is asked of the application, with the phases that wait", async () => {
  const round = [
    {
      kind: "inhale",
      word: "inhale",
      side: "",
      through: "both",
      at_ms: [0],
      end_ms: 4800,
      of: 4,
      open: true,
    },
    {
      kind: "exhale",
      word: "exhale",
      side: "",
      through: "both",
      at_ms: [4800],
      end_ms: 12_000,
      of: 6,
      open: true,
    },
  ] as unknown as PassageSummary["round"];
  const { asked, user } = row({
    open: true,
    summary: { round, pacer: "hand", waits: ["inhale", "exhale"], can_wait: ["inhale", "exhale"] },
  });
  await user.click(screen.getByLabelText("Inhale waits for me"));
  expect(asked).toHaveBeenLastCalledWith({ do: "pacer", pacer: "hand", waits: ["exhale"] });
  await user.click(screen.getByLabelText("each person"));
  expect(asked).toHaveBeenLastCalledWith({ do: "pacer", pacer: "own" });
  expect(screen.getByText("waits, about 4.8 s")).toBeTruthy();
});

test("the last phase that waited gives the pace back to the beat", async () => {
  const round = [
    {
      kind: "inhale",
      word: "inhale",
      side: "",
      through: "both",
      at_ms: [0],
      end_ms: 4800,
      of: 4,
      open: true,
    },
  ] as unknown as PassageSummary["round"];
  const { asked, user } = row({
    open: true,
    summary: { round, pacer: "hand", waits: ["inhale"], can_wait: ["inhale"] },
  });
  await user.click(screen.getByLabelText("Inhale waits for me"));
  expect(asked).toHaveBeenLastCalledWith({ do: "pacer", pacer: "beat" });
});
