import { Alert, Button } from "react-bootstrap";
import type { Edited } from "./useEdited";

type Props = {
  /** as "This group was" */
  what: string;
  edited: Pick<Edited<unknown>, "changedElsewhere" | "typedBefore" | "takeStored">;
};

/** EditedNotice tells of what is typed that something else was saved on another screen meanwhile, or that it is of an earlier visit. */
export function EditedNotice({ what, edited }: Props) {
  if (edited.changedElsewhere)
    return (
      <Notice variant="warning" offers="Show theirs" onTake={edited.takeStored}>
        {what} changed on another screen since. What you have typed is still here: Save puts it in place of
        that.
      </Notice>
    );
  if (edited.typedBefore)
    return (
      <Notice variant="light" offers="Discard it" onTake={edited.takeStored}>
        What you typed here before is not saved yet.
      </Notice>
    );
  return null;
}

type NoticeProps = { variant: string; offers: string; onTake: () => void; children: React.ReactNode };

function Notice({ variant, offers, onTake, children }: NoticeProps) {
  return (
    <Alert variant={variant} className="d-flex gap-3 align-items-center">
      <span>{children}</span>
      <Button variant="outline-secondary" size="sm" className="ms-auto" onClick={onTake}>
        {offers}
      </Button>
    </Alert>
  );
}
