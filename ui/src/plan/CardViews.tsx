import { TranslatedCautions } from "../frame/care/care";
import { printedPlanQuery } from "./queries";
import "./plan.css";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import type { PassageSummary } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { clock, day, number, timeOfDay } from "../player/format";
import { text } from "../frame/editing/fields";
import { lineText } from "../language/ownLine";
import { Paper } from "../frame/paper/Paper";
import type { PassageDoc, PlanDoc } from "../wire/plan";
import "../frame/paper/paper.css";
import { t, text as say, wordOf } from "../language/text";

function usePlan() {
  const id = Number(useParams().id);
  const plan = useQuery(printedPlanQuery(id));
  return { id, plan };
}

/** RunningCardView is the class on one page, to be led from without any device. */
export function RunningCardView() {
  const { id, plan } = usePlan();
  if (!plan.data)
    return plan.error ? <ErrorAlert error={plan.error} /> : <Loading what={t("frame.preparing-the-card")} />;
  const { summary, group } = plan.data;
  const doc = plan.data.document as PlanDoc;
  const when = (ms: number) => (summary.starts_ms === null ? clock(ms) : timeOfDay(summary.starts_ms + ms));
  return (
    <Paper back={`/plan/${id}`}>
      <header>
        <h1>{summary.title || t("frame.class")}</h1>
        <p>
          {[
            group?.name,
            summary.starts_ms !== null && `${day(summary.starts_ms)}, ${timeOfDay(summary.starts_ms)}`,
            `${clock(summary.length_ms)} ${summary.slot_ms > 0 ? t("frame.of", { slot: clock(summary.slot_ms) }) : ""}`,
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
              {p.beside && <p>{t("plan.gentler-lane-in-the-same-time", { beside: say(p.beside) })}</p>}
              {p.findings.map((f) => (
                <p key={say(f.say)} className="mind">
                  {say({ id: "labelled.text", args: { label: wordOf("do", f.do), text: say(f.say) } })}
                </p>
              ))}
            </div>
          </div>
        ))}
        <div className="line">
          <span className="time">{when(summary.length_ms)}</span>
          <strong>{t("plan.end")}</strong>
        </div>
      </div>
      <Cautions passages={summary.passages} />
    </Paper>
  );
}

/** lengthInWords is counts, rounds and tempo as they are led, with the seconds of a round to count by. */
function lengthInWords(p: PassageSummary): string {
  if (p.practice === "") return clock(p.length_ms);
  if (p.own_pace) return t("plan.own-pace", { counts: p.counts, length: clock(p.length_ms) });
  return [
    p.counts +
      (p.true_ratio !== "" && p.true_ratio !== p.counts ? t("plan.really", { trueRatio: p.true_ratio }) : ""),
    t("plan.of-s", { rounds: p.rounds, round: number(p.round_ms / 1000) }),
    p.count_ms > 0 && t("plan.a-count-s", { count: number(p.count_ms / 1000) }),
    clock(p.length_ms),
  ]
    .filter(Boolean)
    .join(", ");
}

/** said is what is said in a passage: its script, its own words by their place, its opening and its closing. */
function said(doc: PassageDoc, p: PassageSummary): string[] {
  const lines = [p.says.join(", "), text(doc.script)];
  if (p.opening.length > 0) lines.push(t("plan.said-before", { steps: p.opening.map(say).join(", ") }));
  lines.push(...p.lines.map(lineText));
  if (p.closing.length > 0) lines.push(t("plan.said-after", { steps: p.closing.map(say).join(", ") }));
  return lines.filter((line) => line.trim() !== "");
}

function Cautions({ passages }: { passages: PassageSummary[] }) {
  const all = [...new Set(passages.flatMap((p) => p.cautions).map((c) => say(c.say)))];
  if (all.length === 0) return null;
  return (
    <footer>
      {all.map((caution) => (
        <p key={caution}>{caution}</p>
      ))}
      <TranslatedCautions />
    </footer>
  );
}
