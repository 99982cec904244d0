import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form, Modal } from "react-bootstrap";
import { post } from "../wire/api";
import type { Session } from "../wire/contract";
import { again } from "../wire/stream";
import { ErrorAlert } from "./ErrorAlert";

/** usual is a name for this device, to be changed. */
function usual(): string {
  if (matchMedia("(pointer: coarse)").matches)
    return Math.min(screen.width, screen.height) < 600 ? "phone" : "tablet";
  return "laptop";
}

/** SignIn asks for the passcode, and how this device is called. */
export function SignIn() {
  const queries = useQueryClient();
  const [passcode, setPasscode] = useState("");
  const [device, setDevice] = useState(usual);
  const enter = useMutation({
    mutationFn: () => post<Session>("/session", { passcode, device }),
    onSuccess: (session) => {
      queries.setQueryData(["session"], session);
      again(); // the streams that were refused
      void queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== "session" });
    },
  });
  return (
    <Modal show centered backdrop="static" aria-labelledby="signin">
      <Form
        onSubmit={(e) => {
          e.preventDefault();
          enter.mutate();
        }}
      >
        <Modal.Header>
          <Modal.Title id="signin">Vast Lantern</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          {enter.isError && <ErrorAlert error={enter.error} />}
          <Form.Group controlId="passcode" className="mb-3">
            <Form.Label>Teacher's passcode</Form.Label>
            <Form.Control
              type="password"
              size="lg"
              autoFocus
              autoComplete="current-password"
              maxLength={72}
              value={passcode}
              onChange={(e) => setPasscode(e.target.value)}
            />
          </Form.Group>
          <Form.Group controlId="device">
            <Form.Label>Name of this device</Form.Label>
            <Form.Control maxLength={40} value={device} onChange={(e) => setDevice(e.target.value)} />
            <Form.Text>It is shown beside what is adjusted on this device.</Form.Text>
          </Form.Group>
        </Modal.Body>
        <Modal.Footer>
          <Button type="submit" size="lg" disabled={passcode === "" || enter.isPending}>
            Sign in
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
