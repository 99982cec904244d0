import { useEffect, useRef } from "react";
import type { Score, ScorePassage } from "../wire/contract";
import type { Place } from "../player/usePlace";
import { clock, momentOf, number } from "../player/format";

/** Order is the running order, small, with where the class is, which stays in view. */
export function Order({ score, place }: { score: Score; place: Place }) {
  const here = place.over ? score.passages.length : (place.phase?.passage ?? 0) - 1;
  const current = useRef<HTMLLIElement>(null);
  useEffect(() => {
    void current.current?.scrollIntoView({ block: "center" });
  }, [here]);
  return (
    <nav className="orderlist" aria-label="Running order">
      <ol>
        {score.passages.map((p, i) => (
          <li
            key={i}
            ref={i === here ? current : undefined}
            className={i < here ? "past" : i === here ? "here" : ""}
            aria-current={i === here ? "step" : undefined}
          >
            <span className="at">{p.start_ms < 0 ? "left out" : momentOf(score, p.start_ms)}</span>
            <span className="what">
              {p.name}
              <small>{detail(p)}</small>
            </span>
          </li>
        ))}
      </ol>
    </nav>
  );
}

/** detail is how much there is of a passage, and what tells it from its like. */
function detail(p: ScorePassage): string {
  const length = p.start_ms >= 0 ? clock(p.end_ms - p.start_ms) : "";
  if (p.rounds === 0) return [length, p.distinct].filter(Boolean).join(", ");
  const tempo = p.tempo > 0 ? ` @${number(p.tempo)}` : "";
  return [`${p.counts} ×${p.rounds}${tempo}`.trim(), p.distinct].filter(Boolean).join(", ");
}
