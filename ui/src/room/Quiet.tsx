import "./quiet.css";
import { type ReactNode, useEffect, useState } from "react";
import { now } from "../player/clock";
import { day, timeOfDay } from "../player/format";
import { useSay, useTag } from "../player/say";
import type { Room } from "../wire/contract";

type Props = { ended: boolean; next: Room["next"]; bring: string; children?: ReactNode };

const minute = 60_000;
const lanterns = 9;

/** Quiet waits before a class, and thanks after one. A lantern lights with each of the last minutes before it begins. */
export function Quiet({ ended, next, bring, children }: Props) {
  const left = useMinutes(next?.starts_ms ?? null);
  const say = useSay();
  const tag = useTag();
  const lit = ended || left === null ? 0 : Math.max(0, Math.min(lanterns, lanterns - left));
  return (
    <main className="quietly">
      <Garland lit={lit} />
      <h1 className="word">{say(ended ? "thank-you" : "soon")}</h1>
      {ended ? (
        <>
          <p>{say("ended")}</p>
          {children}
          <p className="small">{say("starts-next")}</p>
        </>
      ) : (
        <>
          {next && left !== null ? (
            <>
              <p className="coming">{next.title}</p>
              <p>
                {day(next.starts_ms, now(), tag)}, {timeOfDay(next.starts_ms, tag)}
                {left > 0 && left <= 90 && `, ${say("in-minutes", { minutes: left })}`}
              </p>
              {next.passages.length > 0 && <p className="small">{next.passages.join(", ")}</p>}
            </>
          ) : (
            <p>{say("no-class")}</p>
          )}
          {bring !== "" && <p>{say("bring", { what: bring })}</p>}
          {children}
          <p className="small">{say("starts")}</p>
        </>
      )}
    </main>
  );
}

/** useMinutes is the whole minutes until a time, rounded up; null without one. */
function useMinutes(until: number | null): number | null {
  const [time, setTime] = useState(now);
  useEffect(() => {
    const timer = setInterval(() => setTime(now()), 5000);
    return () => clearInterval(timer);
  }, []);
  return until === null ? null : Math.max(0, Math.ceil((until - time) / minute));
}

/** Garland is a string of lanterns across the page, of which the first are lit. */
function Garland({ lit }: { lit: number }) {
  return (
    <div className="garland" aria-hidden>
      <svg viewBox="0 0 100 20" preserveAspectRatio="none">
        <path d="M0 1Q50 30 100 1" />
      </svg>
      {Array.from({ length: lanterns }, (_, i) => {
        const x = (i + 0.5) / lanterns;
        const rope = 1 + 58 * x * (1 - x); // the curve above, in its own units
        return (
          <span
            key={i}
            className={`hung string now ph-inhale lamp ${i < lit ? "past" : "ahead"}`}
            style={{ left: `${x * 100}%`, top: `${(rope / 20) * 75}%` }}
          >
            <span className="pane">
              <span className="light" />
            </span>
          </span>
        );
      })}
    </div>
  );
}
