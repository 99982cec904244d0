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
import { t, text } from "../../language/text";

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
      <Modal.Header closeButton closeLabel={t("frame.close")}>
        <Modal.Title id="delete">{t("frame.delete", { name: name || t("frame.this") })}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {goes.isPending && <Loading what={t("frame.checking-what-it-also-deletes")} />}
        {goes.isError && <ErrorAlert error={goes.error} retry={() => void goes.refetch()} />}
        {go.isError && <ErrorAlert error={go.error} />}
        {goes.data && (
          <>
            {goes.data.goes && <p>{t("frame.also-deletes", { goes: text(goes.data.goes) })}</p>}
            {goes.data.classes && (
              <>
                <Form.Check
                  id="delete-classes"
                  className="mb-2"
                  label={t("frame.the-record-of-too", { classes: text(goes.data.classes) })}
                  checked={classes}
                  onChange={(e) => setClasses(e.target.checked)}
                />
                <p className="text-secondary">
                  {classes
                    ? t("frame.these-classes-then-disappear-from-every")
                    : t("frame.otherwise-the-taught-classes-stay")}
                </p>
              </>
            )}
            <p className="mb-0">{t("frame.it-can-be-brought-back", { days: goes.data.days })}</p>
          </>
        )}
      </Modal.Body>
      <Modal.Footer>
        <Button variant="outline-secondary" autoFocus onClick={onClose}>
          {t("frame.keep-it")}
        </Button>
        {goes.data && (
          <Button variant="danger" disabled={go.isPending} onClick={() => go.mutate()}>
            {t("frame.delete-2")}
          </Button>
        )}
      </Modal.Footer>
    </Modal>
  );
}
