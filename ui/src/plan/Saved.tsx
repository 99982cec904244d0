import { useState } from "react";
import { Button } from "react-bootstrap";
import { CompareVersions } from "./CompareVersions";
import type { Editor } from "./usePlanEditor";
import { t } from "../language/text";

/** Saved tells how far the saving is, and what to do where it failed. */
export function Saved({ editor, id }: { editor: Editor; id: number }) {
  const { saving } = editor;
  const [comparing, setComparing] = useState(false);
  if (saving === "saved") return <span className="text-secondary">{t("plan.saved")}</span>;
  if (saving === "saving") return <span className="text-secondary">{t("plan.saving")}</span>;
  return (
    <span className="text-danger d-flex gap-2 align-items-center" role="alert">
      {saving.conflict ? (
        <>
          {t("plan.not-saved-another-screen-changed")}
          <Button size="sm" variant="outline-danger" onClick={() => setComparing(true)}>
            {t("plan.compare")}
          </Button>
          {comparing && <CompareVersions editor={editor} id={id} onClose={() => setComparing(false)} />}
        </>
      ) : (
        <>
          {t("plan.not-saved", { failed: saving.failed })}
          <Button size="sm" variant="outline-danger" onClick={() => void editor.save()}>
            {t("frame.try-again")}
          </Button>
        </>
      )}
    </span>
  );
}
