import { useMutation, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Button, Form, ListGroup, Modal } from "react-bootstrap";
import { day } from "../../player/format";
import { get } from "../../wire/api";
import type { Plan } from "../../wire/contract";
import { plansFoundQuery } from "../../wire/queries";
import { ErrorAlert } from "../shell/ErrorAlert";
import { Loading } from "../shell/Loading";
import { t } from "../../language/text";

type Picked = { title: string; document: object };
type Props = { onPick: (plan: Picked) => void; onClose: () => void };

/** PickPlan chooses one of the teacher's plans, of which a copy is taken. */
export function PickPlan({ onPick, onClose }: Props) {
  const [typed, setTyped] = useState("");
  const found = useQuery(plansFoundQuery(useDeferredValue(typed.trim())));
  const pick = useMutation({
    mutationFn: (id: number) => get<Plan>(`/plans/${id}`),
    onSuccess: ({ document }) => {
      const { title } = document as { title?: unknown };
      onPick({ title: typeof title === "string" ? title : "", document: document as object });
    },
  });
  return (
    <Modal show centered onHide={onClose} aria-labelledby="pickplan">
      <Modal.Header closeButton closeLabel={t("frame.close")}>
        <Modal.Title id="pickplan">{t("frame.a-whole-class-as-a-step")}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>{t("frame.the-programme-takes-a-copy")}</p>
        <Form.Control
          type="search"
          autoFocus
          aria-label={t("frame.find-a-plan-by-its-title")}
          placeholder={t("frame.find-a-plan-by-its-title")}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
        {found.isPending && <Loading what={t("frame.looking-for-plans")} />}
        {found.isError && <ErrorAlert error={found.error} retry={() => void found.refetch()} />}
        {pick.isError && <ErrorAlert error={pick.error} />}
        {found.data?.plans.length === 0 && (
          <p className="text-secondary mt-2">{t("frame.no-plan-has-these-words")}</p>
        )}
        <ListGroup className="mt-2">
          {found.data?.plans.map((plan) => (
            <ListGroup.Item
              key={plan.id}
              action
              type="button"
              disabled={pick.isPending}
              onClick={() => pick.mutate(plan.id)}
            >
              {plan.title || t("frame.untitled")}
              {plan.starts_ms !== null && <small className="text-secondary"> · {day(plan.starts_ms)}</small>}
            </ListGroup.Item>
          ))}
        </ListGroup>
        {found.data?.more && <p className="text-secondary mt-2">{t("frame.more-type-another-word")}</p>}
      </Modal.Body>
      <Modal.Footer>
        <Button variant="outline-secondary" onClick={onClose}>
          {t("frame.cancel")}
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
