import { useState } from "react";
import { Button } from "react-bootstrap";
import { CompareVersions } from "./CompareVersions";
import type { Editor } from "./usePlanEditor";

/** Saved tells how far the saving is, and what to do where it failed. */
export function Saved({ editor, id }: { editor: Editor; id: number }) {
  const { saving } = editor;
  const [comparing, setComparing] = useState(false);
  if (saving === "saved") return <span className="text-secondary">Saved</span>;
  if (saving === "saving") return <span className="text-secondary">Saving …</span>;
  return (
    <span className="text-danger d-flex gap-2 align-items-center" role="alert">
      {saving.conflict ? (
        <>
          Not saved: another screen changed this plan.
          <Button size="sm" variant="outline-danger" onClick={() => setComparing(true)}>
            Compare
          </Button>
          {comparing && <CompareVersions editor={editor} id={id} onClose={() => setComparing(false)} />}
        </>
      ) : (
        <>
          Not saved: {saving.failed}
          <Button size="sm" variant="outline-danger" onClick={() => void editor.save()}>
            Try again
          </Button>
        </>
      )}
    </span>
  );
}
