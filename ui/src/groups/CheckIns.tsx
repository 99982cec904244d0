import { Link } from "react-router";
import type { CheckInPoint, CheckInSum } from "../wire/contract";
import { answerText, questionText } from "../player/checkIn";
import { type Say, useSay } from "../player/say";
import { day, number, shortDay } from "../player/format";
import { t } from "../language/text";

/** CheckIns is what the room answered before and after its classes over the weeks, beside what was breathed. */
export function CheckIns({ points }: { points: CheckInPoint[] }) {
  if (points.length === 0) return null;
  return (
    <section className="checkins" aria-labelledby="checkins">
      <h3 id="checkins">{t("frame.before-and-after")}</h3>
      {(["calm", "side"] as const).map((question) => {
        const asked = points.filter((p) => p.question === question);
        return asked.length > 0 && <Question key={question} question={question} points={asked} />;
      })}
      <p className="text-secondary">{t("groups.sums-of-what-people-answered")}</p>
    </section>
  );
}

type QuestionProps = { question: CheckInPoint["question"]; points: CheckInPoint[] };

function Question({ question, points }: QuestionProps) {
  const say = useSay();
  return (
    <>
      <p className="mb-1">{questionText(question, say)}</p>
      {question === "calm" && <Calm points={points} />}
      <div className="table-responsive">
        <table className="table table-sm">
          <thead>
            <tr>
              <th scope="col">{t("frame.class")}</th>
              <th scope="col">{t("groups.before")}</th>
              <th scope="col">{t("groups.after")}</th>
              <th scope="col">{t("groups.breathed")}</th>
            </tr>
          </thead>
          <tbody>
            {points.toReversed().map((p) => (
              <tr key={p.class_id}>
                <td>
                  <Link to={`/taught/${p.class_id}`}>{shortDay(p.started_ms)}</Link>
                </td>
                <td>{said(p.before, p.people.before, p.mean_before, say)}</td>
                <td>{said(p.after, p.people.after, p.mean_after, say)}</td>
                <td>{p.breathed.join(", ")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

/** said is an answer of a room in words: "3.4 (9 answers)", or "left 3, both 2, right 4 (9 answers)". */
function said(sums: CheckInSum[], people: number, mean: number, say: Say): string {
  const answers = t("groups.answers", { people });
  if (sums.length === 0) return people === 0 ? t("groups.no-answers") : t("groups.too-few", { answers });
  if (mean > 0) return `${number(mean)} (${answers})`;
  const list = sums.map((s) => `${answerText(s.answer, say)} ${s.people}`).join(", ");
  return `${list} (${answers})`;
}

const column = 56;
const height = 150;
const top = 12;
const bottom = 40;
const least = 1;
const most = 5;
const shown = 24; // classes: the latest

/** Calm draws each class as an arrow from the mean before to the mean after, with the number of answers below. */
function Calm({ points }: { points: CheckInPoint[] }) {
  const say = useSay();
  const list = points.slice(-shown);
  const x = (i: number) => 36 + (i + 0.5) * column;
  const y = (mean: number) => top + ((most - mean) / (most - least)) * (height - top - bottom);
  const width = 36 + list.length * column;
  const says = list
    .map((p) =>
      t("groups.before-after", {
        started: day(p.started_ms),
        meanBefore: number(p.mean_before),
        meanAfter: number(p.mean_after),
      }),
    )
    .join("; ");
  return (
    <div className="calm">
      <svg width={width} height={height} role="img" aria-label={t("groups.how-calm-on-average", { says })}>
        {[1, 2, 3, 4, 5].map((n) => (
          <g key={n}>
            <line x1={30} x2={width} y1={y(n)} y2={y(n)} className="rung" />
            <text x={22} y={y(n) + 4} textAnchor="end">
              {n}
            </text>
          </g>
        ))}
        {list.map((p, i) => (
          <g key={p.class_id}>
            <title>
              {t("groups.before-after-2", {
                started: day(p.started_ms),
                before: said(p.before, p.people.before, p.mean_before, say),
                after: said(p.after, p.people.after, p.mean_after, say),
                value: p.breathed.join(", "),
              })}
            </title>
            {p.mean_before > 0 && p.mean_after > 0 && (
              <line x1={x(i) - 8} x2={x(i) + 8} y1={y(p.mean_before)} y2={y(p.mean_after)} className="went" />
            )}
            {p.mean_before > 0 && <circle cx={x(i) - 8} cy={y(p.mean_before)} r={5} className="before" />}
            {p.mean_after > 0 && <circle cx={x(i) + 8} cy={y(p.mean_after)} r={5} className="after" />}
            <text x={x(i)} y={height - 20} textAnchor="middle">
              {shortDay(p.started_ms)}
            </text>
            <text x={x(i)} y={height - 5} textAnchor="middle" className="people">
              {p.people.before} → {p.people.after}
            </text>
          </g>
        ))}
      </svg>
      <p className="small text-secondary mb-2">{t("groups.hollow-before-filled-after-below-how")}</p>
    </div>
  );
}
