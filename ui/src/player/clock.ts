import { createContext, useContext } from "react";
import { get } from "../wire/api";
import type { Clock } from "../wire/contract";

/**
 * A reading of the application's clock: at the moment `local` of this page (performance.now) it showed `server` (ms
 * since 1970), and it runs at `rate`. `delay` is the round trip of the exchange, a bound of the error.
 */
type Reading = { local: number; server: number; rate: number; delay: number };

/** Kept is the last reading of this device, beside its own time of day: a page that is opened without the application goes by it. */
type Kept = { server: number; date: number; rate: number };

const stored = "clock";

function keep({ local, server, rate }: Reading): void {
  const date = Date.now() - (performance.now() - local);
  try {
    localStorage.setItem(stored, JSON.stringify({ server, date, rate } satisfies Kept));
  } catch {
    // a full store: the next page that is opened without the application goes by the time of day
  }
}

/** kept is that reading, or the time of day where there is none. */
function kept(): Reading {
  const first = { local: performance.now(), server: Date.now(), rate: 1, delay: Infinity };
  try {
    const last = JSON.parse(localStorage.getItem(stored) ?? "null") as Kept | null;
    if (!last || !(last.rate > 0)) return first;
    return { ...first, server: last.server + (first.server - last.date) * last.rate, rate: last.rate };
  } catch {
    return first;
  }
}

let best: Reading = kept();
let answered = false; // whether there ever was a reading

// What this page shows: from a moment on, what it showed then, and what it owes to the best reading. The debt is paid
// little by little, so that no count is skipped or shown twice.
let since = best.local;
let showed = best.server;
let owed = 0;

const slew = 0.02; // of the time that passes: a count of a second is 20 ms shorter or longer at most
const steps = 250; // ms in real time; a larger debt is one of sleep or of a first reading, and paid at once

function at(local: number): number {
  const passed = (local - since) * best.rate;
  const paid = Math.min(Math.abs(owed), slew * passed) * Math.sign(owed);
  return showed + passed + paid;
}

/** now is the time on the application's clock, in ms since 1970. */
export function now(): number {
  return at(performance.now());
}

/** PageClock is what a score is played on. */
export type PageClock = {
  /** ms since 1970; on a trial clock, from the start of the class */
  now: () => number;
  /** how many of its milliseconds pass in a real one */
  rate: () => number;
  /** turns a stretch of the clock into real milliseconds */
  inReal: (ms: number) => number;
};

/** application is the clock of the application, which all screens share. */
export const application: PageClock = { now, rate: () => best.rate, inReal: (ms) => ms / best.rate };

/** trialClock is a clock of one view alone, for trying a plan out: it shows the time now, and runs at the rate. */
export function trialClock(time: number, rate: number): PageClock {
  const local = performance.now();
  return {
    now: () => time + (performance.now() - local) * rate,
    rate: () => rate,
    inReal: (ms) => ms / rate,
  };
}

/** ClockContext is the clock that a view plays on: the application's, unless the view brings one of its own. */
export const ClockContext = createContext(application);

export const useClock = (): PageClock => useContext(ClockContext);

const moves = new Set<(by: number) => void>();

/** onMoved tells when the first reading of this page sets its clock, and by how many ms. It returns how to stop. */
export function onMoved(moved: (by: number) => void): () => void {
  moves.add(moved);
  return () => moves.delete(moved);
}

/** take follows a better reading from now on: little by little, or at once where too much is owed. */
function take(reading: Reading): void {
  const local = performance.now();
  const shows = at(local);
  const is = reading.server + (local - reading.local) * reading.rate;
  const first = !answered;
  const sudden = Math.abs(is - shows) > steps * reading.rate || first;
  answered = true;
  best = reading;
  since = local;
  showed = sudden ? is : shows;
  owed = is - showed;
  keep(reading);
  if (first) for (const moved of moves) moved(is - shows);
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
  let sample: Reading | null = null;
  for (let i = 0; i < samples; i++) {
    const sent = performance.now();
    const clock = await get<Clock>("/clock");
    const received = performance.now();
    const delay = received - sent - (clock.sent_ms - clock.received_ms) / clock.rate;
    if (!sample || delay < sample.delay) {
      sample = {
        local: (sent + received) / 2,
        server: (clock.received_ms + clock.sent_ms) / 2,
        rate: clock.rate,
        delay,
      };
    }
  }
  if (sample && (sample.delay <= best.delay || performance.now() - best.local > stale)) take(sample);
}

const jump = 1000; // ms between the two clocks of this page; more is sleep, or a system clock that was set

/** error is by how much this page's clock may be off, in ms of the application's: half of the delay of its best reading
 * (RFC 5905, section 8), and what it still owes to that reading. */
function error(): number {
  const passed = (performance.now() - since) * best.rate;
  return (best.delay * best.rate) / 2 + Math.max(0, Math.abs(owed) - slew * passed);
}

// For tests: this page's clock.
Object.assign(window, { lanternClock: { now, synchronize, error } });

/** keepTime synchronizes now and then, and at once when the page or the machine wakes up. It returns how to stop. */
export function keepTime(): () => void {
  const again = () => void synchronize().catch(() => undefined); // without an answer the last reading holds
  const anew = () => {
    best = { ...best, delay: Infinity }; // a page that slept may have missed time: take any newer reading
    again();
  };
  const shown = () => {
    if (document.visibilityState === "visible") anew();
  };
  again();
  const timer = setInterval(again, every);
  let apart = Date.now() - performance.now();
  const watch = setInterval(() => {
    const before = apart;
    apart = Date.now() - performance.now();
    if (Math.abs(apart - before) > jump) anew();
  }, jump);
  document.addEventListener("visibilitychange", shown);
  return () => {
    clearInterval(timer);
    clearInterval(watch);
    document.removeEventListener("visibilitychange", shown);
  };
}
