import { useState } from "react";
import { Dropdown } from "react-bootstrap";
import { useNavigate } from "react-router";
import type { PlanSummary } from "../wire/contract";
import { DeleteCard } from "../frame/dialogs/DeleteCard";
import { BeginProgramme } from "./BeginProgramme";

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
        <Dropdown.Toggle variant="outline-secondary">Paper and files</Dropdown.Toggle>
        <Dropdown.Menu>
          {page("Running card", "card")}
          {page("Home practice", "home")}
          <Dropdown.Divider />
          {page("As text", "text")}
          {file("For a substitute, one page", "substitute")}
          {file("Plan file", "file")}
          {file("Cue sheet, CSV", "sheet/csv")}
          {file("Cue sheet, WebVTT", "sheet/vtt")}
          {timed && file("Calendar entry", "calendar")}
          <Dropdown.Divider />
          <Dropdown.Item onClick={() => void save().then(() => setBeginning(true))}>
            Begin a programme with it
          </Dropdown.Item>
          <Dropdown.Divider />
          <Dropdown.Item className="text-danger" onClick={() => void save().then(() => setDeleting(true))}>
            Delete the plan
          </Dropdown.Item>
        </Dropdown.Menu>
      </Dropdown>
      {beginning && <BeginProgramme id={id} onClose={() => setBeginning(false)} />}
      {deleting && <DeleteCard kind="plan" id={id} name={title} to="/" onClose={() => setDeleting(false)} />}
    </>
  );
}
