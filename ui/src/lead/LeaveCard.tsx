import { Button, Modal } from "react-bootstrap";
import type { useBlocker } from "react-router";
import { forget } from "./useGap";

/** LeaveCard asks whether to leave the lead screen while a class goes on. */
export function LeaveCard({ leaving }: { leaving: ReturnType<typeof useBlocker> }) {
  return (
    <Modal
      show={leaving.state === "blocked"}
      centered
      onHide={() => leaving.reset?.()}
      aria-labelledby="leaving"
    >
      <Modal.Header>
        <Modal.Title id="leaving">Leave the lead screen?</Modal.Title>
      </Modal.Header>
      <Modal.Body>The class goes on. You can pick it up again from any screen.</Modal.Body>
      <Modal.Footer>
        <Button
          variant="outline-secondary"
          onClick={() => {
            forget();
            leaving.proceed?.();
          }}
        >
          Leave
        </Button>
        <Button autoFocus onClick={() => leaving.reset?.()}>
          Stay
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
