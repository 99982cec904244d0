import { planQuery } from "./queries";
import "./plan.css";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Alert } from "react-bootstrap";
import { useParams } from "react-router";
import type { Plan } from "../wire/contract";
import { Shell } from "../frame/shell/Shell";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { AddPassage } from "./AddPassage";
import { Advice } from "./Advice";
import { ProgrammeStrip } from "./ProgrammeStrip";
import { Strain } from "./Strain";
import { FitBar } from "./FitBar";
import { Head } from "./Head";
import { AskHome } from "../frame/dialogs/AskHome";
import { Returning } from "../frame/dialogs/Returning";
import { LastTime } from "./LastTime";
import { Passages } from "./Passages";
import { InTheRoom } from "./InTheRoom";
import { TimeBar } from "./TimeBar";
import { usePlanEditor } from "./usePlanEditor";
import { useUndoKeys } from "./useUndoKeys";
import { t, text } from "../language/text";

const BeforeLeading = lazy(async () => ({
  default: (await import("../frame/dialogs/BeforeLeading")).BeforeLeading,
}));

export function PlanView() {
  const id = Number(useParams().id);
  const plan = useQuery({
    ...planQuery(id),
    staleTime: Infinity, // while it is edited, this window's version is the one that counts
    gcTime: 0,
  });
  return (
    <Shell view="plan">
      {plan.isPending && <Loading what={t("plan.opening-the-plan")} />}
      {plan.isError && <ErrorAlert error={plan.error} retry={() => void plan.refetch()} />}
      {plan.data && <EditPlan key={id} plan={plan.data} />}
    </Shell>
  );
}

function EditPlan({ plan }: { plan: Plan }) {
  const editor = usePlanEditor(plan);
  const [asking, setAsking] = useState(false);
  const { document, summary, failed, ask } = editor;
  useUndoKeys(editor);
  return (
    <>
      <Head plan={plan} editor={editor} onLead={() => void editor.save().then(() => setAsking(true))} />
      <ProgrammeStrip id={plan.id} />
      <TimeBar summary={summary} />
      <Strain id={plan.id} editor={editor} />
      <FitBar editor={editor} />
      {failed && <Alert variant="warning">{failed}</Alert>}
      <PlanErrors errors={summary.errors.filter((e) => e.passage === 0).map((e) => text(e.say))} />
      <Returning group={editor.group} />
      <div className="orders">
        <div>
          <Passages editor={editor} />
          <AddPassage
            plan={plan.id}
            first={document.passages.length === 0}
            group={editor.group}
            onAdd={(text) => ask({ do: "add", text })}
          />
          {document.passages.length > 0 && <InTheRoom editor={editor} />}
        </div>
        <AskHome group={editor.group} />
        <LastTime editor={editor} />
      </div>
      <Advice editor={editor} />
      <Suspense>{asking && <BeforeLeading plan={plan.id} onClose={() => setAsking(false)} />}</Suspense>
    </>
  );
}

function PlanErrors({ errors }: { errors: string[] }) {
  if (errors.length === 0) return null;
  return (
    <Alert variant="danger">
      {errors.map((error) => (
        <div key={error}>{error}</div>
      ))}
    </Alert>
  );
}
