import { clock } from "../player/format";
import type { RehearsalReview, ReviewPerson } from "../wire/contract";
import { rich, t, wordOf } from "../language/text";

const wide = 1000;
const left = 74;
const row = 30;
const gap = 4;
const top = 34;

/** StrainSheet draws everybody's strain on the time of the class: when something was to be seen, said and met. */
export function StrainSheet({ review }: { review: RehearsalReview }) {
  const { people, end_ms } = review;
  const span = Math.max(end_ms, 1);
  const x = (ms: number) => left + ((wide - left - 8) * Math.min(ms, span)) / span;
  const height = top + people.length * (row + gap) + 32;
  const said = review.said.filter((one) => one.there || one.known);
  return (
    <div className="strainsheet">
      <svg viewBox={`0 0 ${wide} ${height}`} role="img" aria-label={inWords(review)}>
        {review.passages.map((p, i) => (
          <g key={i}>
            <line className="passage" x1={x(p.at_ms)} x2={x(p.at_ms)} y1={top - 8} y2={height - 30} />
            <text x={x(p.at_ms) + 4} y={top - 20} className="name">
              {short(p.name, x(review.passages[i + 1]?.at_ms ?? span) - x(p.at_ms))}
            </text>
          </g>
        ))}
        {people.map((person, i) => (
          <Row
            key={i}
            person={person}
            number={i + 1}
            y={top + i * (row + gap)}
            x={x}
            visible={review.visible}
          />
        ))}
        {review.pressed.map((one, i) => (
          <g key={i} className="press">
            <title>
              {clock(one.at_ms)} {wordOf("verb", one.do)}
            </title>
            <line x1={x(one.at_ms)} x2={x(one.at_ms)} y1={top - 8} y2={height - 30} />
            <path d={`M${x(one.at_ms)} ${top - 2} l-5 -8 h10 z`} />
          </g>
        ))}
        {said.map((one, i) => (
          <g key={i} className={one.there ? "said" : "said wrong"}>
            <title>
              {t("rehearse.you-said-2", { at: clock(one.at_ms), value: wordOf("signal", one.id) })}
            </title>
            <rect x={x(one.at_ms) - 4} y={height - 30} width={8} height={8} />
          </g>
        ))}
        {Array.from({ length: 6 }, (_, i) => (
          <text
            key={i}
            x={x((span * i) / 5)}
            y={height - 4}
            className="time"
            textAnchor={i === 5 ? "end" : "middle"}
          >
            {clock((span * i) / 5)}
          </text>
        ))}
      </svg>
      <p className="legend">
        {rich("rehearse.strain-to-be-seen-not-met", {
          span: <span className="area" />,
          span2: <span className="shown" />,
          span3: <span className="open" />,
          span4: <span className="press">▼</span>,
          span5: <span className="box" />,
        })}
      </p>
    </div>
  );
}

type RowProps = {
  person: ReviewPerson;
  number: number;
  y: number;
  x: (ms: number) => number;
  visible: number;
};

function Row({ person, number, y, x, visible }: RowProps) {
  const base = y + row;
  const up = (strain: number) => base - row * Math.min(1, strain);
  const line = person.strain.map(
    (p, i) => `${i === 0 ? "M" : "L"}${x(p.at_ms).toFixed(1)} ${up(p.strain).toFixed(1)}`,
  );
  const first = person.strain[0];
  const last = person.strain.at(-1);
  return (
    <g className="person">
      <text x={left - 8} y={base - 4} textAnchor="end">
        {number}
        {person.latecomer ? t("rehearse.late") : person.blocked ? t("rehearse.nose") : ""}
      </text>
      <line className="base" x1={left} x2={wide - 8} y1={base} y2={base} />
      <line className="visible" x1={left} x2={wide - 8} y1={up(visible)} y2={up(visible)} />
      {first && last && (
        <path className="strain" d={`${line.join("")}L${x(last.at_ms)} ${base}L${x(first.at_ms)} ${base}Z`} />
      )}
      {person.shown.map((s, i) => (
        <g key={i} className={s.met_ms >= 0 && s.by !== "" ? "shown met" : "shown"}>
          <title>
            {clock(s.at_ms)} {wordOf("signal", s.id)}
            {s.named_ms >= 0 && t("rehearse.said-at", { named: clock(s.named_ms) })}
            {s.met_ms >= 0 &&
              (s.by === ""
                ? t("rehearse.over-at", { met: clock(s.met_ms) })
                : t("rehearse.met-at", { met: clock(s.met_ms) }))}
          </title>
          <circle cx={x(s.at_ms)} cy={y + 8} r={4.5} />
        </g>
      ))}
    </g>
  );
}

const letter = 7; // about, of a name

function short(name: string, room: number): string {
  const most = Math.max(1, Math.floor(room / letter));
  return name.length <= most ? name : `${name.slice(0, Math.max(1, most - 1))}…`;
}

function inWords(review: RehearsalReview): string {
  const strained = review.people.filter((p) => p.highest >= review.visible).length;
  return t("rehearse.the-strain-of-people-over-came", {
    people: review.people.length,
    end: clock(review.end_ms),
    strained,
  });
}
