import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { post } from "../wire/api";
import type { PassageSummary, PracticeFile } from "../wire/contract";
import type { PassageDoc } from "../wire/plan";
import { failureText, t } from "../language/text";
import { checkWords } from "../language/typed";

type Props = { doc: PassageDoc; summary: PassageSummary; onChange: (doc: PassageDoc) => void };

/**
 * Checked says of a passage that was typed what was kept as a remark, and what somebody should look at. F8 goes from one to the
 * next.
 */
export function Checked({ doc, summary, onChange }: Props) {
  const queries = useQueryClient();
  const make = useMutation({
    mutationFn: () => post<PracticeFile>("/practices/copy", { id: "counted-breath", name: summary.name }),
    onSuccess: (file) => {
      void queries.invalidateQueries({ queryKey: ["practices"] });
      onChange(asPractice(doc, (file.document as { id: string }).id));
    },
  });
  if (summary.remark === "" && summary.check === "none") return null;
  const settled = () => {
    const next = { ...doc };
    delete next.check;
    onChange(next);
  };
  return (
    <div className="checked" data-check={summary.check}>
      {summary.remark !== "" && <span>{t("plan.remark", { remark: summary.remark })}</span>}
      {summary.check !== "none" && (
        <>
          <span className="attention">{checkWords()[summary.check]}</span>
          {summary.check === "name" && summary.type === "free" && (
            <Button
              size="sm"
              variant="outline-primary"
              disabled={make.isPending}
              onClick={() => make.mutate()}
            >
              {t("plan.make-it-a-practice")}
            </Button>
          )}
          <Button size="sm" variant="outline-secondary" onClick={settled}>
            {t("plan.it-is-right")}
          </Button>
          {make.isError && <span className="text-danger">{failureText(make.error)}</span>}
        </>
      )}
    </div>
  );
}

/** asPractice is a stretch as a practice of the teacher's own: everyone at their own pace for as long as before. */
export function asPractice(doc: PassageDoc, practice: string): PassageDoc {
  const { title, remark, script, lines, keep, breaths, seconds } = doc;
  const kept = Object.fromEntries(
    Object.entries({ title, remark, script, lines, keep }).filter(([, value]) => value !== undefined),
  );
  const length =
    typeof breaths === "number"
      ? { rounds: breaths }
      : { pace: "own", minutes: Math.max(1, Math.round((Number(seconds) || 60) / 6)) / 10 };
  return { type: "practice", practice, ...kept, ...length };
}

/** nextCheck moves the focus to the next passage that somebody should look at, after the one that has it. */
export function nextCheck(root: ParentNode, from: Element | null): boolean {
  const all = [...root.querySelectorAll<HTMLElement>('[data-check]:not([data-check="none"])')];
  const after = (one: HTMLElement) =>
    !from || (from.compareDocumentPosition(one) & Node.DOCUMENT_POSITION_FOLLOWING) > 0;
  const here = from?.closest("[data-check]");
  const next = all.find((one) => one !== here && after(one)) ?? all.find((one) => one !== here) ?? all[0];
  next?.querySelector<HTMLElement>("button")?.focus();
  next?.scrollIntoView?.({ block: "center" });
  return next !== undefined;
}
