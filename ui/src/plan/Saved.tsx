import { Button } from "react-bootstrap";
import { get } from "../wire/api";
import type { Plan } from "../wire/contract";
import { forgetUnsaved } from "./unsaved";
import type { Editor } from "./usePlanEditor";

/** Saved tells how far the saving is, and what to do where it failed. */
export function Saved({ editor, id }: { editor: Editor; id: number }) {
  const { saving } = editor;
  if (saving === "saved") return <span className="text-secondary">Saved</span>;
  if (saving === "saving") return <span className="text-secondary">Saving …</span>;
  return (
    <span className="text-danger d-flex gap-2 align-items-center" role="alert">
      Not saved: {saving.failed}
      {saving.conflict ? (
        <>
          <Button
            size="sm"
            variant="outline-secondary"
            onClick={() => {
              forgetUnsaved(id);
              window.location.reload();
            }}
          >
            Show the other
          </Button>
          <Button
            size="sm"
            variant="outline-danger"
            onClick={() => void get<Plan>(`/plans/${id}`).then((newest) => editor.overwrite(newest.revision))}
          >
            Keep this version
          </Button>
        </>
      ) : (
        <Button size="sm" variant="outline-danger" onClick={() => void editor.save()}>
          Try again
        </Button>
      )}
    </span>
  );
}
