import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { keepDrawn } from "./frames";

/** What was asked of the next frame; a page that is covered never answers. */
let frames: FrameRequestCallback[] = [];

beforeEach(() => {
  frames = [];
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout", "performance"] });
  vi.stubGlobal("document", { hidden: false, addEventListener() {}, removeEventListener() {} });
  vi.stubGlobal("requestAnimationFrame", (frame: FrameRequestCallback) => frames.push(frame));
  vi.stubGlobal("cancelAnimationFrame", () => (frames = []));
});

afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

test("a moment that is near is drawn in a frame", () => {
  const draw = vi.fn(() => 20);
  const stop = keepDrawn(draw);
  expect(draw).toHaveBeenCalledTimes(1);
  frames.pop()!(performance.now());
  expect(draw).toHaveBeenCalledTimes(2);
  stop();
});

test("a page that has no frames draws all the same", () => {
  const draw = vi.fn(() => 20);
  const stop = keepDrawn(draw);
  vi.advanceTimersByTime(50);
  expect(draw).toHaveBeenCalledTimes(2);
  expect(frames).toHaveLength(1); // and asks for the next
  stop();
  vi.advanceTimersByTime(1000);
  expect(draw).toHaveBeenCalledTimes(2);
});

test("what is stopped by what it draws draws no more", () => {
  let stop = () => {};
  const draw = vi.fn(() => {
    stop();
    return 20;
  });
  stop = keepDrawn(draw);
  frames.pop()!(performance.now());
  vi.advanceTimersByTime(1000);
  expect(draw).toHaveBeenCalledTimes(2);
  expect(frames).toHaveLength(0);
});
