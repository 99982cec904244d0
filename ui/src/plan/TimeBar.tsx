import "../frame/bars.css";
import type { PlanSummary } from "../wire/contract";
import { clock } from "../player/format";

/** TimeBar is the running order against the slot as one bar. */
export function TimeBar({ summary }: { summary: PlanSummary }) {
  const whole = Math.max(summary.length_ms, summary.slot_ms, 1);
  const part = (ms: number) => `${(100 * ms) / whole}%`;
  return (
    <figure className="timebar" aria-label={`${clock(summary.length_ms)} planned. ${spare(summary)}`}>
      <div className="bar" aria-hidden>
        {summary.passages.map((p, i) => (
          <div
            key={i}
            className={`piece ${p.type} ${p.own_pace ? "own" : ""}`}
            style={{ left: part(p.start_ms), width: part(p.length_ms) }}
            title={`${p.name}, ${clock(p.length_ms)}`}
          >
            <span>{i + 1}</span>
          </div>
        ))}
        {summary.slot_ms > 0 && <div className="slot-end" style={{ left: part(summary.slot_ms) }} />}
      </div>
      <figcaption>
        <span>
          <strong>{clock(summary.length_ms)}</strong> planned
          {summary.slot_ms > 0 && <> of {clock(summary.slot_ms)}</>}
        </span>
        <span className={summary.slot_ms > 0 && summary.spare_ms < 0 ? "over" : ""}>{spare(summary)}</span>
      </figcaption>
    </figure>
  );
}

/** spare is told from the length as it is shown, so that the two add up to the slot. */
function spare(summary: PlanSummary): string {
  if (summary.slot_ms === 0) return "no slot set";
  const left = summary.slot_ms - Math.round(summary.length_ms / 1000) * 1000;
  return left < 0 ? `${clock(-left)} too long` : `${clock(left)} to spare`;
}
