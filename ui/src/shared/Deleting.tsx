import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Alert, Button, Form, Modal } from "react-bootstrap";
import { useNavigate } from "react-router";
import { get, post, remove } from "./api";
import type { Deleted, DeletedList, Deletion } from "./contract";
import { Trouble, Waiting } from "./Told";
import { day, shortDay } from "./words";

type Kind = "group" | "plan" | "class";
const addresses = { group: "groups", plan: "plans", class: "classes" };
const now = ["just deleted"];
const list = ["deleted"];

type Props = { kind: Kind; id: number; name: string; to: string; onClose: () => void };

/** DeleteCard asks before something is deleted, and says what goes with it. */
export function DeleteCard({ kind, id, name, to, onClose }: Props) {
  const [classes, setClasses] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const path = `/${addresses[kind]}/${id}`;
  const goes = useQuery({
    queryKey: ["deletion", path],
    queryFn: () => get<Deletion>(`${path}/deletion`),
    gcTime: 0,
  });
  const go = useMutation({
    mutationFn: () => remove<DeletedList>(`${path}?classes=${classes}`),
    onSuccess: async ({ deleted }) => {
      await navigate(to);
      await queries.invalidateQueries();
      queries.setQueryData(now, deleted.find((one) => one.kind === kind && one.id === id) ?? null);
    },
  });
  return (
    <Modal show centered onHide={onClose} aria-labelledby="delete">
      <Modal.Header closeButton>
        <Modal.Title id="delete">Delete {name || "this"}?</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {goes.isPending && <Waiting what="Looking up what goes with it" />}
        {goes.isError && <Trouble error={goes.error} retry={() => void goes.refetch()} />}
        {go.isError && <Trouble error={go.error} />}
        {goes.data && (
          <>
            {goes.data.goes !== "" && <p>With it {goesOrGo(goes.data.goes)}.</p>}
            {goes.data.classes !== "" && (
              <>
                <Form.Check
                  id="delete-classes"
                  className="mb-2"
                  label={`The record of ${goes.data.classes} too`}
                  checked={classes}
                  onChange={(e) => setClasses(e.target.checked)}
                />
                <p className="text-secondary">
                  {classes
                    ? "What was taught is then in no list and in no summary of a year."
                    : "Otherwise what was taught stays in the record, with the group's name."}
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

function goesOrGo(what: string): string {
  return /^1 [a-z]+$/.test(what) ? `goes ${what}` : `go ${what}`;
}

function useBringBack() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (one: Deleted) => post<DeletedList>(`/deleted/${one.kind}/${one.id}/back`, {}),
    onSuccess: async () => {
      queries.setQueryData(now, null);
      await queries.invalidateQueries();
    },
  });
}

/** JustDeleted offers to take back what was deleted last, until it is put away. */
export function JustDeleted() {
  const queries = useQueryClient();
  const just = useQuery<Deleted | null>({ queryKey: now, queryFn: () => null, staleTime: Infinity });
  const back = useBringBack();
  if (!just.data) return null;
  const one = just.data;
  return (
    <Alert
      variant="light"
      className="d-flex gap-3 align-items-center"
      dismissible
      onClose={() => queries.setQueryData(now, null)}
    >
      <span role="status">{named(one)} was deleted.</span>
      <Button size="sm" variant="outline-primary" disabled={back.isPending} onClick={() => back.mutate(one)}>
        Bring it back
      </Button>
      {back.isError && <span className="text-danger">{back.error.message}</span>}
    </Alert>
  );
}

/** DeletedLately is what of some kinds can still be brought back. */
export function DeletedLately({ kinds }: { kinds: Kind[] }) {
  const deleted = useQuery({ queryKey: list, queryFn: () => get<DeletedList>("/deleted") });
  const back = useBringBack();
  const mine = deleted.data?.deleted.filter((one) => kinds.includes(one.kind as Kind)) ?? [];
  if (mine.length === 0) return null;
  return (
    <details className="mt-4">
      <summary>Deleted lately: {mine.length}</summary>
      {back.isError && <Trouble error={back.error} />}
      <ul className="list-unstyled mt-2">
        {mine.map((one) => (
          <li key={`${one.kind}${one.id}`} className="d-flex gap-3 align-items-center mb-2">
            <span>
              {named(one)}
              <small className="text-secondary"> · until {shortDay(one.until_ms)}</small>
            </span>
            <Button
              size="sm"
              variant="outline-primary"
              disabled={back.isPending}
              onClick={() => back.mutate(one)}
            >
              Bring it back
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}

function named(one: Deleted): string {
  const name = one.name || "Untitled";
  return one.started_ms > 0 ? `${name} of ${day(one.started_ms)}` : name;
}
