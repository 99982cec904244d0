import { Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import type { CurvePoint, Record } from "../wire/contract";
import { clock } from "../player/format";
import { t } from "../language/text";

const axis = { fill: "currentColor", fontSize: 12 };

/** Curves is tempo and counts of the rounds that were kept and counted, on the time of the class. */
export default function Curves({ record }: { record: Record }) {
  // What was led by hand has no tempo, and is told breath by breath (ByHand).
  const kept = record.curve.filter((point) => point.kept && point.tempo > 0);
  // Between two passages the line is broken: what is between was not counted.
  const data = kept.flatMap((point, i) => {
    const before = kept[i - 1];
    return before && before.passage !== point.passage
      ? [{ ...point, at_ms: point.at_ms - 1, tempo: null, counts: null }, point]
      : [point];
  });
  const chart = (key: "tempo" | "counts", name: string) => (
    <div className="curve" role="img" aria-label={`${name}: ${inWords(kept, key)}`}>
      <p>{name}</p>
      <ResponsiveContainer width="100%" height={120}>
        <LineChart data={data} margin={{ top: 6, right: 12, bottom: 0, left: 0 }}>
          <XAxis
            dataKey="at_ms"
            type="number"
            domain={[0, record.taught_ms]}
            tickFormatter={clock}
            tick={axis}
            stroke="currentColor"
          />
          <YAxis
            width={34}
            domain={["auto", "auto"]}
            allowDecimals={false}
            tick={axis}
            stroke="currentColor"
          />
          <Tooltip
            labelFormatter={(ms) => clock(Number(ms))}
            contentStyle={{ background: "var(--surface)", borderColor: "var(--bs-border-color)" }}
          />
          <Line
            dataKey={key}
            name={name}
            type="stepAfter"
            stroke="var(--accent)"
            strokeWidth={2}
            dot={{ r: 2.5 }}
            isAnimationActive={false}
          />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
  return (
    <div className="curves">
      {chart("tempo", t("taught.tempo-counts-or-strokes-a-minute"))}
      {chart("counts", t("taught.counts-of-a-breath-or-strokes"))}
    </div>
  );
}

function inWords(rounds: CurvePoint[], key: "tempo" | "counts"): string {
  return rounds.map((p) => `${clock(p.at_ms)} ${p[key]}`).join("; ");
}
