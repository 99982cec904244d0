// @vitest-environment jsdom
import { screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, test } from "vitest";
import { page } from "../test/page";
import type { Record } from "../wire/contract";
import { Remarks } from "./Remarks";

const record = (change: object = {}): Record =>
  ({
    class: { id: 7 },
    moods: ["calm", "restless"],
    remarks: [],
    passages: [{ lanes: [] }],
    ...change,
  }) as unknown as Record;
const remark = (id: number, kind: string, text: string) => ({ id, kind, text, at_ms: 1_772_452_800_000 });
const question = "POST /classes/7/remarks";

beforeEach(() => sessionStorage.clear());

test("how the room was is one press, and the last one counts", async () => {
  const { user, asked } = page(<Remarks record={record({ remarks: [remark(3, "took", "calm")] })} />, {
    [question]: record(),
  });
  const moods = screen.getByRole("group", { name: "How the room was" });
  expect(moods.querySelector("[aria-pressed=true]")!.textContent).toBe("calm");
  await user.click(screen.getByRole("button", { name: "restless" }));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]!.body).toEqual({ kind: "took", text: "restless", newest: 3 });
});

test("a note is added beside the record and its line is empty again", async () => {
  const { user, asked } = page(<Remarks record={record()} />, { [question]: record() });
  const line = screen.getByLabelText<HTMLInputElement>("Note or correction");
  expect(screen.getByRole("button", { name: "Note" }).hasAttribute("disabled")).toBe(true);
  await user.type(line, "next time three{Enter}");
  await waitFor(() => expect(line.value).toBe(""));
  expect(asked[0]!.body).toEqual({ kind: "note", text: "next time three", newest: 0 });
});

test("a correction is one by its button, and names the newest that it was written after", async () => {
  const { user, asked } = page(<Remarks record={record({ remarks: [remark(5, "correction", "ten")] })} />, {
    [question]: record(),
  });
  await user.type(screen.getByLabelText("Note or correction"), "eleven people");
  await user.click(screen.getByRole("button", { name: "Correction" }));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]!.body).toEqual({ kind: "correction", text: "eleven people", newest: 5 });
});

test("what cannot be stored stays typed, and it is told", async () => {
  const { user } = page(<Remarks record={record()} />);
  await user.type(screen.getByLabelText("Attendance"), "14");
  await user.click(screen.getByRole("button", { name: "Save attendance" }));
  await screen.findByRole("alert");
  expect(screen.getByLabelText<HTMLInputElement>("Attendance").value).toBe("14");
});

test("the gentler lane is counted only where there was one", () => {
  page(<Remarks record={record()} />);
  expect(screen.queryByLabelText("How many took the gentler lane")).toBeNull();
  page(<Remarks record={record({ passages: [{ lanes: [{}] }], remarks: [remark(1, "gentler", "3")] })} />);
  expect(screen.getByLabelText<HTMLInputElement>("How many took the gentler lane").placeholder).toBe("3");
});

test("what was added is listed with what it is", () => {
  const remarks = [
    remark(1, "note", "two new people"),
    remark(2, "people", "12"),
    remark(3, "correction", "13"),
  ];
  page(<Remarks record={record({ remarks })} />);
  const lines = screen.getAllByRole("listitem").map((line) => line.textContent);
  expect(lines[0]).toMatch(/ two new people$/);
  expect(lines[1]).toMatch(/people: 12$/);
  expect(lines[2]).toMatch(/correction: 13$/);
});
