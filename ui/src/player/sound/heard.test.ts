import { expect, test, vi } from "vitest";
import { heardIn } from "./heard";

vi.spyOn(performance, "now").mockReturnValue(5000);

const device = (told: object) => ({ currentTime: 10, ...told }) as unknown as AudioContext;

test("what is to be heard at a moment begins earlier, by what the device takes", () => {
  // 9.8 s of the audio clock were heard 20 ms ago: what is played now is heard in 180 ms.
  const wireless = device({ getOutputTimestamp: () => ({ contextTime: 9.8, performanceTime: 4980 }) });
  expect(heardIn(wireless, 1000)).toBeCloseTo(10.82);
  expect(heardIn(wireless, 100)).toBe(10); // it can be no earlier than now
});

test("without a reading of the device it is what it says that it takes", () => {
  expect(heardIn(device({ outputLatency: 0.05 }), 1000)).toBeCloseTo(10.95);
  expect(heardIn(device({}), 1000)).toBeCloseTo(11);
  const none = () => ({ contextTime: 0, performanceTime: 0 });
  expect(heardIn(device({ getOutputTimestamp: none, outputLatency: 0.05 }), 1000)).toBeCloseTo(10.95);
  const asleep = () => ({ contextTime: 2, performanceTime: 4980 });
  expect(heardIn(device({ getOutputTimestamp: asleep }), 1000)).toBeCloseTo(11);
});
