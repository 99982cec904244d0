// @vitest-environment jsdom
import { beforeEach, expect, test, vi } from "vitest";
import { Failed } from "../wire/api";
import type { Heard } from "../wire/contract";
import { EarLog } from "./earLog";

const hum = (from_ms: number): Heard => ({ phase: "exhale", from_ms, to_ms: from_ms + 5000, per_minute: 0 });
const failed = (status: number) => new Failed({ say: { id: "heard.full" } }, status);

beforeEach(() => localStorage.clear());

test("what was heard is kept until the program has it, also over a new page", async () => {
  const send = vi.fn(() => Promise.reject(failed(0)));
  const log = new EarLog("heard:7", send);
  log.add(hum(1000));
  await log.flush();
  log.add(hum(9000));

  const sent = vi.fn(() => Promise.resolve());
  const again = new EarLog("heard:7", sent);
  await again.flush();
  expect(sent).toHaveBeenCalledWith([hum(1000), hum(9000)]);
  await again.flush();
  expect(sent).toHaveBeenCalledTimes(1);
  expect(localStorage.length).toBe(0);
});

test("what the program refuses is told once, and not sent again", async () => {
  const send = vi.fn(() => Promise.reject(failed(409)));
  const log = new EarLog("heard:7", send);
  log.add(hum(1000));
  await expect(log.flush()).rejects.toThrow("heard.full");
  await log.flush();
  expect(send).toHaveBeenCalledTimes(1);
});

test("what is heard while it is being sent follows", async () => {
  let arrive: () => unknown = () => null;
  const send = vi.fn(
    (heard: Heard[]) => new Promise<void>((done) => (arrive = () => heard.length > 0 && done())),
  );
  const log = new EarLog("heard:7", send);
  log.add(hum(1000));
  const first = log.flush();
  log.add(hum(9000));
  arrive();
  await first;
  void log.flush();
  expect(send).toHaveBeenLastCalledWith([hum(9000)]);
});
