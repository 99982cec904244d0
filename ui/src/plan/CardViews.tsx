import "./plan.css";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { get } from "../wire/api";
import type { Book, PassageSummary, Plan } from "../wire/contract";
import { ErrorAlert } from "../frame/ErrorAlert";
import { Loading } from "../frame/Loading";
import { clock, day, number, plural, timeOfDay } from "../player/format";
import { text } from "../frame/fields";
import { Paper } from "../frame/Paper";
import type { PassageDoc, PlanDoc } from "../wire/plan";
import "../frame/paper.css";

function usePlan() {
  const id = Number(useParams().id);
  const plan = useQuery({ queryKey: ["paper", id], queryFn: () => get<Plan>(`/plans/${id}`), gcTime: 0 });
  return { id, plan };
}

/** RunningCardView is the class on one page, to be led from without any device. */
export function RunningCardView() {
  const { id, plan } = usePlan();
  if (!plan.data)
    return plan.error ? <ErrorAlert error={plan.error} /> : <Loading what="Preparing the card" />;
  const { summary, group } = plan.data;
  const doc = plan.data.document as PlanDoc;
  const when = (ms: number) => (summary.starts_ms === null ? clock(ms) : timeOfDay(summary.starts_ms + ms));
  return (
    <Paper back={`/plan/${id}`}>
      <header>
        <h1>{summary.title || "Class"}</h1>
        <p>
          {[
            group?.name,
            summary.starts_ms !== null && `${day(summary.starts_ms)}, ${timeOfDay(summary.starts_ms)}`,
            `${clock(summary.length_ms)}${summary.slot_ms > 0 ? ` of ${clock(summary.slot_ms)}` : ""}`,
          ]
            .filter(Boolean)
            .join(" · ")}
        </p>
      </header>
      <div className="lines">
        {summary.passages.map((p, i) => (
          <div className="line" key={i}>
            <span className="time">{when(p.start_ms)}</span>
            <div>
              <strong>{p.name}</strong> <span className="what">{lengthInWords(p)}</span>
              {said(doc.passages[i] ?? {}, p).map((line) => (
                <p key={line}>{line}</p>
              ))}
              {p.beside !== "" && <p>beside it, in the same time: {p.beside}</p>}
              {p.findings.map((f) => (
                <p key={f.say} className="mind">
                  {f.do}: {f.say}
                </p>
              ))}
            </div>
          </div>
        ))}
        <div className="line">
          <span className="time">{when(summary.length_ms)}</span>
          <strong>end</strong>
        </div>
      </div>
      <Cautions passages={summary.passages} />
    </Paper>
  );
}

/** lengthInWords is counts, rounds and tempo as they are led, with the seconds of a round to count by. */
function lengthInWords(p: PassageSummary): string {
  if (p.practice === "") return clock(p.length_ms);
  if (p.own_pace) return `${p.counts}, own pace, ${clock(p.length_ms)}`;
  return [
    p.counts + (p.true_ratio !== "" && p.true_ratio !== p.counts ? ` (really ${p.true_ratio})` : ""),
    `${plural(p.rounds, "round")} of ${number(p.round_ms / 1000)} s`,
    p.count_ms > 0 && `a count ${number(p.count_ms / 1000)} s`,
    clock(p.length_ms),
  ]
    .filter(Boolean)
    .join(", ");
}

/** said is what is said in a passage: its script, its own words by their place, its opening and its closing. */
function said(doc: PassageDoc, p: PassageSummary): string[] {
  const lines = [p.says.join(", "), text(doc.script)];
  if (p.opening.length > 0) lines.push(`opening: ${p.opening.join(", ")}`);
  lines.push(...p.own_words.split("\n"));
  if (p.closing.length > 0) lines.push(`closing: ${p.closing.join(", ")}`);
  return lines.filter((line) => line.trim() !== "");
}

function Cautions({ passages }: { passages: PassageSummary[] }) {
  const all = [...new Set(passages.flatMap((p) => p.cautions).map((c) => c.text))];
  if (all.length === 0) return null;
  return (
    <footer>
      {all.map((caution) => (
        <p key={caution}>{caution}</p>
      ))}
    </footer>
  );
}

/** HomeCardView is what participants take home: how it goes, how much, and when to stop. It promises nothing. */
export function HomeCardView() {
  const { id, plan } = usePlan();
  const book = useQuery({ queryKey: ["practices", 0], queryFn: () => get<Book>("/practices") });
  const error = plan.error ?? book.error;
  if (!plan.data || !book.data)
    return error ? <ErrorAlert error={error} /> : <Loading what="Preparing the card" />;
  const practices = plan.data.summary.passages.filter((p) => p.practice !== "");
  const once = practices.filter((p, i) => practices.findIndex((q) => q.practice === p.practice) === i);
  return (
    <Paper back={`/plan/${id}`}>
      <header>
        <h1>To do at home</h1>
        <p>from {plan.data.summary.title || "the class"}</p>
      </header>
      <div className="lines">
        {once.map((p) => {
          const entry = book.data.practices.find((b) => b.id === p.practice);
          return (
            <section key={p.practice}>
              <h2>{p.name}</h2>
              <p className="what">{homeInWords(p)}</p>
              {p.beside !== "" && <p>The gentler way, as good as the other: {p.beside}.</p>}
              <ol>
                {(entry?.how ?? []).map((step) => (
                  <li key={step}>{step}</li>
                ))}
              </ol>
              {p.cautions
                .filter((c) => c.strong)
                .map((c) => (
                  <p key={c.text} className="mind">
                    {c.text}
                  </p>
                ))}
            </section>
          );
        })}
      </div>
      {once.length === 0 && <p>There is no practice in this plan yet.</p>}
      <footer>
        <h2>When to stop</h2>
        <p>{book.data.general}</p>
      </footer>
    </Paper>
  );
}

function homeInWords(p: PassageSummary): string {
  const counts = p.counts === "" ? "" : `${p.counts}, `;
  const long = Math.max(1, Math.round(p.length_ms / 60_000));
  const amount = p.own_pace ? "at your own pace" : plural(p.rounds, "round");
  return `${counts}${amount}, about ${plural(long, "minute")}`;
}
