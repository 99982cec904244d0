import { useState } from "react";
import { Button, Modal } from "react-bootstrap";

const often = [
  "settled",
  "restless",
  "hands tire",
  "a latecomer",
  "some dizzy",
  "too quick for some",
  "one more would have been good",
];

/** Note is a field in which no live key fires, and a short list for one press. */
export function Note({ onClose, onNote }: { onClose: () => void; onNote: (text: string) => void }) {
  const [typed, setTyped] = useState("");
  const add = () => (typed.trim() === "" ? onClose() : onNote(typed.trim()));
  return (
    <Modal show centered onHide={onClose} aria-labelledby="note">
      <Modal.Header closeButton>
        <Modal.Title id="note">Note</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            add();
          }}
        >
          <input
            className="form-control form-control-lg"
            aria-label="Note"
            autoFocus
            maxLength={500}
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
          />
        </form>
        <div className="d-flex flex-wrap gap-2 mt-3">
          {often.map((text) => (
            <Button key={text} variant="outline-secondary" onClick={() => onNote(text)}>
              {text}
            </Button>
          ))}
        </div>
      </Modal.Body>
      <Modal.Footer>
        <Button onClick={add}>Note it</Button>
      </Modal.Footer>
    </Modal>
  );
}
