import "../frame/bars.css";
import type { PlanSummary } from "../wire/contract";
import { clock } from "../player/format";
import { rich, t } from "../language/text";

/** TimeBar is the running order against the slot as one bar. */
export function TimeBar({ summary }: { summary: PlanSummary }) {
  const whole = Math.max(summary.length_ms, summary.slot_ms, 1);
  const part = (ms: number) => `${(100 * ms) / whole}%`;
  return (
    <figure
      className="timebar"
      aria-label={t("plan.planned", { length: clock(summary.length_ms), summary: spare(summary) })}
    >
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
          {rich("plan.planned-2", { strong: <strong>{clock(summary.length_ms)}</strong> })}
          {summary.slot_ms > 0 && <> {t("plan.of-3", { slot: clock(summary.slot_ms) })}</>}
        </span>
        <span className={summary.slot_ms > 0 && summary.spare_ms < 0 ? "over" : ""}>{spare(summary)}</span>
      </figcaption>
    </figure>
  );
}

/** spare is told from the length as it is shown, so that the two add up to the slot. */
function spare(summary: PlanSummary): string {
  if (summary.slot_ms === 0) return t("plan.no-slot-set");
  const left = summary.slot_ms - Math.round(summary.length_ms / 1000) * 1000;
  return left < 0 ? t("plan.too-long", { left: clock(-left) }) : t("plan.to-spare", { left: clock(left) });
}
