import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Failed, post, put } from "../wire/api";
import { carryAll } from "./identity";
import { forgetUnsaved, left, putBy } from "./unsaved";
import type { Draft, Drafted, Plan, PlanSummary } from "../wire/contract";
import type { PlanDoc } from "../wire/plan";
import type { Version } from "./version";

type Saving = "saved" | "saving" | { failed: string; conflict: boolean; unanswered: boolean };
/** Change is one change that the core makes in a document. */
export type Change = Partial<
  Pick<
    Draft,
    "passage" | "short" | "gentle" | "fit" | "end_ms" | "by" | "more" | "split" | "learned" | "next"
  >
>;

const pause = 500; // ms without a keystroke before it is saved
const again = 3000; // ms before it is tried again by itself where the application did not answer

/**
 * usePlanEditor holds a plan while it is edited: the document, its numbers as the application computes them after
 * each change, undo and redo, and saving by itself.
 */
export function usePlanEditor(plan: Plan) {
  const [found] = useState(() => left(plan.id)); // by a page that ended before it was saved
  const [version, setVersion] = useState<Version>(
    found?.version ?? { document: plan.document as PlanDoc, group: plan.group?.id ?? 0 },
  );
  const [summary, setSummary] = useState<PlanSummary>(plan.summary);
  const [past, setPast] = useState<Version[]>([]);
  const [future, setFuture] = useState<Version[]>([]);
  const [saving, setSaving] = useState<Saving>(found ? "saving" : "saved");
  const [trouble, setTrouble] = useState("");
  const [told, setTold] = useState(""); // what became of the last change that the core made
  const queries = useQueryClient();

  const revision = useRef(found?.revision ?? plan.revision);
  const unsaved = useRef<Version | null>(found?.version ?? null);
  const doubtful = useRef<Version | null>(null); // it was sent, but no answer came: it may be stored or not
  const storing = useRef<Promise<void> | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const asked = useRef(0);

  const store = useCallback(async () => {
    while (doubtful.current ?? unsaved.current) {
      // What may be stored goes once more, as it was: it is stored once, and then it is known from which revision to go on.
      const version = (doubtful.current ?? unsaved.current)!;
      if (unsaved.current === version) unsaved.current = null;
      try {
        const body = { revision: revision.current, group_id: version.group, document: version.document };
        const stored = await put<Plan>(`/plans/${plan.id}`, body);
        revision.current = stored.revision;
        doubtful.current = null;
        if (!unsaved.current) forgetUnsaved(plan.id);
        queries.setQueryData(["plan", plan.id], stored);
      } catch (error) {
        unsaved.current ??= version; // what was typed stays, to be saved later
        const { status, message } = error instanceof Failed ? error : { status: 0, message: String(error) };
        doubtful.current = status === 0 ? version : null;
        setSaving({ failed: message, conflict: status === 409, unanswered: status === 0 });
        return;
      }
    }
    void queries.invalidateQueries({ queryKey: ["today"] });
    setSaving("saved");
  }, [plan.id, queries]);

  /** save stores what is not stored yet; one storing at a time. What got no answer is tried again by itself. */
  const save = useCallback(async () => {
    clearTimeout(timer.current);
    if (!unsaved.current && !storing.current) return;
    storing.current ??= store().finally(() => (storing.current = null));
    await storing.current;
  }, [store]);

  const unanswered = typeof saving === "object" && saving.unanswered;
  useEffect(() => {
    if (!unanswered) return;
    const trying = setInterval(() => void save(), again);
    return () => clearInterval(trying);
  }, [unanswered, save]);

  // Leaving the view or the page saves what is not saved yet.
  useEffect(() => {
    const now = () => void save();
    window.addEventListener("pagehide", now);
    return () => {
      window.removeEventListener("pagehide", now);
      now();
    };
  }, [save]);

  /**
   * compute asks for the numbers of a document; only the newest question's answer counts: of one that was overtaken it
   * returns nothing, of one that failed it throws why.
   */
  const compute = useCallback(async ({ document, group }: Version, change: Change = {}) => {
    const question = ++asked.current;
    try {
      const body = { document, group_id: group, passage: 0, short: null, gentle: false, ...change };
      const answer = await post<Drafted>("/draft", body);
      if (question !== asked.current) return null;
      setTrouble("");
      return answer;
    } catch (error) {
      if (question !== asked.current) return null;
      setTrouble((error as Error).message);
      throw error;
    }
  }, []);

  /** refresh has the numbers follow; where that fails, the screen says so and those of before stay. */
  const refresh = useCallback(
    (next: Version) => {
      compute(next).then(
        (answer) => answer && setSummary(answer.summary),
        () => undefined,
      );
    },
    [compute],
  );

  const keep = useCallback(
    (next: Version) => {
      setVersion(next);
      unsaved.current = next;
      putBy(plan.id, { revision: revision.current, version: next });
      setSaving((now) => (typeof now === "object" && now.conflict ? now : "saving"));
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void save(), pause);
    },
    [plan.id, save],
  );

  const show = useCallback(
    (next: Version) => {
      keep(next);
      refresh(next);
    },
    [keep, refresh],
  );

  // What an earlier page left is saved and its numbers are asked for, or, if another window saved since, both are offered.
  useEffect(() => {
    if (!found) return;
    const soon = setTimeout(() => {
      void save();
      refresh(found.version);
    });
    return () => clearTimeout(soon);
  }, [found, save, refresh]);

  const change = (next: Partial<Version>) => {
    setTold("");
    setPast([...past, version]);
    setFuture([]);
    show({ ...version, ...next });
  };

  /** ask has the core make one change. It returns why not, nothing where it was made, null where it was overtaken. */
  const ask = async (change: Change): Promise<string | null> => {
    let answer: Drafted | null;
    try {
      answer = await compute(version, change);
    } catch (error) {
      return (error as Error).message;
    }
    if (!answer) return null;
    setTold(answer.problem || answer.changed);
    if (answer.problem) return answer.problem;
    setPast([...past, version]);
    setFuture([]);
    setSummary(answer.summary);
    const document = answer.document as PlanDoc;
    carryAll(version.document.passages, document.passages);
    keep({ ...version, document });
    return "";
  };
  /** shorten rewrites a passage, from 1, the short way; 0 adds one, or a practice's whole course. */
  const shorten = (passage: number, text: string) => ask({ passage, short: text });
  /** soften puts the gentle variant in the place of a passage, from 1. */
  const soften = (passage: number) => ask({ passage, gentle: true });

  const undo = () => {
    const before = past.at(-1);
    if (!before) return;
    setPast(past.slice(0, -1));
    setFuture([version, ...future]);
    show(before);
  };
  const redo = () => {
    const after = future[0];
    if (!after) return;
    setPast([...past, version]);
    setFuture(future.slice(1));
    show(after);
  };

  /** overwrite saves this version in the place of the one that another window saved. */
  const overwrite = async (newest: number) => {
    revision.current = newest;
    setSaving("saving");
    await save();
  };

  return {
    ...version,
    summary,
    saving,
    trouble,
    told,
    change,
    ask,
    shorten,
    soften,
    undo: past.length > 0 ? undo : undefined,
    redo: future.length > 0 ? redo : undefined,
    save,
    overwrite,
  };
}

export type Editor = ReturnType<typeof usePlanEditor>;
