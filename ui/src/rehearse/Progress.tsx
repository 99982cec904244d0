import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { number, shortDay } from "../player/format";
import type { Rehearsal } from "../wire/contract";
import { t } from "../language/text";

const axis = { fill: "currentColor", fontSize: 12 };
const most = 40; // the latest that are drawn

/** Progress is how rehearsals went, one after the other: what of it was seen, and how long it took until something was done. */
export default function Progress({ list }: { list: Rehearsal[] }) {
  const data = list
    .slice(0, most)
    .reverse()
    .map((one, i) => {
      const { to_see, missed, needless, to_act_ms } = one.digest!;
      return {
        number: i + 1,
        name: `${shortDay(one.started_ms)}: ${one.title}`,
        seen: to_see > 0 ? Math.round((100 * (to_see - missed)) / to_see) : null,
        act: to_act_ms >= 0 ? Math.round(to_act_ms / 1000) : null,
        needless,
      };
    });
  const chart = (key: "seen" | "act" | "needless", name: string, domain: [number, number | "auto"]) => (
    <div
      className="curve"
      role="img"
      aria-label={`${name}: ${data.map((one) => (one[key] === null ? t("frame.none") : number(one[key]))).join("; ")}`}
    >
      <p>{name}</p>
      <ResponsiveContainer width="100%" height={92}>
        <LineChart data={data} margin={{ top: 6, right: 12, bottom: 0, left: 0 }}>
          <CartesianGrid vertical={false} stroke="var(--bs-border-color)" />
          <XAxis dataKey="number" tick={axis} stroke="currentColor" allowDecimals={false} />
          <YAxis width={34} domain={domain} allowDecimals={false} tick={axis} stroke="currentColor" />
          <Tooltip
            labelFormatter={(at) => data[Number(at) - 1]?.name ?? ""}
            contentStyle={{ background: "var(--surface)", borderColor: "var(--bs-border-color)" }}
          />
          <Line
            dataKey={key}
            name={name}
            stroke="var(--accent)"
            strokeWidth={2}
            connectNulls
            dot={{ r: 3 }}
            isAnimationActive={false}
          />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
  return (
    <div className="progressplot">
      {chart("seen", t("rehearse.signs-noticed-or-answered"), [0, 100])}
      {chart("act", t("rehearse.seconds-from-a-sign"), [0, "auto"])}
      {chart("needless", t("rehearse.eased-without-need"), [0, "auto"])}
    </div>
  );
}
