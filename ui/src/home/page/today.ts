import type { HomeDays } from "../../wire/contract";
import { calendarDay, dayNumber } from "./day";
import type { Memory } from "./memory";

/** Today is what a page offers on a day. */
export type Today = {
  /** the calendar day on this device */
  on: string;
  /** its number, from 1; null where the page counts no days */
  day: number | null;
  /** whether the days have begun, whether one is a day of rest between two steps, and whether they are over */
  when: "before" | "during" | "rest" | "over" | "uncounted";
  /** the step of the day, from 0 */
  due: number;
  /** the step that is offered: that of the day, or the one before it */
  offered: number;
  /** why it is not that of the day, or less of it */
  why: "" | "too-much" | "gap";
  /** whether the second time of the day comes next */
  evening: boolean;
};

const eveningFrom = 15; // o'clock: common practice, with no source
const gap = 4; // days without the practice after which a step back is offered: common practice, with no source

/** stepOn is the step of a day, from 0: the first before the days begin, the last when they are over. */
export function stepOn(steps: HomeDays[], day: number): number {
  return Math.max(
    0,
    steps.findLastIndex((step) => step.first <= day),
  );
}

/** today is what is offered at a moment, by the calendar and by what the device remembers. */
export function today(steps: HomeDays[], begins: string, memory: Memory, at: Date): Today {
  const on = calendarDay(at);
  const counted = begins !== "";
  const day = counted ? dayNumber(begins, on) : null;
  const due = day === null ? 0 : stepOn(steps, day);
  const why = reason(memory, on);
  const hasEvening = steps[due]!.evening >= 0;
  return {
    on,
    day,
    when: day === null ? "uncounted" : stateOn(steps, day),
    due,
    offered: why === "" ? due : Math.max(0, due - 1),
    why,
    evening: hasEvening && (memory[on]?.done === true || at.getHours() >= eveningFrom),
  };
}

function stateOn(steps: HomeDays[], day: number): Today["when"] {
  const last = steps.at(-1)!.last;
  if (day < 1) return "before";
  if (last > 0 && day > last) return "over";
  const step = steps[stepOn(steps, day)]!;
  return step.last > 0 && day > step.last ? "rest" : "during";
}

/** reason is why a step back is offered: the last time was too much, or there was none for some days. */
function reason(memory: Memory, on: string): Today["why"] {
  const days = Object.keys(memory)
    .filter((day) => day <= on)
    .sort();
  const last = days.at(-1);
  if (last === undefined) return "";
  if (memory[last]!.tooMuch) return "too-much";
  const done = days.filter((day) => memory[day]!.done || memory[day]!.evening).at(-1);
  return done !== undefined && dayNumber(done, on) - 1 >= gap ? "gap" : "";
}
