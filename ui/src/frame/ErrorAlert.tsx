import { Button } from "react-bootstrap";
import { Message } from "./Message";

/** ErrorAlert tells what went wrong, and offers to try again where that can help. */
export function ErrorAlert({ error, retry }: { error: Error; retry?: () => void }) {
  return (
    <Message variant="danger" className="d-flex justify-content-between align-items-center">
      <span>{error.message}</span>
      {retry && (
        <Button variant="outline-danger" onClick={retry}>
          Try again
        </Button>
      )}
    </Message>
  );
}
