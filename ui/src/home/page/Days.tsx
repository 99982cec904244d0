import { plural } from "../../player/format";
import type { HomeDays, HomePage } from "../../wire/contract";
import { dayInWords, dayNumber, dayOf } from "./day";
import type { Memory } from "./memory";
import type { Today } from "./today";
import type { Remembered } from "./useMemory";

type Props = {
  page: HomePage;
  now: Today;
  remembered: Remembered;
  step: number;
  onStep: (step: number) => void;
};

const most = 42; // days that are drawn at once

/** Days is which day it is, what is for today or a step back, and what this device remembers of the days. */
export function Days({ page, now, remembered, step, onStep }: Props) {
  const { memory, mark, keeps, forget } = remembered;
  const marks = memory[now.on] ?? {};
  const twice = page.steps[now.due]!.evening >= 0;
  return (
    <section className="days" aria-labelledby="today">
      <h2 id="today">{whichDay(page, now)}</h2>
      {marks.tooMuch ? (
        <p>
          It was too much today: leave it until tomorrow, and ask {whom(page)} before you go on.{" "}
          <button type="button" className="btn btn-link" onClick={() => mark(now.on, { tooMuch: false })}>
            Undo
          </button>
        </p>
      ) : (
        now.why !== "" && <p>{whyLess(page, now)}</p>
      )}
      {page.steps.length > 1 && (
        <div className="steps" role="group" aria-label="Which step">
          {steps(page.steps, now, step).map((i) => (
            <button
              key={i}
              type="button"
              className={`btn ${i === step ? "btn-primary" : "btn-outline-primary"}`}
              aria-pressed={i === step}
              onClick={() => onStep(i)}
            >
              <small>{stepName(i, now)}</small>
              {page.steps[i]!.how.length > 0 && page.steps[i]!.name !== page.sheet.home.name
                ? `${page.steps[i]!.name}, ${page.steps[i]!.says}`
                : page.steps[i]!.says}
            </button>
          ))}
        </div>
      )}
      {now.day !== null && now.when !== "before" && <Strip page={page} now={now} remembered={remembered} />}
      <p className="keys">
        <Tick
          on={marks.done === true}
          label={twice ? "Done this morning" : "Done today"}
          onChange={(done) => mark(now.on, { done })}
        />
        {twice && (
          <Tick
            on={marks.evening === true}
            label="Done this evening"
            onChange={(evening) => mark(now.on, { evening })}
          />
        )}
      </p>
      <p className="small">
        {keeps
          ? "Only this device remembers what you ticked."
          : "This browser remembers nothing of a page: tick the days on paper too."}{" "}
        {Object.keys(memory).length > 0 && (
          <button type="button" className="btn btn-link" onClick={forget}>
            Forget all ticks
          </button>
        )}
      </p>
    </section>
  );
}

/** steps is which steps can be chosen: all of a few, else those around today's. */
function steps(all: HomeDays[], now: Today, chosen: number): number[] {
  const few = 4;
  return [...all.keys()].filter(
    (i) => all.length <= few || Math.abs(i - now.due) <= 1 || i === chosen || i === 0,
  );
}

function stepName(i: number, now: Today): string {
  if (i === now.due && now.when === "during") return "Today";
  if (i === now.due && now.when === "rest") return "The last one";
  if (i === now.due - 1) return "A step back";
  return `Step ${i + 1}`;
}

function whichDay({ steps, sheet }: HomePage, now: Today): string {
  const total = steps.at(-1)!.last;
  const of = total > 0 ? ` of ${total}` : "";
  switch (now.when) {
    case "before":
      return `Begins on ${dayInWords(sheet.home.begins)}`;
    case "during":
      return `Day ${now.day}${of}`;
    case "rest":
      return `Day ${now.day}${of}: a day of rest`;
    case "over":
      return `The ${plural(total, "day")} are over: tell your teacher how it was`;
    default:
      return "Today";
  }
}

function whyLess(page: HomePage, now: Today): string {
  const what = now.offered < now.due ? "a step back" : "the least";
  return now.why === "gap"
    ? `Some days have passed without it: ${what} is offered. Today's step is there too.`
    : `Last time was too much: ${what} is offered. Ask ${whom(page)} before you do more.`;
}

const whom = ({ sheet }: HomePage) => sheet.home.ask || "your teacher";

type TickProps = { on: boolean; label: string; onChange: (on: boolean) => void };

function Tick({ on, label, onChange }: TickProps) {
  return (
    <label className="tick">
      <input type="checkbox" checked={on} onChange={(e) => onChange(e.currentTarget.checked)} />
      {label}
    </label>
  );
}

/** Strip is the days one after the other: those that were done, today, and what comes. */
function Strip({ page, now, remembered }: Pick<Props, "page" | "now" | "remembered">) {
  const { begins } = page.sheet.home;
  const total = page.steps.at(-1)!.last;
  const day = now.day!;
  const end = total > 0 ? total : Math.max(day + 6, 7);
  const first = end <= most ? 1 : Math.max(1, Math.min(day - 20, end - most + 1));
  const last = Math.min(end, first + most - 1);
  return (
    <ol className="strip" start={first} aria-label="Days">
      {Array.from({ length: last - first + 1 }, (_, i) => {
        const number = first + i;
        const on = dayOf(begins, number);
        const done = isDone(remembered.memory, on);
        return (
          <li key={number} className={dayNumber(now.on, on) === 1 ? "now" : undefined}>
            <button
              type="button"
              aria-pressed={done}
              disabled={number > day}
              aria-label={`Day ${number}, ${dayInWords(on)}: ${done ? "done" : "not done"}`}
              onClick={() => remembered.mark(on, { done: !done, evening: done ? false : undefined })}
            >
              {done ? "✓" : number}
            </button>
          </li>
        );
      })}
    </ol>
  );
}

function isDone(memory: Memory, on: string): boolean {
  return memory[on]?.done === true || memory[on]?.evening === true;
}
