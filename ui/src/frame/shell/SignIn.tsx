import { sessionQuery } from "../../wire/queries";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form, Modal } from "react-bootstrap";
import { post } from "../../wire/api";
import type { Session } from "../../wire/contract";
import { again } from "../../wire/stream";
import { ErrorAlert } from "./ErrorAlert";
import { Message } from "./Message";
import { LanguageChoice } from "./LanguageChoice";
import { t } from "../../language/text";

/** usual is a name for this device, to be changed. */
function usual(): string {
  if (matchMedia("(pointer: coarse)").matches)
    return Math.min(screen.width, screen.height) < 600 ? t("frame.phone") : t("frame.tablet");
  return t("frame.laptop");
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
          <Modal.Title id="signin">{t("frame.vast-lantern")}</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          {enter.isError && <ErrorAlert error={enter.error} />}
          <Form.Group controlId="passcode" className="mb-3">
            <Form.Label>{t("frame.teachers-passcode")}</Form.Label>
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
              {t("frame.what-is-typed-here-goes-over")}{" "}
              <Button variant="link" className="p-0 align-baseline" onClick={() => setWarned(noteWarned())}>
                {t("frame.it-is-my-own-network")}
              </Button>
            </Message>
          )}
          <Form.Group controlId="device" className="mb-3">
            <Form.Label>{t("frame.name-of-this-device")}</Form.Label>
            <Form.Control maxLength={40} value={device} onChange={(e) => setDevice(e.target.value)} />
            <Form.Text>{t("frame.it-is-shown-beside")}</Form.Text>
          </Form.Group>
          <LanguageChoice />
        </Modal.Body>
        <Modal.Footer>
          <Button type="submit" size="lg" disabled={passcode === "" || !warned || enter.isPending}>
            {t("frame.sign-in")}
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
