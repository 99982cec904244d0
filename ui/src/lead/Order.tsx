import { useEffect, useRef } from "react";
import type { Score, ScorePassage } from "../wire/contract";
import { type Place, useSeconds } from "../player/usePlace";
import { moved, overrun } from "./overrun";
import { clock, momentOf, number } from "../player/format";
import { t, text } from "../language/text";

/** Order is the running order, small, with where the class is, which stays in view. */
export function Order({ score, place }: { score: Score; place: Place }) {
  const here = place.over ? score.passages.length : (place.phase?.passage ?? 0) - 1;
  const late = overrun(score, useSeconds(score) * 1000);
  const current = useRef<HTMLLIElement>(null);
  useEffect(() => {
    void current.current?.scrollIntoView({ block: "center" });
  }, [here]);
  return (
    <nav className="orderlist" aria-label={t("frame.running-order")}>
      <ol>
        {score.passages
          .map((p, i) => moved(p, i === here, i > here, late))
          .map((p, i) => (
            <li
              key={i}
              ref={i === here ? current : undefined}
              className={i < here ? "past" : i === here ? "here" : ""}
              aria-current={i === here ? "step" : undefined}
            >
              <span className="at">{p.start_ms < 0 ? t("lead.left-out") : momentOf(score, p.start_ms)}</span>
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

/** detail is how much there is of a passage, what tells it from its like, and how the teacher's words in a talk begin. */
function detail(p: ScorePassage): string {
  const length = p.start_ms >= 0 ? clock(p.end_ms - p.start_ms) : "";
  const words = p.type === "talk" ? beginning(p.cards.join(" · ")) : "";
  if (p.rounds === 0) return [length, ...p.distinct.map(text), words].filter(Boolean).join(", ");
  const tempo = p.tempo > 0 ? ` @${number(p.tempo)}` : "";
  return [`${p.counts} ×${p.rounds}${tempo}`.trim(), ...p.distinct.map(text)].filter(Boolean).join(", ");
}

const longestBeginning = 40; // characters

/** beginning is the first words of a text. */
function beginning(text: string): string {
  if (text.length <= longestBeginning) return text;
  return `${text.slice(0, longestBeginning).replace(/\s+\S*$/, "")}…`;
}
