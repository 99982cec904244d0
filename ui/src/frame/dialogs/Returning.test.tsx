// @vitest-environment jsdom
import { screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { page } from "../../test/page";
import { Returning } from "./Returning";

const note = (text: string, next = false) => ({
  class_id: 7,
  title: "Monday",
  at_ms: 1_700_000_000_000,
  text,
  next,
});

test("notes come back, and go where they were used", async () => {
  const answers: { [question: string]: unknown } = {
    "GET /groups/3/notes": { notes: [note("next time three", true), note("restless")] },
    "POST /classes/7/remarks": {},
  };
  const { user, asked } = page(<Returning group={3} />, answers);
  expect((await screen.findByText(/For next time/)).parentElement!.textContent).toContain("next time three");
  answers["GET /groups/3/notes"] = { notes: [note("restless")] };
  await user.click(screen.getAllByRole("button", { name: "Used" })[0]!);
  await waitFor(() => expect(screen.queryByText(/For next time/)).toBeNull());
  expect(asked.find((a) => a.method === "POST")!.body).toMatchObject({
    kind: "used",
    text: "next time three",
  });
  expect(screen.getByText(/restless/)).toBeTruthy();
});

test("nothing is shown where there are no notes", () => {
  const { container } = page(<Returning group={3} />, { "GET /groups/3/notes": { notes: [] } });
  expect(container.textContent).toBe("");
});
