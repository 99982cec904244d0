// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import { beforeEach, expect, test } from "vitest";
import { page } from "../test/page";
import type { Asked } from "../wire/contract";
import { Asking } from "./Asking";

const asked = (lanes: boolean): Asked => ({ class_id: 7, lanes, until_ms: 0, counted: "" });
const way = (name: string) => screen.getByRole("button", { name });
const question = "POST /rooms/ABCDE/answers";

beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
});

test("one touch is one answer, without a lane where there was none", async () => {
  const shown = page(<Asking code="ABCDE" asked={asked(false)} />, { [question]: { counted: true } });
  expect(screen.queryByRole("radiogroup")).toBeNull();
  await shown.user.click(way("right"));
  await screen.findByText("Thank you, your answer was received.");
  expect(shown.asked).toHaveLength(1);
  expect(shown.asked[0]!.body).toMatchObject({ class_id: 7, how: "right", lane: "" });
});

test("where two lanes were led it is told which was taken", async () => {
  const { user, asked: sent } = page(<Asking code="ABCDE" asked={asked(true)} />, {
    [question]: { counted: true },
  });
  await user.click(screen.getByRole("radio", { name: "the gentler lane" }));
  expect(screen.getByRole("radio", { name: "the gentler lane" }).getAttribute("aria-checked")).toBe("true");
  await user.click(way("too much"));
  await screen.findByRole("status");
  expect(sent[0]!.body).toMatchObject({ how: "too-much", lane: "beside" });
});

test("an answer that did not arrive is asked for again, and counts once", async () => {
  const { user, asked: sent } = page(<Asking code="ABCDE" asked={asked(false)} />);
  await user.click(way("easy"));
  expect((await screen.findByRole("alert")).textContent).toContain("It was not counted: touch again.");
  await user.click(way("easy"));
  await screen.findByRole("alert");
  const ballots = sent.map((one) => (one.body as { ballot: string }).ballot);
  expect(ballots).toHaveLength(2);
  expect(ballots[0]).toBe(ballots[1]);
});

test("who answers after as many as there were phones is told so", async () => {
  const { user } = page(<Asking code="ABCDE" asked={asked(false)} />, { [question]: { counted: false } });
  await user.click(way("easy"));
  expect((await screen.findByRole("status")).textContent).toContain("this answer is not counted");
});

test("what was counted at own pace may be told, and only as a number", async () => {
  const { user, asked: sent } = page(
    <Asking code="ABCDE" asked={{ ...asked(false), counted: "strokes" }} />,
    { [question]: { counted: true } },
  );
  await user.type(screen.getByLabelText(/How many strokes/), "1x10");
  await user.click(way("easy"));
  await screen.findByRole("status");
  expect(sent[0]!.body).toMatchObject({ how: "easy", amount: 110 });
});

test("nothing is told of a count where the field stays empty", async () => {
  const { user, asked: sent } = page(<Asking code="ABCDE" asked={{ ...asked(false), counted: "rounds" }} />, {
    [question]: { counted: true },
  });
  await user.click(way("right"));
  await screen.findByRole("status");
  expect(sent[0]!.body).not.toHaveProperty("amount");
});
