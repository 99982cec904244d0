import { Form, Modal } from "react-bootstrap";
import type { Carries } from "../player/carries";
import type { Sides } from "../player/phases";
import { type Awake, awakeWords } from "../player/useAwake";
import { type Look, looks } from "./look";

/** counts is what a screen can show the count with, in the words of its choice. */
const counts: { [carries in Carries]: string } = {
  class: "as the class has it",
  both: "numbers and lamps",
  numbers: "numbers only",
  lamps: "lamps only",
  hidden: "neither: word, side and hand",
};

type Props = {
  carries: Carries;
  onCarries: (carries: Carries) => void;
  sides: Sides;
  onSides: (sides: Sides) => void;
  look: Look;
  onLook: (look: Look) => void;
  awake: Awake;
  onClose: () => void;
};

/** ScreenCard is what somebody in the room chooses for the own screen; nobody else's changes. */
export function ScreenCard({ carries, onCarries, sides, onSides, look, onLook, awake, onClose }: Props) {
  return (
    <Modal show centered onHide={onClose} aria-labelledby="screen">
      <Modal.Header closeButton>
        <Modal.Title id="screen">This screen</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Form.Group controlId="count">
          <Form.Label>The count</Form.Label>
          <Form.Select value={carries} onChange={(e) => onCarries(e.target.value as Carries)}>
            {Object.entries(counts).map(([id, name]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="look" className="mt-3">
          <Form.Label>Look</Form.Label>
          <Form.Select value={look} onChange={(e) => onLook(e.target.value as Look)}>
            {Object.entries(looks).map(([id, name]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="sides" className="mt-3">
          <Form.Label>How sides are said</Form.Label>
          <Form.Select value={sides} onChange={(e) => onSides(e.target.value as Sides)}>
            <option value="class">as the class says them</option>
            <option value="named">left and right</option>
            <option value="hand">by what the hand does</option>
          </Form.Select>
        </Form.Group>
        {awake !== "awake" && <p className="text-secondary mt-3 mb-0">{awakeWords[awake]}</p>}
      </Modal.Body>
    </Modal>
  );
}
