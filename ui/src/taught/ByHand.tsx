import { Button } from "react-bootstrap";
import { Bar, BarChart, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { useBegin } from "../frame/editing/useBegin";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { number } from "../player/format";
import type { LedBreath, Record, RecordPassage } from "../wire/contract";
import { t, wordOf } from "../language/text";

const axis = { fill: "currentColor", fontSize: 12 };

/** The phases of a breath as they are drawn, the inhale at the bottom. */
const phases = [
  ["inhale_ms", "inhale", "var(--accent)"],
  ["hold_ms", "hold", "var(--bs-border-color)"],
  ["exhale_ms", "exhale", "var(--both)"],
  ["empty_ms", "empty", "var(--bs-secondary-color)"],
] as const;

/** ByHand is what was led by the teacher's own breath: how long each phase lasted, and a plan that follows it. */
export default function ByHand({ record }: { record: Record }) {
  const begin = useBegin();
  const led = record.passages.filter((p) => p.breaths.length > 0);
  return (
    <section className="byhands">
      <h2>{t("taught.by-your-own-breath")}</h2>
      {begin.isError && <ErrorAlert error={begin.error} />}
      {led.map((p, i) => (
        <div key={i} className="curve">
          <p>
            <b>{p.name}</b>: {breathed(p)}
          </p>
          <Breaths breaths={p.breaths} />
        </div>
      ))}
      {!record.class.running && led.some((p) => p.hand_tempo > 0) && (
        <Button
          variant="outline-primary"
          disabled={begin.isPending}
          onClick={() => begin.mutate({ class_id: record.class.id, how: "taught", group_id: 0 })}
        >
          {t("taught.plan-it-at-the-tempo")}
        </Button>
      )}
    </section>
  );
}

/** breathed is the breath by hand in a sentence: how long its phases were, and which counts and tempo that is. */
function breathed(p: RecordPassage): string {
  const lengths = p.mean_breath_ms.filter((ms) => ms > 0).map((ms) => number(ms / 1000));
  const counts =
    p.hand_tempo > 0
      ? t("taught.as-counts", { countsEnd: p.counts_end || p.counts, handTempo: p.hand_tempo })
      : "";
  return t("taught.you-breathed-s", { value: lengths.join(" : "), breaths: p.breaths.length, counts });
}

/** Breaths draws each breath as a bar of its phases, in seconds. */
function Breaths({ breaths }: { breaths: LedBreath[] }) {
  const data = breaths.map((b, i) => ({ ...b, number: i + 1 }));
  const there = phases.filter(([key]) => breaths.some((b) => b[key] > 0));
  return (
    <div role="img" aria-label={inWords(breaths)}>
      <ResponsiveContainer width="100%" height={170}>
        <BarChart data={data} margin={{ top: 6, right: 12, bottom: 0, left: 0 }}>
          <XAxis dataKey="number" tick={axis} stroke="currentColor" />
          <YAxis
            width={46}
            allowDecimals={false}
            tickFormatter={(ms: number) => String(Math.round(ms / 1000))}
            tick={axis}
            stroke="currentColor"
            unit=" s"
          />
          <Tooltip
            labelFormatter={(n) =>
              t("taught.breath-round", { n: Number(n), round: breaths[Number(n) - 1]?.round ?? "" })
            }
            formatter={(ms) => `${number(Number(ms) / 1000)} s`}
            contentStyle={{ background: "var(--surface)", borderColor: "var(--bs-border-color)" }}
          />
          <Legend formatter={(name: string) => <span className="text-body">{name}</span>} />
          {there.map(([key, name, colour]) => (
            <Bar
              key={key}
              dataKey={key}
              name={wordOf("phase", name)}
              stackId="breath"
              fill={colour}
              isAnimationActive={false}
            />
          ))}
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}

function inWords(breaths: LedBreath[]): string {
  const lengths = breaths.map((b) => b.inhale_ms + b.hold_ms + b.exhale_ms + b.empty_ms);
  const seconds = (ms: number) => number(ms / 1000);
  return t("taught.by-hand-the-shortest-s", {
    breaths: breaths.length,
    value: seconds(Math.min(...lengths)),
    value2: seconds(Math.max(...lengths)),
  });
}
