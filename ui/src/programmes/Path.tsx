import { shortDay } from "../player/format";
import type { ProgrammeSheet } from "../wire/contract";
import { classStates } from "../frame/editing/classStates";
import { t } from "../language/text";

const column = 44;
const row = 26;
const letter = 7; // about, of a label
const top = 12;
const bottom = 34;
const most = 60; // classes that are drawn: the latest

/** Path draws a programme: each class a lamp at its step, what was planned from the first on as a line behind it. */
export function Path({ sheet }: { sheet: ProgrammeSheet }) {
  const { programme, planned, card } = sheet;
  const first = Math.max(0, sheet.classes.length - most);
  const classes = sheet.classes.slice(first);
  const steps = programme.steps;
  const labels = 20 + letter * Math.max(...steps.map((step, i) => `${i + 1}. ${short(step.says)}`.length));
  const x = (i: number) => (i + 0.5) * column;
  const y = (step: number) => top + (steps.length - step + 0.5) * row;
  const width = classes.length * column + 8;
  const height = top + steps.length * row + bottom;
  const next = classes.findIndex((c) => c.state === "coming");
  const line = planned
    .slice(first, first + classes.length)
    .map((step, i) => `${i === 0 ? "M" : "L"}${x(i)} ${y(step)}`)
    .join(" ");
  return (
    <div className="path">
      {/* where it is wider than the screen, what comes is seen first, and the steps stay beside it */}
      <svg className="labels" width={labels} height={height} aria-hidden>
        {steps.map((step, i) => (
          <text
            key={i}
            x={labels - 8}
            y={y(i + 1) + 4}
            textAnchor="end"
            className={i + 1 === card.step ? "here" : ""}
          >
            {i + 1}. {short(step.says)}
          </text>
        ))}
      </svg>
      <div
        className="drawn"
        ref={(drawn) => {
          if (drawn) drawn.scrollLeft = x(next >= 0 ? next : classes.length) - drawn.clientWidth / 2;
        }}
      >
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={t("programmes.step-of-the-table-below-has", {
            name: card.name,
            step: card.step,
            steps: card.steps,
          })}
        >
          {steps.map((_, i) => (
            <g key={i}>
              <line x1={0} x2={width - 8} y1={y(i + 1)} y2={y(i + 1)} className="rung" />
            </g>
          ))}
          {next > 0 && (
            <line
              x1={x(next) - column / 2}
              x2={x(next) - column / 2}
              y1={top}
              y2={height - bottom}
              className="now"
            />
          )}
          <path d={line} className="planned" />
          {classes.map((c, i) => (
            <g key={`${c.plan_id} ${c.class_id}`} className={`class ${c.state.replace(" ", "")}`}>
              <title>
                {t("programmes.class-step", {
                  number: c.number,
                  starts: shortDay(c.starts_ms),
                  step: c.step,
                  says: c.says,
                  states: classStates()[c.state],
                })}
              </title>
              {c.state === "missed" ? (
                <path d={`M${x(i) - 5} ${y(c.step) - 5}l10 10m0 -10l-10 10`} />
              ) : (
                <circle cx={x(i)} cy={y(c.step)} r={8} />
              )}
              {(i % 2 === 0 || classes.length < 12) && (
                <text x={x(i)} y={height - 12} textAnchor="middle">
                  {shortDay(c.starts_ms)}
                </text>
              )}
            </g>
          ))}
        </svg>
      </div>
      <ul className="legend">
        {(["planned", "eased", "missed", "coming"] as const).map((state) => (
          <li key={state}>
            <svg width="18" height="18" aria-hidden className="class-mark">
              <g className={`class ${state}`}>
                {state === "missed" ? <path d="M4 4l10 10m0 -10l-10 10" /> : <circle cx="9" cy="9" r="7" />}
              </g>
            </svg>
            {classStates()[state]}
          </li>
        ))}
        <li>
          <svg width="22" height="18" aria-hidden>
            <path d="M1 9h20" className="planned" />
          </svg>
          {t("programmes.if-all-had-been-led")}
        </li>
      </ul>
    </div>
  );
}

function short(says: string): string {
  return says.length > 16 ? `${says.slice(0, 15)}…` : says;
}
