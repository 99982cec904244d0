import { useState } from "react";
import { Dropdown } from "react-bootstrap";
import { useNavigate } from "react-router";
import type { PlanSummary } from "../wire/contract";
import { DeleteCard } from "../frame/dialogs/DeleteCard";
import { BeginProgramme } from "./BeginProgramme";
import { t } from "../language/text";

type Props = { id: number; title: string; summary: PlanSummary; save: () => Promise<void> };

/** FilesMenu is what can be made of a plan outside of the application: on paper, and as files. */
export function FilesMenu({ id, title, summary, save }: Props) {
  const [beginning, setBeginning] = useState(false);
  const [deleting, setDeleting] = useState(false);
  const timed = summary.starts_ms !== null;
  const navigate = useNavigate();
  const file = (name: string, path: string) => (
    <Dropdown.Item
      key={path}
      onClick={() =>
        // What is on the screen is what is handed out.
        void save().then(() => window.location.assign(`/api/plans/${id}/${path}`))
      }
    >
      {name}
    </Dropdown.Item>
  );
  const page = (name: string, path: string) => (
    <Dropdown.Item key={path} onClick={() => void save().then(() => navigate(`/plan/${id}/${path}`))}>
      {name}
    </Dropdown.Item>
  );
  return (
    <>
      <Dropdown align="end">
        <Dropdown.Toggle variant="outline-secondary">{t("frame.paper-and-files")}</Dropdown.Toggle>
        <Dropdown.Menu>
          {page(t("plan.running-card"), "card")}
          {page(t("frame.home-practice"), "home")}
          <Dropdown.Divider />
          {page(t("plan.as-text"), "text")}
          {file(t("plan.for-a-substitute-one-page"), "substitute")}
          {file(t("frame.plan-file"), "file")}
          {file(t("plan.cue-sheet-csv"), "sheet/csv")}
          {file(t("plan.cue-sheet-webvtt"), "sheet/vtt")}
          {timed && file(t("plan.calendar-entry"), "calendar")}
          <Dropdown.Divider />
          <Dropdown.Item onClick={() => void save().then(() => setBeginning(true))}>
            {t("plan.begin-a-programme")}
          </Dropdown.Item>
          <Dropdown.Divider />
          <Dropdown.Item className="text-danger" onClick={() => void save().then(() => setDeleting(true))}>
            {t("plan.delete-the-plan")}
          </Dropdown.Item>
        </Dropdown.Menu>
      </Dropdown>
      {beginning && <BeginProgramme id={id} onClose={() => setBeginning(false)} />}
      {deleting && <DeleteCard kind="plan" id={id} name={title} to="/" onClose={() => setDeleting(false)} />}
    </>
  );
}
