import { Dropdown } from "react-bootstrap";
import { useNavigate } from "react-router";

type Props = { id: number; timed: boolean; save: () => Promise<void> };

/** FilesMenu is what can be made of a plan outside of the application: on paper, and as files. */
export function FilesMenu({ id, timed, save }: Props) {
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
    <Dropdown align="end">
      <Dropdown.Toggle variant="outline-secondary">Paper and files</Dropdown.Toggle>
      <Dropdown.Menu>
        {page("Running card", "card")}
        {page("Home card", "home")}
        <Dropdown.Divider />
        {file("Plan file", "file")}
        {file("Cue sheet, CSV", "sheet/csv")}
        {file("Cue sheet, WebVTT", "sheet/vtt")}
        {timed && file("Calendar entry", "calendar")}
      </Dropdown.Menu>
    </Dropdown>
  );
}
