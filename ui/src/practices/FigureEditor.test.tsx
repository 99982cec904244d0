// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import { useState } from "react";
import { expect, test, vi } from "vitest";
import { page } from "../test/page";
import { FigureEditor, type StepDoc } from "./FigureEditor";
import { PhaseWords } from "./OwnParts";

const square: StepDoc[] = [
  { phase: "inhale", counts: "a", through: "airway" },
  { phase: "hold", counts: "b" },
  { phase: "exhale", counts: "c", through: "airway" },
  { phase: "empty", counts: "d" },
];

/** editor shows the editor of a round, and tells how the round stands. */
function editor(kind: string, steps: StepDoc[]) {
  const changed = vi.fn<(steps: (StepDoc | string)[]) => void>();
  function Editing() {
    const [now, setNow] = useState<(StepDoc | string)[]>(steps);
    const change = (next: (StepDoc | string)[]) => {
      changed(next);
      setNow(next);
    };
    return <FigureEditor kind={kind} steps={now} onChange={change} />;
  }
  return { ...page(<Editing />), now: () => changed.mock.lastCall![0] as StepDoc[] };
}

const label = (name: string) => screen.getByLabelText(name);

test("a phase of moving air has a way, a hold has none", () => {
  editor("counted", square);
  expect(screen.getByLabelText("Airway of phase 1")).toBeTruthy();
  expect(screen.queryByLabelText("Airway of phase 2")).toBeNull();
  expect(screen.getByLabelText("Airway of phase 3")).toBeTruthy();
  expect(screen.queryByLabelText("Airway of phase 4")).toBeNull();
});

test("a phase that becomes another one takes its counts, and its way only where air moves", async () => {
  const { user, now } = editor("counted", square);
  await user.selectOptions(label("Phase 1"), "empty hold");
  expect(now()[0]).toEqual({ phase: "empty", counts: "d" });
  await user.selectOptions(label("Phase 2"), "exhale");
  expect(now()[1]).toEqual({ phase: "exhale", counts: "c", through: "airway" });
});

test("phases are added, moved and removed", async () => {
  const { user, now } = editor("counted", square);
  await user.click(screen.getByRole("button", { name: "+ phase" }));
  expect(now()).toHaveLength(5);
  expect(now()[4]).toEqual({ phase: "inhale", counts: "a", through: "airway" });
  await user.click(screen.getByRole("button", { name: "Move phase 5 up" }));
  expect(now().map((step) => step.phase)).toEqual(["inhale", "hold", "exhale", "inhale", "empty"]);
  await user.click(screen.getByRole("button", { name: "Remove phase 2" }));
  expect(now().map((step) => step.phase)).toEqual(["inhale", "exhale", "inhale", "empty"]);
  expect(screen.getByRole("button", { name: "Move phase 1 up" }).hasAttribute("disabled")).toBe(true);
});

test("words of counts are typed with commas between, and none is none", async () => {
  const { user, now } = editor("counted", square);
  await user.type(label("Parts of phase 1"), "low, high");
  expect(now()[0]!.parts).toEqual(["low", "high"]);
  await user.clear(label("Parts of phase 1"));
  expect(now()[0]).not.toHaveProperty("parts");
});

test("an open practice has no counts to choose, strokes no phases", () => {
  editor("open", square);
  expect(screen.getAllByText("until you go on")).toHaveLength(4);
  editor("strokes", []);
  expect(screen.getByText("One round is one set of strokes.")).toBeTruthy();
});

test("a practice gives a phase its own word, and takes it back", async () => {
  const changed = vi.fn();
  const { user, again } = page(<PhaseWords words={{}} onChange={changed} />);
  await user.type(screen.getByLabelText("Word for stroke"), "s");
  expect(changed).toHaveBeenLastCalledWith({ stroke: "s" });
  again(<PhaseWords words={{ stroke: "s", hold: "stay" }} onChange={changed} />);
  await user.clear(screen.getByLabelText("Word for stroke"));
  expect(changed).toHaveBeenLastCalledWith({ hold: "stay" });
});

test("a round is written as lines, and stays as it is written", async () => {
  const changed = vi.fn();
  const steps = [
    { phase: "inhale", counts: "a", through: "both", move: ["right foot back", "left foot back"] },
    { phase: "hold", counts: 3, move: ["plank"] },
  ];
  const { user } = page(<FigureEditor kind="counted" steps={steps} onChange={changed} />, {});
  await user.click(screen.getByRole("button", { name: "write as lines" }));
  expect(changed).toHaveBeenCalledWith(["in right foot back | left foot back", "hold plank 3"]);
});

test("the lines of a round are changed one by one", async () => {
  const changed = vi.fn();
  const { user } = page(<FigureEditor kind="counted" steps={["in arms up", "out"]} onChange={changed} />, {});
  await user.type(screen.getByLabelText("One round, a phase a line"), "!");
  expect(changed).toHaveBeenLastCalledWith(["in arms up", "out!"]);
});

test("a movement of both sides is written with a bar", async () => {
  const changed = vi.fn();
  const steps = [{ phase: "inhale", counts: "a", through: "both", move: ["knee in"] }];
  const { user } = page(<FigureEditor kind="counted" steps={steps} onChange={changed} />, {});
  await user.type(screen.getByLabelText("Movement of phase 1"), "|");
  expect(changed).toHaveBeenLastCalledWith([
    { phase: "inhale", counts: "a", through: "both", move: ["knee in", ""] },
  ]);
});
