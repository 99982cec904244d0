// @vitest-environment jsdom
import { render, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import type { Caution } from "../../wire/contract";
import { inUse, speak, write } from "../../language/catalogue";
import { Cautions } from "./care";

const english = inUse();
const strong: Caution = { id: "everyone", strong: true, say: { id: "caution.everyone" } };

afterEach(() => write(english));

test("cautions in another language say that they are a translation, and which text they follow", async () => {
  await speak("de");
  render(<Cautions list={[strong]} />);
  screen.getByText(/kein medizinischer Rat/);
  screen.getByText(/Übersetzt aus den englischen/);
});

test("cautions as they were written say nothing of the kind, nor does an empty list", async () => {
  const { container, rerender } = render(<Cautions list={[strong]} />);
  expect(container.querySelectorAll("p")).toHaveLength(1);
  await speak("de");
  rerender(<Cautions list={[]} />);
  expect(container.textContent).toBe("");
});

test("in a language that has no cautions yet they are English, and not called translated", async () => {
  await speak("pt");
  render(<Cautions list={[strong]} />);
  screen.getByText(/Stop and breathe naturally/);
  expect(screen.queryByText(/English/)).toBeNull();
});
