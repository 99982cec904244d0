import { programmeOfferQuery } from "./queries";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form, Modal } from "react-bootstrap";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { ProgrammeForm } from "../frame/editing/ProgrammeForm";
import { post } from "../wire/api";
import type { Programme, ProgrammeOffer, ProgrammeSheet } from "../wire/contract";
import { t } from "../language/text";

/** BeginProgramme has the group of a plan follow a programme, of which the plan is the first class. */
export function BeginProgramme({ id, onClose }: { id: number; onClose: () => void }) {
  const offer = useQuery(programmeOfferQuery(id));
  return (
    <Modal show centered size="lg" onHide={onClose} aria-labelledby="programme">
      <Modal.Header closeButton closeLabel={t("frame.close")}>
        <Modal.Title id="programme">{t("plan.a-programme")}</Modal.Title>
      </Modal.Header>
      {offer.data ? (
        <Begin id={id} offer={offer.data} />
      ) : (
        <Modal.Body>
          {offer.isError ? (
            <ErrorAlert error={offer.error} retry={() => void offer.refetch()} />
          ) : (
            <Loading what={t("plan.looking-at-the-plan")} />
          )}
        </Modal.Body>
      )}
    </Modal>
  );
}

const own: Programme = {
  name: "",
  passage: 1,
  steps: [{ says: "", classes: 1, rest: 0 }],
  by: "led",
  times: 3,
  days: 7,
  missed: "wait",
  eased: "wait",
  ceiling: 0,
  gap: 0,
  repeat: 1,
};

function Begin({ id, offer }: { id: number; offer: ProgrammeOffer }) {
  const { passages, templates, begins } = offer;
  const last = passages.find((p) => p.point) ?? passages.at(-1);
  const [chosen, setChosen] = useState("");
  const [programme, setProgramme] = useState<Programme>({ ...own, passage: last?.passage ?? 0 });
  const begin = useMutation({
    mutationFn: () => post<ProgrammeSheet>(`/plans/${id}/programme`, programme),
    onSuccess: () => window.location.reload(), // the plan itself was changed too
  });
  const choose = (which: string) => {
    setChosen(which);
    const template = templates.find((t) => t.id === which);
    if (!template) return;
    const fits = passages.findLast((p) => (!template.strokes || p.strokes) && (!template.counts || p.counts));
    setProgramme({ ...template.programme, passage: (fits ?? last)!.passage });
  };
  const template = templates.find((t) => t.id === chosen);
  const follows = passages.find((p) => p.passage === programme.passage);
  const unfit =
    template && follows && ((template.strokes && !follows.strokes) || (template.counts && !follows.counts));
  if (!begins || passages.length === 0)
    return (
      <Modal.Body>
        {passages.length === 0 ? t("plan.plan-a-practice-first") : t("plan.give-this-class-a-time-first")}
      </Modal.Body>
    );
  return (
    <Form
      onSubmit={(e) => {
        e.preventDefault();
        begin.mutate();
      }}
    >
      <Modal.Body>
        {begin.isError && <ErrorAlert error={begin.error} />}
        <Form.Group controlId="programme-template" className="mb-3">
          <Form.Label>{t("plan.begin-with")}</Form.Label>
          <Form.Select autoFocus value={chosen} onChange={(e) => choose(e.target.value)}>
            <option value="">{t("plan.steps-of-your-own")}</option>
            {templates.map((t) => (
              <option key={t.id} value={t.id}>
                {t.programme.name}
              </option>
            ))}
          </Form.Select>
          {template && <Form.Text>{template.about}</Form.Text>}
          {unfit && (
            <Form.Text className="d-block text-danger">
              {t("plan.has-no-that-could-follow-these", { name: follows.name, strokes: template.strokes })}
            </Form.Text>
          )}
        </Form.Group>
        <ProgrammeForm programme={programme} passages={passages} onChange={setProgramme} />
      </Modal.Body>
      <Modal.Footer>
        <Button type="submit" disabled={begin.isPending}>
          {t("plan.begin-with-this-class")}
        </Button>
      </Modal.Footer>
    </Form>
  );
}
