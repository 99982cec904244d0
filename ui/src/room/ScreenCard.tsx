import { Form, Modal } from "react-bootstrap";
import type { Sides } from "../player/phases";
import { canStayAwake, mayGoDark } from "../player/useWakeLock";
import type { Light } from "../frame/light";

type Props = {
  lamps: boolean;
  onLamps: () => void;
  sides: Sides;
  onSides: (sides: Sides) => void;
  light: Light;
  onLight: () => void;
  onClose: () => void;
};

/** ScreenCard is what somebody in the room chooses for the own screen; nobody else's changes. */
export function ScreenCard({ lamps, onLamps, sides, onSides, light, onLight, onClose }: Props) {
  return (
    <Modal show centered onHide={onClose} aria-labelledby="screen">
      <Modal.Header closeButton>
        <Modal.Title id="screen">This screen</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Form.Check type="switch" id="lamps" label="Lamps" checked={lamps} onChange={onLamps} />
        <Form.Check
          type="switch"
          id="night"
          label="Night light"
          checked={light === "night"}
          onChange={onLight}
        />
        <Form.Group controlId="sides" className="mt-3">
          <Form.Label>How sides are said</Form.Label>
          <Form.Select value={sides} onChange={(e) => onSides(e.target.value as Sides)}>
            <option value="class">as the class says them</option>
            <option value="named">left and right</option>
            <option value="hand">by what the hand does</option>
          </Form.Select>
        </Form.Group>
        {!canStayAwake() && <p className="text-secondary mt-3 mb-0">{mayGoDark}</p>}
      </Modal.Body>
    </Modal>
  );
}
