import type { Score } from "../wire/contract";
import type { Place } from "../player/usePlace";
import { clock, number, timeOfDay } from "../player/format";

/** Order is the running order, small, with where the class is. */
export function Order({ score, place }: { score: Score; place: Place }) {
  const here = place.over ? score.passages.length : (place.phase?.passage ?? 0) - 1;
  return (
    <nav className="orderlist" aria-label="Running order">
      <ol>
        {score.passages.map((p, i) => (
          <li
            key={i}
            className={i < here ? "past" : i === here ? "here" : ""}
            aria-current={i === here ? "step" : undefined}
          >
            <span className="at">
              {p.start_ms < 0 ? "left out" : timeOfDay(score.started_ms + p.start_ms)}
            </span>
            <span className="what">
              {p.name}
              {p.rounds > 0 && (
                <small>
                  {p.counts} ×{p.rounds} {p.tempo > 0 && `@${number(p.tempo)}`}
                </small>
              )}
              {p.rounds === 0 && p.start_ms >= 0 && <small>{clock(p.end_ms - p.start_ms)}</small>}
            </span>
          </li>
        ))}
      </ol>
    </nav>
  );
}
