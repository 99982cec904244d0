// @vitest-environment jsdom
import { fireEvent, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { page } from "../../test/page";
import type { PassageDoc } from "../../wire/plan";
import { Steps } from "./Steps";

const doc: PassageDoc = {
  type: "practice",
  closing: [
    { breaths: 2, counts: "4:4" },
    { seconds: 20, text: "hand down" },
  ],
};

function steps(of: PassageDoc = doc) {
  const changed = vi.fn<(doc: PassageDoc) => void>();
  const shown = page(<Steps edit={{ doc: of, onChange: changed }} field="closing" label="Closing" />);
  return { ...shown, closing: () => changed.mock.lastCall?.[0].closing };
}

test("each step is edited in place", () => {
  const { closing } = steps();
  fireEvent.change(screen.getByLabelText("Closing 1, breaths"), { target: { value: "3" } });
  expect(closing()).toEqual([
    { breaths: 3, counts: "4:4" },
    { seconds: 20, text: "hand down" },
  ]);
  fireEvent.change(screen.getByLabelText("Closing 2, what to say"), { target: { value: "" } });
  expect(closing()).toEqual([{ breaths: 2, counts: "4:4" }, { seconds: 20 }]);
});

test("what is no number is kept for the application to refuse", () => {
  const { closing } = steps();
  fireEvent.change(screen.getByLabelText("Closing 2, seconds"), { target: { value: "half" } });
  expect(closing()).toEqual([
    { breaths: 2, counts: "4:4" },
    { seconds: "half", text: "hand down" },
  ]);
});

test("the nose is the usual way and is not written", () => {
  const { closing } = steps();
  const through = screen.getByLabelText("Closing 1, through");
  fireEvent.change(through, { target: { value: "in-mouth" } });
  expect(closing()).toEqual([
    { breaths: 2, counts: "4:4", airway: "in-mouth" },
    doc.closing && (doc.closing as unknown[])[1],
  ]);
  fireEvent.change(through, { target: { value: "nose" } });
  expect(closing()).toEqual(doc.closing);
});

test("steps are added at the end and removed, the last with the field itself", async () => {
  const { user, closing } = steps();
  await user.click(screen.getByRole("button", { name: "+ natural breath" }));
  expect(closing()).toEqual([...(doc.closing as unknown[]), { seconds: 30 }]);
  await user.click(screen.getAllByRole("button", { name: "remove" })[0]!);
  expect(closing()).toEqual([{ seconds: 20, text: "hand down" }]);

  const one = steps({ type: "practice", closing: [{ breaths: 1 }] });
  await one.user.click(screen.getByRole("button", { name: "remove" }));
  expect(one.closing()).toBeUndefined();
});
