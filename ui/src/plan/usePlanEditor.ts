import { useEffect, useState } from "react";
import type { Change, Drafted, Plan } from "../wire/contract";
import type { PlanDoc } from "../wire/plan";
import { add, begin, redo, undo } from "./history";
import { carryAll } from "./identity";
import { useDrafting } from "./useDrafting";
import { useSaving } from "./useSaving";
import type { Version } from "./version";
import { failureText, text } from "../language/text";

/** usePlanEditor holds a plan while it is edited: its versions, their numbers, and that it is saved. */
export function usePlanEditor(plan: Plan) {
  const { found, saving, keep, save, overwrite } = useSaving(plan);
  const { summary, failed, ask: draft, follow } = useDrafting(plan.summary);
  const [history, setHistory] = useState(() =>
    begin<Version>(found?.version ?? { document: plan.document as PlanDoc, group: plan.group?.id ?? 0 }),
  );
  const [message, setMessage] = useState(""); // what became of the last change that the application made
  const version = history.present;

  useEffect(() => {
    if (found) follow(found.version); // its numbers were never asked for
  }, [found, follow]);

  const show = (next: typeof history) => {
    setHistory(next);
    keep(next.present);
    follow(next.present);
  };

  const change = (next: Partial<Version>) => {
    setMessage("");
    show(add(history, { ...version, ...next }));
  };

  /** ask has the application make one change. It returns why not, nothing where it was made, null where it was overtaken. */
  const ask = async (change: Change): Promise<string | null> => {
    let answer: Drafted | null;
    try {
      answer = await draft(version, change);
    } catch (error) {
      return failureText(error);
    }
    if (!answer) return null;
    setMessage(text(answer.problem ?? answer.changed));
    if (answer.problem) return text(answer.problem);
    const document = answer.document as PlanDoc;
    carryAll(version.document.passages, document.passages);
    const next = { ...version, document };
    setHistory(add(history, next));
    keep(next);
    return "";
  };

  return {
    ...version,
    summary,
    saving,
    failed,
    message,
    change,
    ask,
    undo: history.past.length > 0 ? () => show(undo(history)) : undefined,
    redo: history.future.length > 0 ? () => show(redo(history)) : undefined,
    save,
    overwrite,
  };
}

export type Editor = ReturnType<typeof usePlanEditor>;
