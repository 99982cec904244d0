import { Bar, BarChart, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { number } from "../player/format";
import type { HeardPhase, Record } from "../wire/contract";
import { t } from "../language/text";

const axis = { fill: "currentColor", fontSize: 12 };

/** The bars of a round: as planned, as led, and as heard. */
const bars = [
  ["planned", "var(--bs-border-color)"],
  ["led", "var(--both)"],
  ["heard", "var(--accent)"],
] as const;

/** HeardRounds is what the microphone told of each round, beside what was planned and led, and marked as heard. */
export default function HeardRounds({ record }: { record: Record }) {
  const passages = [...new Set(record.heard.map((one) => one.passage))];
  return (
    <section className="heardrounds">
      <h2>{t("taught.heard-in-the-room")}</h2>
      <p className="text-secondary">{t("taught.heard-with-a-microphone")}</p>
      {passages.map((passage) => (
        <Rounds
          key={passage}
          name={record.passages[passage - 1]!.name}
          list={record.heard.filter((one) => one.passage === passage)}
        />
      ))}
    </section>
  );
}

function Rounds({ name, list }: { name: string; list: HeardPhase[] }) {
  const strokes = list[0]!.phase === "stroke";
  const names = { planned: t("taught.planned"), led: t("taught.as-led"), heard: t("taught.heard") };
  const data = list.map((one) => ({
    round: one.round,
    planned: strokes ? one.planned_rate : one.planned_ms / 1000,
    led: strokes ? one.led_rate : one.led_ms / 1000,
    heard: strokes ? one.heard_rate : one.heard_ms / 1000,
  }));
  const unit = strokes ? t("taught.strokes-a-minute") : t("taught.seconds-of-sound");
  const inWords = data
    .map((one) =>
      t("taught.heard-round", {
        round: one.round,
        heard: number(one.heard),
        led: number(one.led),
        planned: number(one.planned),
      }),
    )
    .join("; ");
  return (
    <div className="curve" role="img" aria-label={`${name}, ${unit}: ${inWords}`}>
      <p>
        <b>{name}</b>: {unit}
      </p>
      <ResponsiveContainer width="100%" height={170}>
        <BarChart data={data} margin={{ top: 6, right: 12, bottom: 0, left: 0 }}>
          <XAxis dataKey="round" tick={axis} stroke="currentColor" />
          <YAxis width={46} allowDecimals={false} tick={axis} stroke="currentColor" />
          <Tooltip
            labelFormatter={(round) => t("taught.round", { round: Number(round) })}
            formatter={(value) => number(Number(value))}
            contentStyle={{ background: "var(--surface)", borderColor: "var(--bs-border-color)" }}
          />
          <Legend
            itemSorter={null}
            formatter={(shown: string) => <span className="text-body">{shown}</span>}
          />
          {bars.map(([key, colour]) => (
            <Bar
              key={key}
              dataKey={key}
              name={names[key]}
              fill={colour}
              maxBarSize={28}
              isAnimationActive={false}
            />
          ))}
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}
