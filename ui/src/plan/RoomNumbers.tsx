import { Form } from "react-bootstrap";
import { text } from "../frame/editing/fields";
import { wordOf } from "../language/text";
import type { Editor } from "./usePlanEditor";

const screens = ["shown", "lamps", "hidden"];

/** RoomNumbers is what carries the count on the room's screens in the whole class; a passage can have it otherwise. */
export function RoomNumbers({ editor }: { editor: Editor }) {
  const { document } = editor;
  const given = text(document.numbers);
  return (
    <Form.Group controlId="room-numbers" className="roomnumbers">
      <Form.Label>{wordOf("label", "numbers")}</Form.Label>
      <Form.Select
        size="sm"
        value={given || "shown"}
        onChange={(e) => {
          const next = { ...document, numbers: e.target.value };
          if (e.target.value === "shown") delete (next as { numbers?: string }).numbers;
          editor.change({ document: next });
        }}
      >
        {given !== "" && !screens.includes(given) && <option value={given}>{given}</option>}
        {screens.map((screen) => (
          <option key={screen} value={screen}>
            {wordOf("label.numbers", screen)}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}
