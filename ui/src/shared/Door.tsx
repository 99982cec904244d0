import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Button, Form, Modal } from "react-bootstrap";
import { Outlet } from "react-router";
import { get, post, signedOut } from "./api";
import type { Session } from "./contract";
import { again } from "../wire/stream";
import { Trouble, Waiting } from "./Told";

/**
 * Door stands before the teacher's views where the application is open to the local network. Where a session runs out
 * while a view is open, the view stays as it is behind the door.
 */
export function Door() {
  const queries = useQueryClient();
  const session = useQuery({ queryKey: ["session"], queryFn: () => get<Session>("/session") });
  const [been, setBeen] = useState(false);
  const inside = session.data?.signed_in === true;
  if (inside && !been) setBeen(true);
  useEffect(() => {
    const ask = () => void queries.invalidateQueries({ queryKey: ["session"] });
    window.addEventListener(signedOut, ask);
    return () => window.removeEventListener(signedOut, ask);
  }, [queries]);
  if (session.isPending) return <Waiting what="Opening" />;
  if (session.isError && !been) return <Trouble error={session.error} retry={() => void session.refetch()} />;
  return (
    <>
      {been && <Outlet />}
      {session.data && !inside && <SignIn />}
    </>
  );
}

/** usual is a name for this device, to be changed. */
function usual(): string {
  if (matchMedia("(pointer: coarse)").matches)
    return Math.min(screen.width, screen.height) < 600 ? "phone" : "tablet";
  return "laptop";
}

function SignIn() {
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
          {enter.isError && <Trouble error={enter.error} />}
          <Form.Group controlId="passcode" className="mb-3">
            <Form.Label>Passcode of the teacher</Form.Label>
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
            <Form.Text>It stands beside what is adjusted on it.</Form.Text>
          </Form.Group>
        </Modal.Body>
        <Modal.Footer>
          <Button type="submit" size="lg" disabled={passcode === "" || enter.isPending}>
            Come in
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
