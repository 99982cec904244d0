// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { page } from "../test/page";
import type { Proposed, ScorePassage, Signal, Tapped } from "../wire/contract";
import { CountsPad } from "./CountsPad";
import type { Asks } from "./desk";
import { KeyCard } from "./KeyCard";
import { Note } from "./Note";
import { SeenPad } from "./SeenPad";
import { TapPad } from "./TapPad";

const passage = { in_force: { four: [4, 4, 8, 0], strokes: 20 } } as ScorePassage;
const settings = { keys: { letters: {}, no_letters: false, remote: [] }, meanings: [] };
const answers = { "GET /settings": settings };

/** asks is an application that can be asked nothing but what is given. */
const asks = (what: Partial<Asks>): Asks => ({
  would: () => Promise.reject(new Error("not asked")),
  saw: () => Promise.reject(new Error("not asked")),
  tapped: () => Promise.reject(new Error("not asked")),
  heard: () => Promise.reject(new Error("not asked")),
  ...what,
});

test("counts are typed and applied with Enter", async () => {
  const given = vi.fn();
  const closed = vi.fn();
  const { user } = page(<CountsPad passage={passage} verbs={["counts"]} onAdjust={given} onClose={closed} />);
  expect(screen.getAllByRole("spinbutton").map((f) => (f as HTMLInputElement).value)).toEqual([
    "4",
    "4",
    "8",
    "0",
  ]);
  const hold = screen.getByLabelText("hold");
  await user.clear(hold);
  await user.type(hold, "2{Enter}");
  expect(given).toHaveBeenCalledWith({ do: "counts", to: [4, 2, 8, 0] });
  expect(closed).toHaveBeenCalledOnce();
});

test("where strokes are breathed the same panel gives strokes", async () => {
  const given = vi.fn();
  const { user } = page(
    <CountsPad passage={passage} verbs={["strokes"]} onAdjust={given} onClose={vi.fn()} />,
  );
  const strokes = screen.getByLabelText("strokes");
  await user.clear(strokes);
  await user.type(strokes, "15{Enter}");
  expect(given).toHaveBeenCalledWith({ do: "strokes", to: 15 });
});

test("Esc and Back close a panel, and nothing is pressed", async () => {
  const given = vi.fn();
  const closed = vi.fn();
  const { user } = page(<CountsPad passage={passage} verbs={["counts"]} onAdjust={given} onClose={closed} />);
  await user.keyboard("{Escape}");
  await user.click(screen.getByRole("button", { name: /Back/ }));
  expect(closed).toHaveBeenCalledTimes(2);
  expect(given).not.toHaveBeenCalled();
});

test("a note is typed, or chosen by its number while nothing is typed", async () => {
  const noted = vi.fn();
  const { user } = page(<Note onClose={vi.fn()} onNote={noted} />);
  await user.keyboard("2");
  expect(noted).toHaveBeenLastCalledWith("restless", false);
  await user.type(screen.getByRole("textbox"), " room 2 is cold {Enter}");
  expect(noted).toHaveBeenLastCalledWith("room 2 is cold", false);
  expect(noted).toHaveBeenCalledTimes(2); // the 2 in the text is text
});

test("a note for next time is one key more", async () => {
  const noted = vi.fn();
  const { user } = page(<Note onClose={vi.fn()} onNote={noted} />);
  await user.type(screen.getByRole("textbox"), "next time three{Shift>}{Enter}{/Shift}");
  expect(noted).toHaveBeenCalledExactlyOnceWith("next time three", true);
});

test("an empty note closes", async () => {
  const closed = vi.fn();
  const noted = vi.fn();
  const { user } = page(<Note onClose={closed} onNote={noted} />);
  await user.type(screen.getByRole("textbox"), "  {Enter}");
  expect(closed).toHaveBeenCalledOnce();
  expect(noted).not.toHaveBeenCalled();
});

const signals = [
  { id: "gasp", name: { id: "signal.gasp" }, with: ["inhale"] },
  { id: "restless", name: { id: "signal.restless" }, with: [] as string[] },
  { id: "left", name: { id: "signal.left" }, with: [] as string[] },
] as unknown as Signal[];

const proposal = {
  say: { id: "propose.no-holds" },
  do: [{ do: "drop-holds" }],
  lane: { do: "beside", to: "breathe" },
} as unknown as Proposed;

/** seen opens the panel in a passage that can show two of the signs. */
async function seen(answer: Partial<Proposed> = {}) {
  const saw = vi.fn(() => Promise.resolve({ ...proposal, ...answer }));
  const adjusted = vi.fn(() => Promise.resolve());
  const closed = vi.fn();
  const listened = vi.fn();
  const shown = page(
    <SeenPad
      asks={asks({ saw })}
      signs={["gasp", "restless"]}
      phase="inhale"
      onAdjust={adjusted}
      onListen={listened}
      onClose={closed}
    />,
    { ...answers, "GET /signals": signals },
  );
  await waitFor(() => expect(screen.getAllByRole("button").length).toBeGreaterThan(2));
  return { ...shown, saw, adjusted, closed };
}

test("signs that the passage can show come first, and the others on request", async () => {
  const { user } = await seen();
  const buttons = () =>
    screen
      .getAllByRole("button")
      .slice(1)
      .map((b) => b.textContent);
  expect(buttons()).toHaveLength(4); // two signs, listening, and the way to the rest
  await user.keyboard("1");
  expect(buttons()).toHaveLength(4); // all three, and listening
});

test("one key says what is seen, and one more takes what is proposed", async () => {
  const { user, saw, adjusted, closed } = await seen();
  await user.keyboard("q");
  expect(saw).toHaveBeenCalledWith("gasp", expect.anything());
  await screen.findByText("What to do");
  await user.keyboard("f");
  expect(closed).toHaveBeenCalledOnce();
  await waitFor(() => expect(adjusted).toHaveBeenCalledWith({ do: "drop-holds" }));
});

test("the gentler lane is offered beside it, and 1 leaves all as it is", async () => {
  const first = await seen();
  await first.user.keyboard("q");
  await screen.findByText("What to do");
  await first.user.keyboard("6");
  await waitFor(() => expect(first.adjusted).toHaveBeenCalledWith({ do: "beside", to: "breathe" }));

  const second = await seen();
  await second.user.keyboard("q");
  await screen.findByText("What to do");
  await second.user.keyboard("1");
  expect(second.closed).toHaveBeenCalledOnce();
  expect(second.adjusted).not.toHaveBeenCalled();
});

test("several steps are taken in their order", async () => {
  const steps = [{ do: "enough" }, { do: "strokes", to: 15 }] as Proposed["do"];
  const { user, adjusted } = await seen({ do: steps });
  await user.keyboard("q");
  await screen.findByText("What to do");
  await user.keyboard("{Enter}");
  await waitFor(() => expect(adjusted).toHaveBeenCalledTimes(2));
  expect(adjusted.mock.calls).toEqual([[steps[0]], [steps[1]]]);
});

test("two taps are asked about, and the tempo is taken with one key", async () => {
  const tapped = vi.fn(() =>
    Promise.resolve({ tempo: 46.5, interval_ms: 1290, spread_ms: 40, aside: 1 } as Tapped),
  );
  const adjusted = vi.fn();
  const { user } = page(<TapPad asks={asks({ tapped })} onAdjust={adjusted} onClose={vi.fn()} />, answers);
  await user.keyboard("2");
  expect(tapped).not.toHaveBeenCalled();
  expect(screen.getByRole("status").textContent).toBe("two taps or more");
  await user.keyboard("2");
  await screen.findByText(/tempo 46.5, one count in 1.3 s/);
  expect(screen.getByText(/1 set aside/)).toBeTruthy();
  await user.keyboard("f");
  expect(adjusted).toHaveBeenCalledWith({ do: "tempo", to: 46.5 });
});

test("inhales can be tapped too", async () => {
  const tapped = vi.fn<Asks["tapped"]>(() =>
    Promise.resolve({ tempo: 0, interval_ms: 9000, spread_ms: 500, aside: 0 } as Tapped),
  );
  const { user } = page(<TapPad asks={asks({ tapped })} onAdjust={vi.fn()} onClose={vi.fn()} />, answers);
  await user.keyboard("322");
  await screen.findByText(/nothing is counted here, one breath in 9 s/);
  expect(tapped.mock.lastCall?.[0].breaths).toBe(true);
  expect(screen.queryByRole("button", { name: /Lead at/ })).toBeNull();
});

test("a key that is held down does nothing more", () => {
  const tapped = vi.fn(() => Promise.resolve({ tempo: 50 } as Tapped));
  page(<TapPad asks={asks({ tapped })} onAdjust={vi.fn()} onClose={vi.fn()} />, answers);
  for (let i = 0; i < 5; i++) fireEvent.keyDown(window, { key: "2", repeat: true });
  expect(tapped).not.toHaveBeenCalled();
});

test("the card of keys has the keys as they were chosen", async () => {
  const chosen = {
    ...settings,
    keys: {
      letters: { slower: "y" },
      no_letters: false,
      remote: [{ key: "PageDown", press: "long", means: "pause" }],
    },
    meanings: [{ id: "pause", says: { id: "control.pause.card" } }],
  };
  page(<KeyCard few={false} onFew={() => undefined} onClose={vi.fn()} />, { "GET /settings": chosen });
  const row = (await screen.findByText("Y")).closest("tr")!;
  expect(row.textContent).toBe("YSlower");
  expect(screen.getByText("Page Down, long").closest("tr")!.textContent).toContain("Natural breath");
});
