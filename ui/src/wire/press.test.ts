import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { press } from "./press";

type Body = { key: string; pressed_ms: number; do: string };
let bodies: Body[] = [];
let slow = 0;

/** network answers each request in turn; "never" is a request that is not answered, "down" one that fails at once. */
function network(...answers: (object | "never" | "down")[]) {
  vi.stubGlobal("fetch", (_: string, init: RequestInit) => {
    bodies.push(JSON.parse(init.body as string) as Body);
    const answer = answers.shift() ?? "never";
    if (answer === "down") return Promise.reject(new TypeError("failed"));
    if (answer !== "never") return Promise.resolve(Response.json(answer));
    return new Promise((_, reject) => {
      init.signal?.addEventListener("abort", () => reject(init.signal!.reason as Error));
    });
  });
}

const send = (keep = false) =>
  press<{ ok: number }>("/x", { pressed_ms: 5, ...{ do: "pause" } }, { onSlow: () => void slow++, keep });

beforeEach(() => {
  bodies = [];
  slow = 0;
  vi.useFakeTimers();
  vi.stubGlobal("window", { dispatchEvent: () => true });
  // The fake timers know nothing of AbortSignal.timeout.
  vi.spyOn(AbortSignal, "timeout").mockImplementation((ms) => {
    const controller = new AbortController();
    setTimeout(() => controller.abort(new DOMException("late", "TimeoutError")), ms);
    return controller.signal;
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

test("a press that is answered is sent once", async () => {
  network({ ok: 1 });
  await expect(send()).resolves.toEqual({ ok: 1 });
  expect(bodies).toHaveLength(1);
  expect(slow).toBe(0);
});

test("after three seconds without an answer it says so and is sent again, under its key and with its moment", async () => {
  network("never", { ok: 2 });
  const sent = send();
  await vi.advanceTimersByTimeAsync(2999);
  expect(slow).toBe(0);
  await vi.advanceTimersByTimeAsync(401);
  await expect(sent).resolves.toEqual({ ok: 2 });
  expect(slow).toBe(1);
  expect(bodies[1]).toEqual(bodies[0]);
  expect(bodies[0]!.key).toMatch(/^[0-9a-f]{32}$/);
});

test("after five seconds it is given up, and nothing of it is sent later", async () => {
  network();
  const sent = send();
  const failed = expect(sent).rejects.toThrow("web.not-sent");
  await vi.advanceTimersByTimeAsync(5500);
  await failed;
  const times = bodies.length;
  await vi.advanceTimersByTimeAsync(60_000);
  expect(bodies).toHaveLength(times);
});

test("a note is sent until it arrives", async () => {
  network(...Array<"down">(30).fill("down"), { ok: 3 });
  const sent = send(true);
  await vi.advanceTimersByTimeAsync(15_000);
  await expect(sent).resolves.toEqual({ ok: 3 });
  expect(new Set(bodies.map((b) => b.key)).size).toBe(1);
});

test("what is refused is not sent again", async () => {
  vi.stubGlobal("fetch", () => Promise.resolve(Response.json({ say: { id: "too-late" } }, { status: 409 })));
  await expect(send()).rejects.toThrow("too-late");
});
