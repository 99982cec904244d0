import { expect, test, vi } from "vitest";
import { rate } from "./sounds/parts";
import { breathsOf, strokesOf, tonesOf } from "./sounds/rooms";
import type { Told } from "./told";

type Processor = {
  process: (inputs: Float32Array[][]) => boolean;
  port: { onmessage?: (e: object) => void };
};

/** processor is the one that the audio thread runs, in a scope like that of a worklet, with what it tells. */
async function processor(): Promise<{ ear: Processor; told: Told[]; pass: (sound: Float32Array) => void }> {
  const told: Told[] = [];
  const made: (new () => Processor)[] = [];
  const scope = { sampleRate: rate, currentTime: 5 };
  vi.stubGlobal("sampleRate", rate);
  vi.stubGlobal("currentTime", scope.currentTime);
  vi.stubGlobal(
    "AudioWorkletProcessor",
    class {
      port = { postMessage: (message: Told) => told.push(structuredClone(message)) };
    },
  );
  vi.stubGlobal("registerProcessor", (_: string, one: new () => Processor) => made.push(one));
  vi.resetModules();
  await import("./ear.worklet");
  const ear = new made[0]!();
  const quantum = 128; // samples, as the Web Audio API gives them
  const pass = (sound: Float32Array) => {
    for (let at = 0; at < sound.length; at += quantum) {
      vi.stubGlobal("currentTime", 5 + at / rate);
      ear.process([[sound.subarray(at, at + quantum)]]);
    }
  };
  return { ear, told, pass };
}

test("what leaves the audio thread is a few numbers, ten times a second", async () => {
  const { ear, told, pass } = await processor();
  ear.port.onmessage!({ data: { listensFor: "strokes", beat: 60, bothWays: false } });
  const seconds = 14;
  pass(strokesOf({ seed: 1, seconds, people: 1, over: 20, echo: 0 }, 66).sound);
  expect(told.length).toBeLessThanOrEqual(seconds * 10);
  for (const message of told) {
    expect(JSON.stringify(message).length).toBeLessThan(300);
    const values = [message, message.pace ?? {}].flatMap((one) => Object.values<unknown>(one));
    for (const value of values) expect(["number", "boolean", "object", "string"]).toContain(typeof value);
    expect(values.filter((value) => typeof value === "string").join("").length).toBeLessThan(12);
    expect(Object.values(message).some((value) => Array.isArray(value) || ArrayBuffer.isView(value))).toBe(
      false,
    );
  }
  expect(Math.abs(told.at(-1)!.pace!.rate - 66)).toBeLessThan(2);
  expect(told.at(-1)!.pace!.from, "on the audio clock").toBeGreaterThan(5);
  ear.port.onmessage!({ data: { listensFor: "nothing", beat: 0, bothWays: false } });
  const before = told.length;
  pass(new Float32Array(rate).map(() => 1e-3 * (Math.random() - 0.5)));
  expect(told[before]!.pace, "without a beat no rate is told").toBeNull();
});

test("strokes that are heard in and out are counted once", async () => {
  const { ear, told, pass } = await processor();
  ear.port.onmessage!({ data: { listensFor: "strokes", beat: 48, bothWays: true } });
  pass(strokesOf({ seed: 1, seconds: 14, people: 1, over: 20, echo: 0 }, 50, 0, true).sound);
  expect(Math.abs(told.at(-1)!.pace!.rate - 50)).toBeLessThan(2);
});

const ask = { seed: 3, seconds: 30, people: 1, over: 20, echo: 0 };
test.each([
  ["a hum", "voice", tonesOf(ask, "hum")],
  ["a sigh", "breath", breathsOf(ask, "sigh")],
] as const)(
  "the end of %s is told once, within a second, on the audio clock",
  async (_, listensFor, room) => {
    const { ear, told, pass } = await processor();
    ear.port.onmessage!({ data: { listensFor, beat: 0, bothWays: false } });
    pass(room.sound);
    const ends = told.filter((message) => message.ended);
    const over = room.tones.filter(({ end }) => end < 29);
    expect(ends).toHaveLength(over.length);
    over.forEach(({ end }, i) => {
      expect(ends[i]!.ended!.end! - 5 - end).toBeCloseTo(0, 0);
      expect(ends[i]!.at - ends[i]!.ended!.end!).toBeLessThan(1);
    });
  },
);

test("what is not asked for is not told", async () => {
  const { told, pass } = await processor();
  pass(tonesOf(ask, "hum").sound);
  expect(told.filter(({ sounding, ended, pace }) => sounding || ended || pace)).toEqual([]);
});

test("a muted microphone is told as dead", async () => {
  const { told, pass } = await processor();
  pass(new Float32Array(5 * rate));
  expect(told[0]!.dead).toBe(false);
  expect(told.at(-1)!.dead).toBe(true);
});
