import { Alert, Button } from "react-bootstrap";

/** Trouble tells what went wrong, and offers to try again where that can help. */
export function Trouble({ error, retry }: { error: Error; retry?: () => void }) {
  return (
    <Alert variant="danger" className="d-flex justify-content-between align-items-center">
      <span>{error.message}</span>
      {retry && (
        <Button variant="outline-danger" onClick={retry}>
          Try again
        </Button>
      )}
    </Alert>
  );
}

export function Waiting({ what }: { what: string }) {
  return (
    <p className="text-secondary" role="status">
      {what} …
    </p>
  );
}
