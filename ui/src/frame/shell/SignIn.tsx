import { sessionQuery } from "../../wire/queries";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form, Modal } from "react-bootstrap";
import { post } from "../../wire/api";
import type { Session } from "../../wire/contract";
import { again } from "../../wire/stream";
import { ErrorAlert } from "./ErrorAlert";
import { Message } from "./Message";

/** usual is a name for this device, to be changed. */
function usual(): string {
  if (matchMedia("(pointer: coarse)").matches)
    return Math.min(screen.width, screen.height) < 600 ? "phone" : "tablet";
  return "laptop";
}

/** Whether what is typed can be read on its way: not on the machine itself. */
const unencrypted =
  location.protocol === "http:" && !["localhost", "127.0.0.1", "[::1]"].includes(location.hostname);

const warnedName = "sign in unencrypted";

function wasWarned(): boolean {
  try {
    return localStorage.getItem(warnedName) !== null;
  } catch {
    return false;
  }
}

/** noteWarned notes that the person knows it, so that it is said once. */
function noteWarned(): boolean {
  try {
    localStorage.setItem(warnedName, "said");
  } catch {
    // then it is said again the next time
  }
  return true;
}

/** SignIn asks for the passcode, and how this device is called. */
export function SignIn() {
  const queries = useQueryClient();
  const [passcode, setPasscode] = useState("");
  const [device, setDevice] = useState(usual);
  const [warned, setWarned] = useState(unencrypted ? wasWarned : true);
  const enter = useMutation({
    mutationFn: () => post<Session>("/session", { passcode, device }),
    onSuccess: async (session) => {
      await queries.cancelQueries({ queryKey: sessionQuery.queryKey }); // what was asked before would shut the door again
      queries.setQueryData(sessionQuery.queryKey, session);
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
              key={String(warned)} // it gets the focus once it may be typed in
              type="password"
              size="lg"
              autoFocus
              autoComplete="current-password"
              maxLength={72}
              disabled={!warned}
              value={passcode}
              onChange={(e) => setPasscode(e.target.value)}
            />
          </Form.Group>
          {unencrypted && !warned && (
            <Message variant="warning">
              What is typed here goes over the network unencrypted: whoever can read its traffic can read the
              passcode. Go on only on a network of your own.{" "}
              <Button variant="link" className="p-0 align-baseline" onClick={() => setWarned(noteWarned())}>
                It is my own network
              </Button>
            </Message>
          )}
          <Form.Group controlId="device">
            <Form.Label>Name of this device</Form.Label>
            <Form.Control maxLength={40} value={device} onChange={(e) => setDevice(e.target.value)} />
            <Form.Text>It is shown beside what is adjusted on this device.</Form.Text>
          </Form.Group>
        </Modal.Body>
        <Modal.Footer>
          <Button type="submit" size="lg" disabled={passcode === "" || !warned || enter.isPending}>
            Sign in
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
