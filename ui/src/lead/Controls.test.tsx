// @vitest-environment jsdom
import { screen, within } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { page } from "../test/page";
import type { Preview, ScorePassage, ScorePhase } from "../wire/contract";
import { type Control, controls, goOn, handOf, laneOf, natural, usualLater, type Where } from "./adjustments";
import { Controls } from "./Controls";

const phase = {
  stage: "round",
  round: 2,
  kind: "inhale",
  verbs: ["tempo", "rounds", "last-round", "again", "drop-holds", "pause", "by-hand", "next", "undo"],
} as ScorePhase;

const passage = {
  tempo: 50,
  slower: 48,
  faster: 52,
  hand_tempo: 0,
  rounds: 6,
  carries: 1,
  lanes: [{ beside: "breathe", says: { id: "lane.breathe" } }],
  lane_names: { main: "", beside: "" },
  in_force: { by_hand: [] as string[] },
} as unknown as ScorePassage;

type Change = {
  few?: boolean;
  where?: Partial<Where>;
  armed?: string;
  would?: Map<string, Preview>;
  carry?: boolean | null;
  asks?: boolean;
};

/** lead shows the keys where the class is, and tells what was pressed. */
function lead({
  where = {},
  armed = "",
  would = new Map(),
  carry = null,
  asks = true,
  few = false,
}: Change = {}) {
  const at: Where = { phase, passage, slot: 0, later: usualLater, recall: 2, keys: undefined, ...where };
  const pressed = vi.fn<(control: Control) => void>();
  const opened = vi.fn();
  const carried = vi.fn();
  const fewer = vi.fn();
  const shown = page(
    <Controls
      groups={controls(at)}
      breath={natural(at.phase)}
      on={goOn(at)}
      lane={laneOf(at)}
      hand={handOf(at)}
      armed={armed}
      would={would}
      asks={asks}
      lap={7}
      keys={undefined}
      carry={carry}
      onCarry={carried}
      few={few}
      onFew={fewer}
      onPress={pressed}
      onPanel={opened}
    >
      {null}
    </Controls>,
  );
  return { ...shown, pressed, opened, carried, fewer };
}

const key = (name: RegExp) => screen.getByRole("button", { name });

test("each key says its letter, its name and what it does", () => {
  lead();
  expect(key(/Slower/).textContent).toBe("QSlower50 → 48 ");
  expect(key(/One fewer/).textContent).toContain("6 → 5");
  expect(key(/Last round/).textContent).toContain("4 left out");
  expect(key(/Natural breath/).getAttribute("aria-keyshortcuts")).toBe("Space");
});

test("a press carries what the key is for", async () => {
  const { user, pressed } = lead();
  await user.click(key(/Faster/));
  expect(pressed).toHaveBeenCalledWith(
    expect.objectContaining({ id: "faster", press: { do: "tempo", to: 52, carry: true } }),
  );
  await user.click(key(/My breath/));
  expect(pressed).toHaveBeenLastCalledWith(expect.objectContaining({ press: { do: "by-hand", to: "all" } }));
});

test("what cannot be done where the class is says so and stays readable", () => {
  lead();
  expect(key(/Release/).getAttribute("aria-disabled")).toBe("true");
  expect(key(/Slower/).getAttribute("aria-disabled")).toBe("false");
  lead({ where: { phase: { ...phase, verbs: ["advance"] } } });
  expect(key(/Go on/).getAttribute("aria-disabled")).toBe("false");
  expect(key(/Slower/).getAttribute("aria-disabled")).toBe("true");
});

test("a pressed button leaves the space bar to natural breath", async () => {
  const { user } = lead();
  await user.click(key(/Slower/));
  expect(document.activeElement).toBe(document.body);
});

test("what must be pressed twice asks for it", () => {
  lead({ armed: "next" });
  expect(key(/Next/).textContent).toContain("press again");
});

test("a key shows by how much the class would end later", () => {
  const preview = { answer: { do: "rounds", refused: null, late_ms: 0 }, change_ms: 36_400 } as Preview;
  lead({ would: new Map([["more", preview]]) });
  expect(within(key(/One more/)).getByTitle("the end of the class").textContent).toBe("+0:36");
});

test("whether later passages change too is a key of its own, where there are any", async () => {
  lead();
  expect(screen.queryByRole("button", { name: /Later too/ })).toBeNull();
  const { user, carried } = lead({ carry: true });
  await user.click(key(/Later too/));
  expect(carried).toHaveBeenCalledOnce();
  lead({ carry: false });
  expect(key(/Only here/)).toBeTruthy();
});

test("panels open by their buttons; a try-out has none of a real class", async () => {
  const { user, opened } = lead();
  await user.click(key(/Seen/));
  expect(opened).toHaveBeenCalledWith("seen");
  lead({ asks: false });
  expect(screen.queryByRole("button", { name: /Seen/ })).toBeNull();
  expect(key(/Note/)).toBeTruthy();
});

test("by hand the key leads back to the beat", () => {
  const byHand = { ...passage, in_force: { ...passage.in_force, by_hand: ["inhale"] } } as ScorePassage;
  lead({ where: { passage: byHand } });
  expect(key(/To the beat/)).toBeTruthy();
});

test("the lane is opened as it is offered, and closed when it is there", async () => {
  const at = { phase: { ...phase, verbs: ["beside"] } as ScorePhase };
  const { user, pressed } = lead({ where: at });
  await user.click(key(/Gentler lane/));
  expect(pressed.mock.lastCall?.[0].press).toEqual({ do: "beside", to: "breathe" });
  lead({ where: { ...at, passage: { ...passage, lanes: [] } } });
  expect(key(/Gentler lane/).getAttribute("aria-disabled")).toBe("true");
});

test("the tempo that was breathed is offered once it is known, and is not the one in force", async () => {
  lead();
  expect(screen.queryByRole("button", { name: /As I breathe/ })).toBeNull();
  lead({ where: { passage: { ...passage, hand_tempo: 50 } } });
  expect(screen.queryByRole("button", { name: /As I breathe/ })).toBeNull();
  const { user, pressed } = lead({ where: { passage: { ...passage, hand_tempo: 43 } } });
  expect(key(/As I breathe/).textContent).toBe("NAs I breathe50 → 43 ");
  await user.click(key(/As I breathe/));
  expect(pressed).toHaveBeenCalledWith(
    expect.objectContaining({ id: "breathed", press: { do: "tempo", to: 43, carry: true } }),
  );
});

const named = () => screen.getAllByRole("button").map((button) => button.querySelector(".name")!.textContent);

test("few keys are those that a hand needs, and one brings all of them", async () => {
  const { user, fewer } = lead({ few: true });
  expect(named()).toEqual(["Natural breath", "Go on", "My breath", "Undo", "All keys"]);
  await user.click(key(/All keys/));
  expect(fewer).toHaveBeenCalledOnce();
});

test("few keys have what fits the phase", () => {
  const held = { ...phase, kind: "hold", verbs: ["release", "undo"] } as ScorePhase;
  lead({ few: true, where: { phase: held } });
  expect(named()).toContain("Release");
  const own = { ...phase, stage: "own", verbs: ["recall"] } as ScorePhase;
  lead({
    few: true,
    where: { phase: own, passage: { ...passage, own_round: [] } as unknown as ScorePassage },
  });
  expect(named()).toContain("Call back");
});
