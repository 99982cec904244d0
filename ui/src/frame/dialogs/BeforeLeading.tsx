import { runningQuery, todayQuery } from "../../wire/queries";
import { beforeLeadingQuery } from "../queries";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Button, Modal } from "react-bootstrap";
import { useNavigate } from "react-router";
import { Failed, post, unanswered } from "../../wire/api";
import { newKey } from "../../wire/key";
import { Cautions as General, Findings } from "../care/care";
import type { Draft, Drafted, Lead, Plan, Score } from "../../wire/contract";
import { ErrorAlert } from "../shell/ErrorAlert";
import { Loading } from "../shell/Loading";
import { rich, t, text } from "../../language/text";

type Props = { plan: number; fit?: boolean; onClose: () => void };

/** BeforeLeading shows the cautions of a plan, softens the class if that is wanted, and begins it. */
export function BeforeLeading({ plan, fit = false, onClose }: Props) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const stored = useQuery(beforeLeadingQuery(plan));
  // What is taken in its gentle variant for this class alone, and the plan as it is led then.
  const [softer, setSofter] = useState<{ passages: number[]; plan: Plan } | null>(null);
  const shown = softer?.plan ?? stored.data;
  const [uid] = useState(newKey);
  const begin = useMutation({
    mutationFn: (end: boolean) =>
      begun({
        plan_id: plan,
        end_running: end,
        fit,
        gentle: softer?.passages,
        acknowledged: shown ? shown.summary.strong.map((s) => s.id) : [],
        uid,
      }),
    onSuccess: (id) => {
      void queries.invalidateQueries({ queryKey: todayQuery.queryKey });
      void queries.invalidateQueries({ queryKey: runningQuery.queryKey });
      void navigate(`/lead/${id}`);
    },
  });
  const soften = useMutation({
    mutationFn: softened,
    onSuccess: setSofter,
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() === "g" && !event.repeat && shown && toSoften(shown).length > 0)
        soften.mutate(shown);
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, [shown, soften]);
  const running = begin.error instanceof Failed ? begin.error.problem.class_id : undefined;
  return (
    <Modal show centered size="lg" onHide={onClose} aria-labelledby="before">
      <Modal.Header closeButton closeLabel={t("frame.close")}>
        <Modal.Title id="before">{t("frame.before-you-begin")}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {stored.isPending && <Loading what={t("frame.loading-the-cautions")} />}
        {stored.isError && <ErrorAlert error={stored.error} />}
        {shown && (
          <Cautions plan={shown} onSoften={() => soften.mutate(shown)} softening={soften.isPending} />
        )}
        {softer && (
          <p role="status" className="mt-2 mb-0">
            {t("frame.the-gentle-variants")}
          </p>
        )}
        {soften.isError && <ErrorAlert error={soften.error} />}
        {begin.isError && <ErrorAlert error={begin.error} />}
      </Modal.Body>
      <Modal.Footer>
        {running ? (
          <>
            <Button variant="outline-danger" onClick={() => begin.mutate(true)}>
              {t("frame.end-it-and-begin-this-one")}
            </Button>
            <Button onClick={() => void navigate(`/lead/${running}`)}>{t("frame.go-back")}</Button>
          </>
        ) : (
          // Not there until the cautions are, so that it has the focus when it comes: Enter begins.
          shown && (
            <Button size="lg" autoFocus disabled={begin.isPending} onClick={() => begin.mutate(false)}>
              {shown.summary.strong.length > 0 ? t("frame.i-have-read-this-begin") : t("frame.begin")}
            </Button>
          )
        )}
      </Modal.Footer>
    </Modal>
  );
}

const patience = 4000; // ms until a class begins without the program

/** begun begins a class, on this device alone where the program does not answer, and returns its number. */
async function begun(lead: Lead & { uid: string }): Promise<number> {
  try {
    return (await post<Score>("/classes", lead, AbortSignal.timeout(patience))).class_id;
  } catch (error) {
    if (!unanswered(error)) throw error;
    return (await import("../../apart/begin")).beginApart(lead);
  }
}

/** ForTheGroup is what the rules of care say of this plan for this group and hour. */
function ForTheGroup({ plan, onSoften, softening }: CautionsProps) {
  const concerned = plan.summary.passages.filter((p) => p.findings.length > 0);
  if (concerned.length === 0) return null;
  const softer = toSoften(plan).length > 0;
  return (
    <section className="forgroup">
      <h3>{t("frame.for", { name: plan.group?.name ?? t("frame.this-hour") })}</h3>
      {concerned.map((p, i) => (
        <div key={i}>
          <strong>{p.name}</strong>
          <Findings list={p.findings} />
        </div>
      ))}
      {softer && (
        <Button variant="outline-primary" className="mt-2" disabled={softening} onClick={onSoften}>
          <kbd>G</kbd> {t("frame.use-the-gentle-variants")}
        </Button>
      )}
    </section>
  );
}

/** softened is the plan with the gentle variants in it, which is stored nowhere. */
async function softened(plan: Plan): Promise<{ passages: number[]; plan: Plan }> {
  const passages = toSoften(plan);
  let { document, summary } = plan;
  for (const passage of passages) {
    const body: Draft = { document, group_id: plan.group?.id ?? 0, change: { do: "gentle", passage } };
    ({ document, summary } = await post<Drafted>("/draft", body));
  }
  return { passages, plan: { ...plan, document, summary } };
}

type CautionsProps = { plan: Plan; onSoften: () => void; softening: boolean };

/** toSoften is the numbers of the passages, from 1, of which the group should have the gentle variant. */
function toSoften(plan: Plan): number[] {
  return plan.summary.passages.flatMap((p, i) => (p.soften ? [i + 1] : []));
}

function Cautions({ plan, onSoften, softening }: CautionsProps) {
  const list = plan.summary.strong;
  const general = plan.summary.passages.flatMap((p) => p.cautions).findLast((c) => !c.strong);
  return (
    <>
      <ForTheGroup plan={plan} onSoften={onSoften} softening={softening} />
      {list.map(({ id, say, passages }) => (
        <p key={id} className="caution strong">
          <strong>{passages.join(", ")}.</strong> {text(say)}
        </p>
      ))}
      {general && <General list={[general]} />}
      <p className="text-secondary mb-0">
        {rich("frame.the-class-begins-at-once-every", { kbd: <kbd>?</kbd> })}
      </p>
    </>
  );
}
