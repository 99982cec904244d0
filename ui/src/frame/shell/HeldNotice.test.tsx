// @vitest-environment jsdom
import { useQuery } from "@tanstack/react-query";
import { act, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { page } from "../../test/page";
import { noteHeld } from "../../wire/held";
import { HeldNotice } from "./HeldNotice";

let asked = 0;

function View() {
  useQuery({ queryKey: ["view"], queryFn: () => ++asked });
  return <HeldNotice />;
}

test("what was held is said, and asked for anew whoever hears of the program first", async () => {
  page(<View />, {});
  await waitFor(() => expect(asked).toBe(1));
  act(() => noteHeld(Date.UTC(2026, 10, 30, 12)));
  expect(screen.getByText(/The server does not answer/)).toBeTruthy();
  act(() => noteHeld(null)); // another question was answered
  expect(screen.queryByText(/The server does not answer/)).toBeNull();
  await waitFor(() => expect(asked).toBe(2));
});
