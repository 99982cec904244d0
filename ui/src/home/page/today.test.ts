import { afterEach, describe, expect, it, vi } from "vitest";
import type { HomeDays } from "../../wire/contract";
import { calendarDay, dayInWords, dayNumber, dayOf } from "./day";
import { keep, marked, type Memory, recall } from "./memory";
import { stepOn, today } from "./today";

const step = (first: number, last: number, evening = -1) => ({ first, last, evening }) as HomeDays;
const steps = [step(1, 3), step(4, 7), step(8, 0)];
const at = (on: string, hour = 9) => new Date(`${on}T${String(hour).padStart(2, "0")}:30`);

describe("the day of a practice", () => {
  it("is counted in calendar days, also where a clock is put forward or back", () => {
    // In 2026 clocks change on 29 March and 25 October in Europe, on 8 March and 1 November in New York: common law there.
    for (const [begins, on, number] of [
      ["2026-11-30", "2026-11-30", 1],
      ["2026-11-30", "2026-12-01", 2],
      ["2026-11-30", "2026-11-29", 0],
      ["2026-03-28", "2026-03-30", 3],
      ["2026-10-24", "2026-10-26", 3],
      ["2026-03-07", "2026-03-09", 3],
      ["2026-10-31", "2026-11-02", 3],
      ["2028-02-28", "2028-03-01", 3],
      ["2026-12-31", "2027-01-01", 2],
    ] as const) {
      expect(dayNumber(begins, on)).toBe(number);
      expect(dayOf(begins, number)).toBe(on);
    }
    expect(dayInWords("2026-11-30", "en")).toBe("Monday 30 November");
    expect(dayInWords("2026-11-30", "de")).toBe("Montag, 30. November");
  });

  it("is the day on this device, in whatever zone it is", () => {
    // The same moment: 30 November, 10:30 in London, is the next day already on Kiritimati and still the same in Honolulu.
    const moment = new Date("2026-11-30T10:30:00Z");
    try {
      for (const [name, on] of [
        ["Europe/London", "2026-11-30"],
        ["Pacific/Kiritimati", "2026-12-01"],
        ["Pacific/Honolulu", "2026-11-30"],
        ["Pacific/Pago_Pago", "2026-11-29"],
      ] as const) {
        vi.stubEnv("TZ", name);
        expect(calendarDay(moment), name).toBe(on);
      }
      vi.stubEnv("TZ", "Europe/Berlin");
      for (let hour = 0; hour < 48; hour++) {
        const clock = new Date(Date.parse("2026-03-28T23:00:00Z") + hour * 3_600_000); // midnight of the short day, and on
        expect(calendarDay(clock)).toBe(hour < 23 ? "2026-03-29" : hour < 47 ? "2026-03-30" : "2026-03-31");
      }
    } finally {
      vi.unstubAllEnvs();
    }
  });
});

describe("what a page offers", () => {
  it("follows the calendar", () => {
    for (const [on, due, when] of [
      ["2026-11-28", 0, "before"],
      ["2026-11-30", 0, "during"],
      ["2026-12-02", 0, "during"],
      ["2026-12-03", 1, "during"],
      ["2026-12-07", 2, "during"],
      ["2027-06-01", 2, "during"],
    ] as const)
      expect(today(steps, "2026-11-30", {}, at(on))).toMatchObject({ on, due, offered: due, when, why: "" });
    expect(today([step(1, 7)], "2026-11-30", {}, at("2026-12-07")).when).toBe("over");
    expect(today(steps, "", {}, at("2026-12-07"))).toMatchObject({ day: null, when: "uncounted", due: 0 });
    expect(stepOn(steps, -4)).toBe(0);
    const rests = [step(1, 2), step(5, 6)];
    for (const [on, when, due] of [
      ["2026-12-01", "during", 0],
      ["2026-12-02", "rest", 0],
      ["2026-12-03", "rest", 0],
      ["2026-12-04", "during", 1],
      ["2026-12-06", "over", 1],
    ] as const)
      expect(today(rests, "2026-11-30", {}, at(on)), on).toMatchObject({ when, due });
  });

  it("is a step back after too much, until a day went well", () => {
    const memory: Memory = { "2026-12-03": { done: true, tooMuch: true } };
    expect(today(steps, "2026-11-30", memory, at("2026-12-04"))).toMatchObject({
      due: 1,
      offered: 0,
      why: "too-much",
    });
    const better = marked(memory, "2026-12-04", { done: true });
    expect(today(steps, "2026-11-30", better, at("2026-12-05"))).toMatchObject({ offered: 1, why: "" });
    expect(today(steps, "2026-11-30", memory, at("2026-12-01")).why, "a clock that went back").toBe("");
  });

  it("is a step back after four days without it, and not on a device that knows nothing", () => {
    const memory: Memory = { "2026-12-03": { done: true } };
    expect(today(steps, "2026-11-30", memory, at("2026-12-06")).why).toBe("");
    expect(today(steps, "2026-11-30", memory, at("2026-12-07"))).toMatchObject({ offered: 1, why: "gap" });
    expect(today(steps, "2026-11-30", {}, at("2026-12-07"))).toMatchObject({ offered: 2, why: "" });
    expect(today(steps, "2026-11-30", { "2026-12-01": { done: true } }, at("2026-11-30")).why).toBe("");
  });

  it("has a second time in the evening, or when the first is done", () => {
    const twice = [step(1, 0, 1)];
    expect(today(twice, "2026-11-30", {}, at("2026-11-30", 8)).evening).toBe(false);
    expect(today(twice, "2026-11-30", {}, at("2026-11-30", 18)).evening).toBe(true);
    expect(today(twice, "2026-11-30", { "2026-11-30": { done: true } }, at("2026-11-30", 8)).evening).toBe(
      true,
    );
    expect(today(steps, "2026-11-30", {}, at("2026-11-30", 18)).evening).toBe(false);
  });
});

describe("what a device remembers", () => {
  afterEach(() => vi.unstubAllGlobals());

  const storage = (broken: "" | "get" | "set" = "") => {
    const kept = new Map<string, string>();
    const fail = () => {
      throw new DOMException("", "SecurityError");
    };
    return {
      getItem: broken === "get" ? fail : (name: string) => kept.get(name) ?? null,
      setItem: broken === "set" ? fail : (name: string, text: string) => void kept.set(name, text),
      removeItem: (name: string) => void kept.delete(name),
    };
  };

  it("comes back under its key", () => {
    vi.stubGlobal("localStorage", storage());
    expect(recall("a")).toEqual({});
    expect(keep("a", { "2026-11-30": { done: true } })).toBe(true);
    expect(recall("a")).toEqual({ "2026-11-30": { done: true } });
    expect(recall("b")).toEqual({});
    keep("a", {});
    expect(recall("a")).toEqual({});
  });

  it("says so where a browser keeps nothing", () => {
    for (const broken of ["get", "set"] as const) {
      vi.stubGlobal("localStorage", storage(broken));
      expect(recall("a"), broken).toBeNull();
    }
    vi.stubGlobal("localStorage", storage("set"));
    expect(keep("a", { "2026-11-30": { done: true } })).toBe(false);
  });

  it("loses a day of which nothing is marked", () => {
    const one = marked({}, "2026-11-30", { done: true });
    expect(one).toEqual({ "2026-11-30": { done: true } });
    expect(marked(one, "2026-11-30", { done: false })).toEqual({});
  });
});
