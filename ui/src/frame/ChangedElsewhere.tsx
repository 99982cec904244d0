import { Alert, Button } from "react-bootstrap";

type Props = {
  /** as "This group was" */
  what: string;
  onTheirs: () => void;
};

/** ChangedElsewhere tells that something was saved on another screen while this one was typed in (useEdited). */
export function ChangedElsewhere({ what, onTheirs }: Props) {
  return (
    <Alert variant="warning" className="d-flex gap-3 align-items-center">
      {what} changed on another screen since. What you have typed is still here: Save puts it in place of
      that.
      <Button variant="outline-secondary" size="sm" className="ms-auto" onClick={onTheirs}>
        Show theirs
      </Button>
    </Alert>
  );
}
