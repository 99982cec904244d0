import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Modal } from "react-bootstrap";
import { useNavigate } from "react-router";
import { Failed, get, post } from "../shared/api";
import type { Caution, Plan, Score } from "../shared/contract";
import { Trouble, Waiting } from "../shared/Shell";

/** BeforeLeading shows the cautions of a plan, and begins the class. */
export function BeforeLeading({ plan, onClose }: { plan: number; onClose: () => void }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const full = useQuery({
    queryKey: ["before", plan],
    queryFn: () => get<Plan>(`/plans/${plan}`),
    gcTime: 0,
  });
  const begin = useMutation({
    mutationFn: (end: boolean) => post<Score>("/classes", { plan_id: plan, end_running: end }),
    onSuccess: (score) => {
      void queries.invalidateQueries({ queryKey: ["today"] });
      void navigate(`/lead/${score.class_id}`);
    },
  });
  const running = begin.error instanceof Failed ? begin.error.problem.class_id : undefined;
  return (
    <Modal show centered size="lg" onHide={onClose} aria-labelledby="before">
      <Modal.Header closeButton>
        <Modal.Title id="before">Before you begin</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {full.isPending && <Waiting what="Looking up the cautions" />}
        {full.isError && <Trouble error={full.error} />}
        {full.data && <Cautions plan={full.data} />}
        {begin.isError && <Trouble error={begin.error} />}
      </Modal.Body>
      <Modal.Footer>
        {running ? (
          <>
            <Button variant="outline-danger" onClick={() => begin.mutate(true)}>
              End it and begin this one
            </Button>
            <Button onClick={() => void navigate(`/lead/${running}`)}>Go back to it</Button>
          </>
        ) : (
          // Not there until the cautions are, so that it has the focus when it comes: Enter begins.
          full.data && (
            <Button size="lg" autoFocus disabled={begin.isPending} onClick={() => begin.mutate(false)}>
              {strong(full.data).length > 0 ? "I have read this: begin" : "Begin"}
            </Button>
          )
        )}
      </Modal.Footer>
    </Modal>
  );
}

function strong(plan: Plan): { caution: Caution; names: string[] }[] {
  const found = new Map<string, { caution: Caution; names: string[] }>();
  for (const passage of plan.summary.passages) {
    for (const caution of passage.cautions.filter((c) => c.strong)) {
      const entry = found.get(caution.text) ?? { caution, names: [] };
      if (!entry.names.includes(passage.name)) entry.names.push(passage.name);
      found.set(caution.text, entry);
    }
  }
  return [...found.values()];
}

function Cautions({ plan }: { plan: Plan }) {
  const list = strong(plan);
  const general = plan.summary.passages.flatMap((p) => p.cautions).findLast((c) => !c.strong);
  return (
    <>
      {list.map(({ caution, names }) => (
        <p key={caution.text} className="caution strong">
          <strong>{names.join(", ")}.</strong> {caution.text}
        </p>
      ))}
      {general && <p className="caution">{general.text}</p>}
      <p className="text-secondary mb-0">
        The class begins at once. Every key is shown on its button; <kbd>?</kbd> lists them all.
      </p>
    </>
  );
}
