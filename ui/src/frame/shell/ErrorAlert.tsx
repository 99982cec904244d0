import { Button } from "react-bootstrap";
import { Message } from "./Message";
import { failureText } from "../../language/text";

/** ErrorAlert tells what went wrong, and offers to try again where that can help. */
export function ErrorAlert({ error, retry }: { error: Error; retry?: () => void }) {
  return (
    <Message variant="danger" className="d-flex justify-content-between align-items-center">
      <span>{failureText(error)}</span>
      {retry && (
        <Button variant="outline-danger" onClick={retry}>
          Try again
        </Button>
      )}
    </Message>
  );
}
