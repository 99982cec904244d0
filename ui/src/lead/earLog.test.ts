// @vitest-environment jsdom
import { beforeEach, expect, test, vi } from "vitest";
import { Failed } from "../wire/api";
import type { Heard } from "../wire/contract";
import { EarLog, sendLeftovers } from "./earLog";

const hum = (from_ms: number): Heard => ({ phase: "exhale", from_ms, to_ms: from_ms + 5000, per_minute: 0 });
const failed = (status: number) => new Failed({ say: { id: "heard.full" } }, status);

beforeEach(() => localStorage.clear());

test("what was heard is kept until the program has it, also over a new page", async () => {
  const send = vi.fn(() => Promise.reject(failed(0)));
  const log = new EarLog(7, send);
  log.add(hum(1000));
  await log.flush();
  log.add(hum(9000));

  const sent = vi.fn(() => Promise.resolve());
  const again = new EarLog(7, sent);
  await again.flush();
  expect(sent).toHaveBeenCalledWith(7, [hum(1000), hum(9000)]);
  await again.flush();
  expect(sent).toHaveBeenCalledTimes(1);
  expect(localStorage.length).toBe(0);
});

test("what the program refuses is told once, and not sent again", async () => {
  const send = vi.fn(() => Promise.reject(failed(409)));
  const log = new EarLog(7, send);
  log.add(hum(1000));
  await expect(log.flush()).rejects.toThrow("heard.full");
  await log.flush();
  expect(send).toHaveBeenCalledTimes(1);
});

test("what is heard while it is being sent follows", async () => {
  const arrives: (() => void)[] = [];
  const send = vi.fn(() => new Promise<void>((done) => arrives.push(done)));
  const log = new EarLog(7, send);
  log.add(hum(1000));
  const first = log.flush();
  log.add(hum(9000));
  arrives[0]!();
  await first;
  void log.flush();
  expect(send).toHaveBeenLastCalledWith(7, [hum(9000)]);
});

test("a class that was begun here has its number later", async () => {
  const send = vi.fn(() => Promise.resolve());
  const log = new EarLog(-3, send);
  log.add(hum(1000));
  await log.flush();
  expect(send).not.toHaveBeenCalled();
  log.renumber(12);
  await log.flush();
  expect(send).toHaveBeenCalledWith(12, [hum(1000)]);
  expect(localStorage.length).toBe(0);
});

test("what classes before left is sent too", async () => {
  const never = vi.fn(() => Promise.reject(failed(0)));
  const before = new EarLog(7, never);
  before.add(hum(1000));
  new EarLog(8, never).add(hum(2000));
  new EarLog(-3, never).add(hum(3000));
  const send = vi.fn(() => Promise.resolve());
  await sendLeftovers(8, send);
  expect(send.mock.calls).toEqual([[7, [hum(1000)]]]);
  expect(Object.keys(localStorage).sort()).toEqual(["heard:-3", "heard:8"]);
});
