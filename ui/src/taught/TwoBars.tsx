import "../frame/bars.css";
import type { Record } from "../wire/contract";
import { clock } from "../player/format";
import { t, text as say } from "../language/text";

/** TwoBars is the class as planned and as taught on one time axis, every adjustment marked at its moment. */
export function TwoBars({ record }: { record: Record }) {
  const whole = Math.max(record.planned_ms, record.taught_ms, 1);
  const part = (ms: number) => `${(100 * ms) / whole}%`;
  const kind = (p: { practice: string; own_pace: boolean }) =>
    p.practice === "" ? "free" : p.own_pace ? "practice own" : "practice";
  const minutes = Math.ceil(whole / 60_000);
  const every = minutes > 30 ? 10 : minutes > 8 ? 5 : 1;
  const ticks = Array.from({ length: Math.floor(whole / 60_000 / every) + 1 }, (_, i) => i * every);
  return (
    <figure
      className="twobars"
      aria-label={t("taught.planned-taught", {
        planned: clock(record.planned_ms),
        taught: clock(record.taught_ms),
      })}
    >
      <span className="name">{t("taught.planned")}</span>
      <div className="bar" aria-hidden>
        {record.passages.map((p, i) => (
          <div
            key={i}
            className={`piece ${kind(p)}`}
            style={{ left: part(p.planned_at_ms), width: part(p.planned_length_ms) }}
            title={`${p.name}, ${clock(p.planned_length_ms)}`}
          >
            <span>{i + 1}</span>
          </div>
        ))}
      </div>
      <span className="name">{t("taught.taught-2")}</span>
      <div className="bar">
        {record.passages.map(
          (p, i) =>
            p.length_ms > 0 && (
              <div
                key={i}
                className={`piece ${kind(p)}`}
                style={{ left: part(p.at_ms), width: part(p.length_ms) }}
                title={`${p.name}, ${clock(p.length_ms)}`}
                aria-hidden
              >
                <span>{i + 1}</span>
              </div>
            ),
        )}
        {record.curve
          .filter((round) => !round.kept)
          .map((round) => (
            <i
              key={round.at_ms}
              className="abandoned"
              style={{ left: part(round.at_ms), width: part(round.end_ms - round.at_ms) }}
              title={t("taught.a-round-was-abandoned", { at: clock(round.at_ms) })}
            />
          ))}
        {record.marks
          .filter((mark) => mark.kind === "change" || mark.kind === "remark")
          .map((mark) => {
            const text = `${clock(mark.answer.at_ms)} ${say(mark.answer.did)}`;
            return (
              <a
                key={mark.answer.number}
                className={`tick ${mark.answer.refused ? "refused" : ""}`}
                style={{ left: part(mark.answer.at_ms) }}
                href={`#mark-${mark.answer.number}`}
                title={text}
                aria-label={text}
              />
            );
          })}
      </div>
      <span className="name">{t("frame.min")}</span>
      <div className="axis" aria-hidden>
        {ticks.map((t) => (
          <span key={t} style={{ left: part(t * 60_000) }}>
            {t}
          </span>
        ))}
      </div>
    </figure>
  );
}
