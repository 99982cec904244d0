import { get } from "./api";
import type { Clock } from "./contract";

/**
 * What is known of the application's clock: at the moment `local` of this page (performance.now) it showed `server`
 * (ms since 1970), and it runs at `rate`. `delay` is the round trip of the exchange, a bound of the error.
 */
type Reading = { local: number; server: number; rate: number; delay: number };

let reading: Reading = { local: performance.now(), server: Date.now(), rate: 1, delay: Infinity };

/** now is the time on the application's clock, in ms since 1970. */
export function now(): number {
  return reading.server + (performance.now() - reading.local) * reading.rate;
}

/** inReal turns a stretch of the application's clock into real milliseconds. */
export function inReal(ms: number): number {
  return ms / reading.rate;
}

export function rate(): number {
  return reading.rate;
}

const samples = 5;
const every = 30_000;
// A reading that old may have drifted: a newer one is taken though its delay is longer.
const stale = 120_000;

/**
 * The four-timestamp exchange of RFC 5905, section 8: the question's and the answer's middle are taken for the same
 * moment. Of several, the one with the shortest delay is kept.
 */
export async function synchronize(): Promise<void> {
  let best: Reading | null = null;
  for (let i = 0; i < samples; i++) {
    const sent = performance.now();
    const clock = await get<Clock>("/clock");
    const received = performance.now();
    const delay = received - sent - (clock.sent_ms - clock.received_ms) / clock.rate;
    if (!best || delay < best.delay) {
      best = {
        local: (sent + received) / 2,
        server: (clock.received_ms + clock.sent_ms) / 2,
        rate: clock.rate,
        delay,
      };
    }
  }
  if (best && (best.delay <= reading.delay || performance.now() - reading.local > stale)) reading = best;
}

/** keepTime synchronizes now and then, and at once when the page wakes up. It returns how to stop. */
export function keepTime(): () => void {
  const again = () => void synchronize().catch(() => undefined); // without an answer the last reading holds
  const woken = () => {
    if (document.visibilityState !== "visible") return;
    reading = { ...reading, delay: Infinity }; // a page that slept may have missed time: take any newer reading
    again();
  };
  again();
  const timer = setInterval(again, every);
  document.addEventListener("visibilitychange", woken);
  return () => {
    clearInterval(timer);
    document.removeEventListener("visibilitychange", woken);
  };
}
