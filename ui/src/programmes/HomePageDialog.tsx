import { useState } from "react";
import { Form, Modal } from "react-bootstrap";
import { now } from "../player/clock";
import { localInput } from "../player/days";
import type { ProgrammeCard } from "../wire/contract";
import { t } from "../language/text";

/** HomePageDialog hands a programme out as one page that plays at home, from a first day on. */
export function HomePageDialog({ card, onClose }: { card: ProgrammeCard; onClose: () => void }) {
  const [begins, setBegins] = useState(() => localInput(now()).slice(0, 10));
  return (
    <Modal show centered onHide={onClose} aria-labelledby="homepage">
      <Modal.Header closeButton closeLabel={t("frame.close")}>
        <Modal.Title id="homepage">{t("programmes.at-home", { name: card.name })}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>{t("programmes.one-page-with-each-class")}</p>
        <Form.Group controlId="home-begins">
          <Form.Label>{t("frame.day-1")}</Form.Label>
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
          {t("programmes.take-the-page")}
        </a>
      </Modal.Footer>
    </Modal>
  );
}
