// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { page } from "../test/page";
import { aPassage, aPhase, aScore } from "../test/score";
import type { Cue, Score, ScorePhase } from "../wire/contract";
import { ClockContext, type PageClock } from "./clock";
import type { Carries } from "./carries";
import { Stage } from "./Stage";
import { locate } from "./usePlace";

// There is no canvas to measure text with.
vi.mock("./widthOf", () => ({ useFonts: () => undefined, widthOf: (text: string) => text.length }));
vi.mock("./useBox", () => ({ useBox: () => [{ current: null }, { width: 800, height: 400 }] }));

/** still is a clock that stands at a moment of the class. */
const still = (at: number): PageClock => ({ now: () => at, rate: () => 1, inReal: (ms) => ms });

function stage(
  score: Score,
  at: number,
  props: { leads?: boolean; sides?: "named"; aside?: string; carries?: Carries } = {},
) {
  return page(
    <ClockContext value={still(at)}>
      <Stage score={score} place={locate(score, at)} carries="numbers" {...props} />
    </ClockContext>,
  );
}

const shown = (id: string) => screen.getByTestId(id).textContent;
const cue = (kind: Cue["kind"], text: string, change: Partial<Cue> = {}): Cue => ({
  at_ms: 0,
  until_ms: 4000,
  passage: 1,
  kind,
  who: "all",
  text,
  ...change,
});

test("a counted phase shows its word, its count and its round", () => {
  stage(aScore([aPhase({ round: 2 })]), 2500);
  expect(shown("word").trim()).toBe("inhale");
  expect(shown("count")).toBe("3");
  expect(screen.getByText("round 2 of 6")).toBeTruthy();
});

test("a round on both sides of the body says which it is on", () => {
  const phases = [
    aPhase({ breath: 2 }),
    aPhase({ breath: 3, at_ms: [4000, 5000, 6000, 7000], end_ms: 8000 }),
  ];
  const score = aScore(phases);
  Object.assign(score.passages[0]!, { sides: ["left", "right"], side_breaths: 2 });
  stage(score, 0);
  expect(screen.getByText("left side, round 1 of 6")).toBeTruthy();
  stage(score, 5000);
  expect(screen.getByText("right side, round 1 of 6")).toBeTruthy();
});

test("a side stands beside the word, as the class says it or by its own name", () => {
  const left = aPhase({ through: "left", side: "left" });
  const score = aScore([left], { left: { named: "the heart's side" } as Score["left"] });
  stage(score, 0);
  expect(shown("word")).toBe("inhale left");
  stage(score, 0, { sides: "named" });
  expect(shown("word")).toBe("inhale the heart's side");
});

test("what stands aside takes the place of the round", () => {
  stage(aScore([aPhase()]), 0, { aside: "join at the next inhale" });
  expect(screen.getByText("join at the next inhale")).toBeTruthy();
  expect(screen.queryByText("round 1 of 6")).toBeNull();
});

test("cues stand in their places while they last", () => {
  const cues = [
    cue("next", "exhale, 4"),
    cue("hand", "hand up"),
    cue("last", "last round"),
    cue("line", "soft belly"),
    cue("line", "over already", { until_ms: 1000 }),
  ];
  const { container } = stage(aScore([aPhase()], { cues }), 2000);
  expect(container.querySelector(".next")!.textContent).toBe("next exhale, 4");
  expect(container.querySelector(".hand")!.textContent).toBe("hand up");
  expect(container.querySelector(".call")!.textContent).toBe("last round");
  expect(screen.getByText("soft belly")).toBeTruthy();
  expect(screen.queryByText("over already")).toBeNull();
});

test("a plan, a passage or a screen can hide the numbers: what comes next has none either", () => {
  const cues = [cue("next", "exhale, 4", { bare: "exhale" })];
  const score = aScore([aPhase()], { cues, passages: [aPassage({ numbers: "lamps" })] });
  const { container } = stage(score, 2000, { carries: "class" });
  expect(screen.queryByTestId("count")).toBeNull();
  expect(container.querySelector(".next")!.textContent).toBe("next exhale");
  expect(container.querySelector(".lampsheet")).toBeTruthy();
});

test("a screen that hides numbers and lamps still shows the word", () => {
  const { container } = stage(aScore([aPhase()]), 2000, { carries: "hidden" });
  expect(shown("word").trim()).toBe("inhale");
  expect(screen.queryByTestId("count")).toBeNull();
  expect(container.querySelector(".lampsheet")).toBeNull();
});

const waiting = (change: Partial<ScorePhase> = {}) =>
  aPhase({ at_ms: [0], end_ms: -1, of: 1, open: true, shows: [""], ...change });
test("a phase by hand has no number in the room, and small seconds for who leads", () => {
  const score = aScore([waiting()]);
  const room = stage(score, 5300);
  expect(screen.queryByTestId("count")).toBeNull();
  expect(room.container.querySelector(".stage")!.className).toContain("byhand");
  stage(score, 5300, { leads: true });
  expect(shown("count")).toBe("5");
});

test("an open hold that is not by hand shows how long it has lasted, to everybody", () => {
  stage(aScore([waiting({ kind: "hold", word: "hold" })], { passages: [aPassage({ tempo: 0 })] }), 65_000);
  expect(shown("count")).toBe("1:05");
});

test("natural breath shows the time that is left", () => {
  const free = aPhase({
    kind: "free",
    stage: "rest",
    at_ms: [0],
    end_ms: 30_000,
    shows: [""],
    word: "natural breath",
  });
  stage(aScore([free]), 12_000);
  expect(shown("count")).toBe("0:18");
});

test("strokes that fill minutes show the time, not their number", () => {
  const strokes = aPhase({ kind: "stroke", word: "out", end_ms: 60_000 });
  stage(aScore([strokes], { passages: [aPassage({ timed: true })] }), 15_000);
  expect(shown("count")).toBe("0:45");
  stage(aScore([strokes]), 1500);
  expect(shown("count")).toBe("2");
});

test("in a talk the teacher's words are large and its name stands above", () => {
  const talk = aPhase({
    kind: "talk",
    stage: "talk",
    round: 0,
    at_ms: [0],
    end_ms: 90_000,
    shows: [""],
    word: "Seat",
  });
  const { container } = stage(
    aScore([talk], { passages: [aPassage({ script: "Sit on the edge of the cushion." })] }),
    30_000,
  );
  expect(shown("word")).toBe("Seat");
  expect(container.querySelector(".words")!.textContent).toContain("Sit on the edge of the cushion.");
  expect(container.querySelector(".timed")!.textContent).toBe("1:00");
});

test("at own pace the pattern is large, one choice a line", () => {
  const own = aPhase({
    kind: "free",
    stage: "own",
    at_ms: [0],
    end_ms: 300_000,
    shows: [""],
    word: "at your own pace",
  });
  const pattern = "inhale 4, exhale 6; inhale 4, exhale 8";
  const { container } = stage(aScore([own], { passages: [aPassage({ pattern })] }), 60_000);
  expect([...container.querySelectorAll(".pattern .line")].map((line) => line.textContent)).toEqual(
    pattern.split("; "),
  );
  expect(container.querySelector(".timed")!.textContent).toBe("4:00");
});

test("at own pace the choices stand beside each other", () => {
  const own = aPhase({
    kind: "free",
    stage: "own",
    at_ms: [0],
    end_ms: 300_000,
    shows: [""],
    word: "at your own pace",
  });
  const choices = ["4:4", "4:4:4", "4:4:8"];
  const { container } = stage(
    aScore([own], { passages: [aPassage({ pattern: "in left, out right", choices })] }),
    0,
  );
  expect([...container.querySelectorAll(".pattern .line")].map((line) => line.textContent)).toEqual([
    "in left, out right",
    "4:4 or 4:4:4 or 4:4:8",
  ]);
});

test("there is nothing to show where no phase is in progress", () => {
  const { container } = stage(aScore([aPhase()]), 9000);
  expect(container.querySelector(".stage")).toBeNull();
});
