// @vitest-environment jsdom
import { screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, test, vi } from "vitest";
import { page } from "../test/page";
import type { PassageSummary, TypedRead } from "../wire/contract";
import { AddPassage } from "./AddPassage";

beforeEach(() => sessionStorage.clear());

const summary = {
  name: "Counted breath",
  length_ms: 64_000,
  closing: [],
  lines: [],
  round: [],
} as unknown as PassageSummary;

const read: TypedRead = {
  lines: [
    {
      line: 1,
      problem: null,
      passages: [
        {
          summary,
          facts: [
            { field: "practice", value: "counted-breath", assumed: false },
            { field: "counts", value: "4:4", assumed: false },
            { field: "rounds", value: "8", assumed: true },
          ],
          doubts: [],
        },
      ],
    },
  ],
  completions: [
    { line: "counted 4:4 x8", says: "" },
    { line: "counted 4:6 x8", says: "as last time" },
  ],
};

/** add shows the field, and how the application answers to what is typed and added. */
function add(onAdd: (text: string) => Promise<string | null> = () => Promise.resolve(""), typed = read) {
  const added = vi.fn(onAdd);
  const shown = page(<AddPassage plan={1} first group={0} onAdd={added} />, { "POST /typed": typed });
  return { ...shown, added, field: screen.getByLabelText<HTMLTextAreaElement>("Add") };
}

test("Enter adds a line, and the field is ready for the next", async () => {
  const { user, added, field } = add();
  await user.type(field, "counted 4:4{Enter}");
  expect(added).toHaveBeenCalledWith("counted 4:4");
  await waitFor(() => expect(field.value).toBe(""));
});

test("F8 selects what is doubtful, and a suggestion takes its place", async () => {
  const doubt = {
    kind: "words",
    problem: { from: 9, to: 14, given: "lefft", say: { id: "expects.counted", args: {} }, nearest: ["left"] },
  };
  const one = { ...read.lines[0]!, passages: [{ ...read.lines[0]!.passages[0]!, doubts: [doubt] }] };
  const { user, field } = add(undefined, { lines: [one], completions: [] });
  await user.type(field, "nadi 4:4 lefft");
  expect(await screen.findByText(/“lefft” is kept as a remark/)).toBeTruthy();
  await user.keyboard("{F8}");
  expect(field.value.slice(field.selectionStart, field.selectionEnd)).toBe("lefft");
  await user.click(screen.getByRole("button", { name: "left" }));
  expect(field.value).toBe("nadi 4:4 left");
});

test("Shift and Enter begin another line, and both are added together", async () => {
  const { user, added, field } = add();
  await user.type(field, "talk 1 min{Shift>}{Enter}{/Shift}rest 2 min{Enter}");
  expect(added).toHaveBeenCalledWith("talk 1 min\nrest 2 min");
});

test("what was not understood stays in the field, with the reason", async () => {
  const { user, field } = add(() => Promise.resolve("“oops” is not understood"));
  await user.type(field, "oops{Enter}");
  expect(await screen.findByText("“oops” is not understood")).toBeTruthy();
  expect(field.value).toBe("oops");
});

test("while another change is made nothing is lost", async () => {
  const { user, field } = add(() => Promise.resolve(null));
  await user.type(field, "counted{Enter}");
  expect(await screen.findByText(/Another change was being made. Press Enter once more./)).toBeTruthy();
  expect(field.value).toBe("counted");
});

test("the line is read while one types, and what is assumed is marked", async () => {
  const { user, field } = add();
  await user.type(field, "counted 4:4");
  const rounds = await screen.findByText("8 rounds");
  expect(rounds.className).toBe("assumed");
  expect(screen.getByText("4:4").className).toBe("");
});

test("Tab takes the first suggestion, and the arrows choose another", async () => {
  const { user, field } = add();
  await user.type(field, "cou");
  await screen.findByText("counted 4:4 x8");
  await user.keyboard("{ArrowDown}{ArrowDown}{Enter}");
  expect(field.value).toBe("counted 4:6 x8");
  await waitFor(() => expect(screen.queryAllByRole("option")).toHaveLength(0));
});

test("Esc puts the suggestions away, and a click takes one", async () => {
  const { user, field } = add();
  await user.type(field, "cou");
  await screen.findByText("counted 4:4 x8");
  await user.keyboard("{Escape}");
  expect(screen.queryAllByRole("option")).toHaveLength(0);
  await user.type(field, "n");
  await user.click(await screen.findByText("counted 4:4 x8"));
  expect(field.value).toBe("counted 4:4 x8");
});

test("a word that is wrong is put right by a click, and the rest of the line stays", async () => {
  const wrong = {
    lines: [
      {
        line: 1,
        passages: [],
        problem: { say: { id: "line.head-number" }, from: 0, to: 7, nearest: ["counted", "cooling"] },
      },
    ],
    completions: [],
  } as unknown as TypedRead;
  const { user, field } = add(undefined, wrong);
  await user.type(field, "coubted 4:4 x6");
  await user.click(await screen.findByRole("button", { name: "counted" }));
  expect(field.value).toBe("counted 4:4 x6");
});
