import { useState } from "react";
import { Form, Modal } from "react-bootstrap";
import { now } from "../player/clock";
import { localInput } from "../player/days";
import type { ProgrammeCard } from "../wire/contract";

/** HomePageDialog hands a programme out as one page that plays at home, from a first day on. */
export function HomePageDialog({ card, onClose }: { card: ProgrammeCard; onClose: () => void }) {
  const [begins, setBegins] = useState(() => localInput(now()).slice(0, 10));
  return (
    <Modal show centered onHide={onClose} aria-labelledby="homepage">
      <Modal.Header closeButton>
        <Modal.Title id="homepage">{card.name}, at home</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>
          One page with each class of the programme on its days, without the talks. It plays without a
          network, knows its day, and remembers what was done only on the device where it is opened.
        </p>
        <Form.Group controlId="home-begins">
          <Form.Label>Day 1</Form.Label>
          <Form.Control type="date" required value={begins} onChange={(e) => setBegins(e.target.value)} />
        </Form.Group>
      </Modal.Body>
      <Modal.Footer>
        <a
          className="btn btn-primary"
          href={`/api/programmes/${card.id}/page?begins=${begins}`}
          download
          onClick={onClose}
        >
          Take the page
        </a>
      </Modal.Footer>
    </Modal>
  );
}
