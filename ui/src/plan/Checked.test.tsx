// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { page } from "../test/page";
import type { PassageSummary } from "../wire/contract";
import { Checked, nextCheck } from "./Checked";

const summary = { name: "Body scan", type: "free", remark: "", check: "name" } as PassageSummary;

test("what is not in the practice book becomes a practice with one press", async () => {
  const changed = vi.fn();
  const doc = { type: "free", title: "Body scan", seconds: 420, check: "name" };
  const { user } = page(<Checked doc={doc} summary={summary} onChange={changed} />, {
    "POST /practices/copy": { text: "", document: { id: "own-body-scan" }, problem: null, revision: 1 },
  });
  await user.click(screen.getByRole("button", { name: "Make it a practice" }));
  await vi.waitFor(() =>
    expect(changed).toHaveBeenCalledWith({
      type: "practice",
      practice: "own-body-scan",
      title: "Body scan",
      pace: "own",
      minutes: 7,
    }),
  );
});

test("a remark is shown, and what is right is no longer marked", async () => {
  const changed = vi.fn();
  const doc = { type: "practice", practice: "ujjayi", remark: "by candle", check: "words" };
  const { user } = page(
    <Checked
      doc={doc}
      summary={{ ...summary, type: "practice", remark: "by candle", check: "words" }}
      onChange={changed}
    />,
    {},
  );
  expect(screen.getByText("Remark: “by candle”")).toBeTruthy();
  expect(screen.queryByRole("button", { name: "Make it a practice" })).toBeNull();
  await user.click(screen.getByRole("button", { name: "It is right" }));
  expect(changed).toHaveBeenCalledWith({ type: "practice", practice: "ujjayi", remark: "by candle" });
});

test("the focus goes from one doubtful passage to the next and round", () => {
  document.body.innerHTML = `
    <div data-check="words"><button>a</button></div>
    <div data-check="none"><button>b</button></div>
    <div data-check="name"><button>c</button></div>`;
  const focused = () => document.activeElement?.textContent;
  for (const wanted of ["a", "c", "a"]) {
    expect(
      nextCheck(document, document.activeElement === document.body ? null : document.activeElement),
    ).toBe(true);
    expect(focused()).toBe(wanted);
  }
});
