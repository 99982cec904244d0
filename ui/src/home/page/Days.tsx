import type { HomeDays, HomePage } from "../../wire/contract";
import { dayInWords, dayNumber, dayOf } from "./day";
import type { Memory } from "./memory";
import type { Today } from "./today";
import type { Remembered } from "./useMemory";
import { t, tag } from "./words";

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
          {t("page.it-was-too-much-today-leave", { page: whom(page) })}{" "}
          <button type="button" className="btn btn-link" onClick={() => mark(now.on, { tooMuch: false })}>
            {t("page.undo")}
          </button>
        </p>
      ) : (
        now.why !== "" && <p>{whyLess(page, now)}</p>
      )}
      {page.steps.length > 1 && (
        <div className="steps" role="group" aria-label={t("page.which-step")}>
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
          label={twice ? t("page.done-this-morning") : t("page.done-today")}
          onChange={(done) => mark(now.on, { done })}
        />
        {twice && (
          <Tick
            on={marks.evening === true}
            label={t("page.done-this-evening")}
            onChange={(evening) => mark(now.on, { evening })}
          />
        )}
      </p>
      <p className="small">
        {keeps ? t("page.only-this-device-remembers") : t("page.this-browser-remembers-nothing")}{" "}
        {Object.keys(memory).length > 0 && (
          <button type="button" className="btn btn-link" onClick={forget}>
            {t("page.forget-all-ticks")}
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
  if (i === now.due && now.when === "during") return t("page.today");
  if (i === now.due && now.when === "rest") return t("page.the-last-one");
  if (i === now.due - 1) return t("page.a-step-back");
  return t("page.step", { i: i + 1 });
}

function whichDay({ steps, sheet }: HomePage, now: Today): string {
  const total = steps.at(-1)!.last;
  const day = now.day ?? 0;
  switch (now.when) {
    case "before":
      return t("page.begins-on", { day: dayInWords(sheet.home.begins, tag()) });
    case "during":
      return t("page.day", { day, total });
    case "rest":
      return t("page.day-of-rest", { day, total });
    case "over":
      return t("page.days-are-over", { total });
    default:
      return t("page.today");
  }
}

function whyLess(page: HomePage, now: Today): string {
  const back = now.offered < now.due;
  return now.why === "gap"
    ? t("page.days-have-passed", { back })
    : t("page.last-time-was-too-much", { back, ask: whom(page) });
}

const whom = ({ sheet }: HomePage) => sheet.home.ask || t("page.your-teacher");

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
    <ol className="strip" start={first} aria-label={t("page.days")}>
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
              aria-label={t("page.day-2", { number, on: dayInWords(on, tag()), done })}
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
