// @vitest-environment jsdom
import { act, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { aPhase, aScore } from "../test/score";
import { application, ClockContext, trialClock, useClock } from "./clock";
import { useSeconds } from "./usePlace";

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

test("a trial clock begins where it is told to and runs at its rate", () => {
  const clock = trialClock(5000, 4);
  expect(clock.now()).toBe(5000);
  vi.advanceTimersByTime(1000);
  expect(clock.now()).toBe(9000);
  expect(clock.rate()).toBe(4);
  expect(clock.inReal(1000)).toBe(250);
});

test("a new speed goes on from the moment that the old one had come to", () => {
  const slow = trialClock(0, 1);
  vi.advanceTimersByTime(3000);
  const fast = trialClock(slow.now(), 16);
  expect(fast.now()).toBe(3000);
  vi.advanceTimersByTime(500);
  expect(fast.now()).toBe(11_000);
});

function Shown({ id }: { id: string }) {
  const seconds = useSeconds(aScore([aPhase()]));
  return (
    <p data-testid={id}>
      {seconds} at {useClock().rate()}
    </p>
  );
}

test("two views of one page play on clocks of their own", () => {
  const first = trialClock(0, 1);
  const second = trialClock(60_000, 8);
  const views = (clock: typeof first) => (
    <>
      <ClockContext value={clock}>
        <Shown id="first" />
      </ClockContext>
      <ClockContext value={second}>
        <Shown id="second" />
      </ClockContext>
    </>
  );
  const { rerender } = render(views(first));
  act(() => void vi.advanceTimersByTime(2000));
  expect(screen.getByTestId("first").textContent).toBe("2 at 1");
  expect(screen.getByTestId("second").textContent).toBe("76 at 8");
  rerender(views(trialClock(first.now(), 4)));
  act(() => void vi.advanceTimersByTime(1000));
  expect(screen.getByTestId("first").textContent).toBe("6 at 4");
});

test("without a clock of its own a view plays on the application's", () => {
  const clocks: unknown[] = [];
  function Asks() {
    clocks.push(useClock());
    return null;
  }
  render(<Asks />);
  expect(clocks[0]).toBe(application);
});
