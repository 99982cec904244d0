import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form, Modal } from "react-bootstrap";
import { useNavigate } from "react-router";
import { now } from "../../player/clock";
import { localInput } from "../../player/days";
import type { ProgrammeGive, ProgrammeSheet } from "../../wire/contract";
import { groupsQuery } from "../../wire/queries";
import { ErrorAlert } from "../shell/ErrorAlert";
import { withZone } from "./times";
import { t } from "../../language/text";

type Props = {
  title: string;
  begin: (to: ProgrammeGive) => Promise<ProgrammeSheet>;
  onClose: () => void;
};

const hour = 3_600_000;

/** StartProgramme has a group follow a programme from its first step on: which group, and when its first class is. */
export function StartProgramme({ title, begin, onClose }: Props) {
  const groups = useQuery(groupsQuery).data?.groups ?? [];
  const [group, setGroup] = useState(0);
  const [starts, setStarts] = useState(() => localInput(Math.ceil((now() + hour) / hour) * hour));
  const navigate = useNavigate();
  const start = useMutation({
    mutationFn: () => begin({ group_id: group, starts_at: withZone(starts) ?? "" }),
    onSuccess: ({ card }) => {
      onClose();
      void navigate(`/programmes/${card.id}`);
    },
  });
  return (
    <Modal show centered onHide={onClose} aria-labelledby="startprogramme">
      <Form
        onSubmit={(e) => {
          e.preventDefault();
          start.mutate();
        }}
      >
        <Modal.Header closeButton closeLabel={t("frame.close")}>
          <Modal.Title id="startprogramme">{title}</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <p>{t("frame.it-begins-with-step-1")}</p>
          <Form.Group controlId="start-group" className="mb-3">
            <Form.Label>{t("frame.group")}</Form.Label>
            <Form.Select value={group} onChange={(e) => setGroup(Number(e.target.value))}>
              <option value={0}>{t("frame.none")}</option>
              {groups.map((g) => (
                <option key={g.id} value={g.id}>
                  {g.name}
                </option>
              ))}
            </Form.Select>
          </Form.Group>
          <Form.Group controlId="start-at">
            <Form.Label>{t("frame.first-class")}</Form.Label>
            <Form.Control
              type="datetime-local"
              required
              value={starts}
              onChange={(e) => setStarts(e.target.value)}
            />
          </Form.Group>
          {start.isError && <ErrorAlert error={start.error} />}
        </Modal.Body>
        <Modal.Footer>
          <Button type="submit" disabled={start.isPending}>
            {t("frame.begin")}
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
