import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Modal } from "react-bootstrap";
import { get, put } from "./api";
import type { Caution, Finding, Settings } from "./contract";

/** Cautions of a practice, whoever is in the room: strong ones first. */
export function Cautions({ list }: { list: Caution[] }) {
  return (
    <>
      {list.map((c) => (
        <p key={c.text} className={`caution ${c.strong ? "strong" : ""}`}>
          {c.text}
        </p>
      ))}
    </>
  );
}

const icons: { [kind: string]: string } = {
  "leave out": "bi-x-octagon",
  "gentle variant": "bi-feather",
  carefully: "bi-exclamation-triangle",
};

/** Findings is what the rules of care say of a passage for the group at hand. */
export function Findings({ list }: { list: Finding[] }) {
  return (
    <ul className="findings">
      {list.map((f) => (
        <li key={f.say} className={f.do === "leave out" ? "strong" : ""}>
          <i className={`bi ${icons[f.do] ?? "bi-info-circle"}`} aria-hidden /> <strong>{f.do}</strong>{" "}
          {f.say} <span className="text-secondary">{f.instead}</span>
        </li>
      ))}
    </ul>
  );
}

/** General is the caution for everyone: always one step away, and shown once at the first start. */
export function General() {
  const queries = useQueryClient();
  const settings = useQuery({ queryKey: ["settings"], queryFn: () => get<Settings>("/settings") });
  const [open, setOpen] = useState(false);
  const read = useMutation({
    mutationFn: (now: Settings) => put<Settings>("/settings", { ...now, care_read: true }),
    onSuccess: (stored) => queries.setQueryData(["settings"], stored),
  });
  const unread = settings.data?.care_read === false;
  const close = () => {
    setOpen(false);
    if (settings.data && unread) read.mutate(settings.data);
  };
  return (
    <>
      <Button variant="link" className="quiet" onClick={() => setOpen(true)}>
        <i className="bi bi-heart-pulse" aria-hidden /> Care
      </Button>
      <Modal
        show={settings.data !== undefined && (open || unread)}
        centered
        onHide={close}
        aria-labelledby="care"
      >
        <Modal.Header closeButton>
          <Modal.Title id="care">Before anything else</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <p>{settings.data?.general}</p>
          <p className="mb-0">
            Every strong practice shows its own cautions: in the practice book, in a plan, before it is led,
            and under one key while it is led.
          </p>
        </Modal.Body>
        <Modal.Footer>
          <Button onClick={close} autoFocus>
            I have read this
          </Button>
        </Modal.Footer>
      </Modal>
    </>
  );
}
