import { Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import type { PracticeCourse } from "../wire/contract";
import { day, shortDay } from "../player/format";
import { type Metric, metrics } from "./metrics";
import { t } from "../language/text";

type At = { started_ms: number; value: number; eased: boolean; counts: string };
type DotProps = { cx?: number; cy?: number; payload?: At };

/** Plot is one figure of a practice over the weeks; where the room was eased, the dot is hollow. */
export default function Plot({ course, metric }: { course: PracticeCourse; metric: Metric }) {
  const { name, of } = metrics.find((m) => m.id === metric)!;
  const data: At[] = course.points.map((p) => ({
    started_ms: p.started_ms,
    value: of(p),
    eased: p.eased,
    counts: p.counts,
  }));
  const said = data
    .map((p) => `${day(p.started_ms)} ${p.value}${p.eased ? t("groups.eased") : ""}`)
    .join("; ");
  return (
    <div className="plot" role="img" aria-label={t("groups.of", { name: t(name), name2: course.name, said })}>
      <ResponsiveContainer width="100%" height={110}>
        <LineChart data={data} margin={{ top: 8, right: 12, bottom: 0, left: 0 }}>
          <XAxis
            dataKey="started_ms"
            type="number"
            scale="time"
            domain={["dataMin", "dataMax"]}
            tickFormatter={shortDay}
            tick={{ fill: "currentColor", fontSize: 12 }}
            stroke="currentColor"
          />
          <YAxis
            width={34}
            domain={[0, "auto"]}
            allowDecimals={false}
            tick={{ fill: "currentColor", fontSize: 12 }}
            stroke="currentColor"
          />
          <Tooltip
            labelFormatter={(ms) => day(Number(ms))}
            formatter={(value, _, item) => [`${String(value)} (${(item.payload as At).counts})`, name]}
            contentStyle={{ background: "var(--surface)", borderColor: "var(--bs-border-color)" }}
          />
          <Line
            dataKey="value"
            stroke="var(--accent)"
            strokeWidth={2}
            isAnimationActive={false}
            dot={({ cx, cy, payload }: DotProps) => (
              <circle
                key={payload?.started_ms}
                cx={cx}
                cy={cy}
                r={4.5}
                stroke="var(--accent)"
                strokeWidth={2}
                fill={payload?.eased ? "var(--bs-body-bg)" : "var(--accent)"}
              />
            )}
          />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
