import { lastTimeQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type {} from "../wire/contract";
import { day } from "../player/format";
import { beside, unchanged } from "./compare";
import type { Editor } from "./usePlanEditor";
import { t } from "../language/text";

/** LastTime is what the group was taught last, passage by passage beside what is planned, with what changed since. */
export function LastTime({ editor }: { editor: Editor }) {
  const last = useQuery({ ...lastTimeQuery(editor.group), enabled: editor.group !== 0 });
  if (!last.data || last.data.class_id === 0 || editor.group === 0) return null;
  const rows = beside(last.data.passages, editor.summary.passages);
  const changes = rows.filter((row) => !unchanged(row)).length;
  return (
    <details className="lasttime" open>
      <summary>
        {t("plan.last-time", {
          started: day(last.data.started_ms),
          changes,
        })}
      </summary>
      <ol>
        {rows.map((row, i) => {
          const name = (row.then ?? row.now)!.name;
          if (unchanged(row))
            return (
              <li key={i}>
                {name} <span>{row.then!.short}</span>
              </li>
            );
          if (!row.now)
            return (
              <li key={i} className="gone">
                {name} <span>{row.then!.short}</span> <em>{t("plan.not-planned")}</em>
              </li>
            );
          if (!row.then)
            return (
              <li key={i} className="new">
                {name} <span>{row.now.short}</span> <em>{t("plan.new")}</em>
              </li>
            );
          return (
            <li key={i} className="changed">
              {name} <span>{[row.then.short, ...row.then.says].join(", ")}</span>{" "}
              <em>{t("plan.now", { value: [row.now.short, ...row.now.says].join(", ") })}</em>
            </li>
          );
        })}
      </ol>
      <Link to={`/taught/${last.data.class_id}`}>{t("frame.the-whole-record")}</Link>
    </details>
  );
}
