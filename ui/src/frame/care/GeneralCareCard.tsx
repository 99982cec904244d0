import { Button, Modal } from "react-bootstrap";

/** GeneralCareCard is the caution for everyone, to be read. */
export function GeneralCareCard({ text, onClose }: { text: string; onClose: () => void }) {
  return (
    <Modal show centered onHide={onClose} aria-labelledby="care">
      <Modal.Header closeButton>
        <Modal.Title id="care">Before anything else</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>{text}</p>
        <p className="mb-0">
          Every strong practice shows its own cautions: in the practice book, in a plan, before it is led, and
          under one key while it is led.
        </p>
      </Modal.Body>
      <Modal.Footer>
        <Button onClick={onClose} autoFocus>
          I have read this
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
