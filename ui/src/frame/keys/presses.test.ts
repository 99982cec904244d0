import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { doubleWithin, longAfter, Presses, type Way } from "./presses";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

function pedal(ways: Way[]) {
  const told: string[] = [];
  const presses = new Presses(
    (key) => (key === "PageDown" ? ways : key === "PageUp" ? ["short"] : []),
    (key, way) => told.push(`${key} ${way}`),
  );
  const tap = (key = "PageDown") => {
    presses.press(key);
    presses.release(key);
  };
  return { presses, told, tap };
}

test("a short press is told at once where it is all that there is", () => {
  const { presses, told } = pedal(["short"]);
  expect(presses.press("PageDown")).toBe(true);
  expect(told).toEqual(["PageDown short"]);
  expect(presses.press("q")).toBe(false);
});

test("one pedal tells short, long and two apart", () => {
  const { presses, told, tap } = pedal(["short", "long", "double"]);
  tap();
  expect(told).toEqual([]);
  vi.advanceTimersByTime(doubleWithin);
  expect(told.splice(0)).toEqual(["PageDown short"]);

  presses.press("PageDown");
  vi.advanceTimersByTime(longAfter);
  expect(told).toEqual(["PageDown long"]); // while it is still held down
  presses.release("PageDown");
  vi.advanceTimersByTime(doubleWithin);
  expect(told.splice(0)).toEqual(["PageDown long"]);

  tap();
  vi.advanceTimersByTime(doubleWithin / 2);
  tap();
  vi.advanceTimersByTime(2 * longAfter);
  expect(told).toEqual(["PageDown double"]);
});

test("without a meaning for two, short does not wait for a second press", () => {
  const { told, tap } = pedal(["short", "long"]);
  tap();
  tap();
  expect(told).toEqual(["PageDown short", "PageDown short"]);
});

test("another pedal ends the wait for a second press", () => {
  const { told, tap } = pedal(["short", "double"]);
  tap();
  tap("PageUp");
  expect(told).toEqual(["PageDown short", "PageUp short"]);
});

test("a pedal that only ever tells that it goes down is heard all the same", () => {
  const { presses, told } = pedal(["short", "double"]);
  presses.press("PageDown");
  vi.advanceTimersByTime(5000);
  presses.press("PageDown");
  vi.advanceTimersByTime(5000);
  expect(told).toEqual(["PageDown short", "PageDown short"]);
});

test("where it cannot wait a short press is told as it goes down, and a long one as well", () => {
  const told: string[] = [];
  const presses = new Presses(
    () => ["short", "long", "double"],
    (_, way) => told.push(way),
    () => true,
  );
  presses.press("PageDown");
  expect(told).toEqual(["short"]);
  presses.release("PageDown");
  vi.advanceTimersByTime(longAfter);
  expect(told.splice(0)).toEqual(["short"]);

  presses.press("PageDown");
  presses.release("PageDown");
  presses.press("PageDown");
  expect(told.splice(0)).toEqual(["short", "short"]); // two are no double press
  vi.advanceTimersByTime(longAfter);
  expect(told.splice(0)).toEqual(["long"]); // the second is still held down
});
