import { deletionQuery } from "../queries";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form, Modal } from "react-bootstrap";
import { useNavigate } from "react-router";
import { remove } from "../../wire/api";
import type { DeletedList } from "../../wire/contract";
import { ErrorAlert } from "../shell/ErrorAlert";
import { Loading } from "../shell/Loading";
import { justDeleted, type Kind } from "./deleting";
import { text } from "../../language/text";

const addresses = {
  group: "groups",
  plan: "plans",
  class: "classes",
  voice: "voices",
  programme: "programmes",
  rehearsal: "rehearsals",
};

type Props = { kind: Kind; id: number; name: string; to: string; onClose: () => void };

/** DeleteCard asks before something is deleted, and says what goes with it. */
export function DeleteCard({ kind, id, name, to, onClose }: Props) {
  const [classes, setClasses] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const path = `/${addresses[kind]}/${id}`;
  const goes = useQuery(deletionQuery(path));
  const go = useMutation({
    mutationFn: () => remove<DeletedList>(`${path}?classes=${classes}`),
    onSuccess: async ({ deleted }) => {
      await navigate(to);
      await queries.invalidateQueries();
      queries.setQueryData(justDeleted, deleted.find((one) => one.kind === kind && one.id === id) ?? null);
    },
  });
  return (
    <Modal show centered onHide={onClose} aria-labelledby="delete">
      <Modal.Header closeButton>
        <Modal.Title id="delete">Delete {name || "this"}?</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {goes.isPending && <Loading what="Checking what it also deletes" />}
        {goes.isError && <ErrorAlert error={goes.error} retry={() => void goes.refetch()} />}
        {go.isError && <ErrorAlert error={go.error} />}
        {goes.data && (
          <>
            {goes.data.goes && <p>Also deletes {text(goes.data.goes)}.</p>}
            {goes.data.classes && (
              <>
                <Form.Check
                  id="delete-classes"
                  className="mb-2"
                  label={`The record of ${text(goes.data.classes)} too`}
                  checked={classes}
                  onChange={(e) => setClasses(e.target.checked)}
                />
                <p className="text-secondary">
                  {classes
                    ? "These classes then disappear from every list and yearly summary."
                    : "Otherwise the taught classes stay in the record, under the group's name."}
                </p>
              </>
            )}
            <p className="mb-0">It can be brought back for {goes.data.days} days.</p>
          </>
        )}
      </Modal.Body>
      <Modal.Footer>
        <Button variant="outline-secondary" autoFocus onClick={onClose}>
          Keep it
        </Button>
        {goes.data && (
          <Button variant="danger" disabled={go.isPending} onClick={() => go.mutate()}>
            Delete
          </Button>
        )}
      </Modal.Footer>
    </Modal>
  );
}
