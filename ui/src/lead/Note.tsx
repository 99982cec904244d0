import { useRef, useState } from "react";
import { Button, Modal } from "react-bootstrap";
import { usePadKeys } from "./usePadKeys";

/** The keys of the short list, under the left hand. */
const often: [string, string][] = [
  ["q", "settled"],
  ["w", "restless"],
  ["e", "hands tire"],
  ["r", "a latecomer"],
  ["a", "some dizzy"],
  ["s", "too quick for some"],
  ["d", "one more would have been good"],
];

/** Note is a short list of one key each, and a field in which no live key fires. */
export function Note({ onClose, onNote }: { onClose: () => void; onNote: (text: string) => void }) {
  const [typed, setTyped] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const add = () => (typed.trim() === "" ? onClose() : onNote(typed.trim()));
  usePadKeys((key) => {
    if (document.activeElement === field.current) return false;
    const text = often.find(([k]) => k === key)?.[1];
    if (text) onNote(text);
    else if (key === "t") field.current?.focus();
    else return false;
    return true;
  });
  return (
    <Modal show centered onHide={onClose} aria-labelledby="note" className="pad">
      <Modal.Header closeButton>
        <Modal.Title id="note">Note</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <div className="signals">
          {often.map(([key, text]) => (
            <Button key={text} variant="outline-secondary" onClick={() => onNote(text)}>
              <kbd>{key.toUpperCase()}</kbd> {text}
            </Button>
          ))}
        </div>
        <form
          className="d-flex gap-2 mt-3 align-items-center"
          onSubmit={(e) => {
            e.preventDefault();
            add();
          }}
        >
          <kbd>T</kbd>
          <input
            ref={field}
            className="form-control form-control-lg"
            aria-label="Note"
            placeholder="type it"
            maxLength={500}
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
          />
          <Button type="submit" size="lg" className="text-nowrap">
            Note it
          </Button>
        </form>
      </Modal.Body>
    </Modal>
  );
}
