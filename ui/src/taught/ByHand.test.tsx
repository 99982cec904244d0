// @vitest-environment jsdom
import { screen, waitFor } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { page } from "../test/page";
import type { LedBreath, Record, RecordPassage } from "../wire/contract";
import ByHand from "./ByHand";

vi.stubGlobal(
  "ResizeObserver",
  class {
    observe() {}
    unobserve() {}
    disconnect() {}
  },
);

const breath = (inhale: number, exhale: number, hold = 0): LedBreath => ({
  at_ms: 0,
  round: 1,
  inhale_ms: inhale * 1000,
  hold_ms: hold * 1000,
  exhale_ms: exhale * 1000,
  empty_ms: 0,
});

const passage = (change: Partial<RecordPassage> = {}) =>
  ({
    name: "Counted breath",
    counts: "4:6",
    counts_end: "",
    breaths: [breath(5, 7), breath(4, 6)],
    mean_breath_ms: [4200, 0, 6100, 0],
    hand_tempo: 58,
    ...change,
  }) as RecordPassage;
const record = (passages: RecordPassage[], running = false) =>
  ({ class: { id: 7, running }, passages }) as Record;

test("what was breathed is told as lengths, counts and a tempo", () => {
  const { container } = page(<ByHand record={record([passage()])} />);
  expect(container.textContent).toContain(
    "Counted breath: you breathed 4.2 : 6.1 s in 2 breaths, as counts 4:6 at 58",
  );
  expect(screen.getByRole("img").getAttribute("aria-label")).toBe(
    "2 breaths by hand, the shortest 10 s, the longest 12 s",
  );
});

test("counts that were changed are those at the end", () => {
  const { container } = page(<ByHand record={record([passage({ counts_end: "4:8" })])} />);
  expect(container.textContent).toContain("as counts 4:8 at 58");
});

test("where only holds were by hand there is no tempo to tell, and nothing to plan", () => {
  const held = passage({
    mean_breath_ms: [4000, 12_500, 6000, 0],
    hand_tempo: 0,
    breaths: [breath(4, 6, 12.5)],
  });
  const { container } = page(<ByHand record={record([held])} />);
  expect(container.textContent).toContain("you breathed 4 : 12.5 : 6 s in 1 breath");
  expect(container.textContent).not.toContain("as counts");
  expect(screen.queryByRole("button")).toBeNull();
});

test("passages by the beat are not told here", () => {
  const { container } = page(
    <ByHand record={record([passage({ name: "By the beat", breaths: [] }), passage()])} />,
  );
  expect(container.textContent).not.toContain("By the beat");
});

test("one press plans the class as it was breathed", async () => {
  const { user, asked } = page(<ByHand record={record([passage()])} />, { "POST /plans/begin": { id: 12 } });
  await user.click(screen.getByRole("button", { name: "Plan it at the tempo you breathed" }));
  await waitFor(() => expect(asked.filter((one) => one.method === "POST")).toHaveLength(1));
  expect(asked[0]!.body).toEqual({ class_id: 7, how: "taught", group_id: 0 });
});

test("a class that is still being led cannot be planned from", () => {
  page(<ByHand record={record([passage()], true)} />);
  expect(screen.queryByRole("button")).toBeNull();
});
