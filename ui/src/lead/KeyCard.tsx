import { Modal, Table } from "react-bootstrap";
import { type Group, keyName } from "./controls";

/** KeyCard lists every key. */
export function KeyCard({ groups, onClose }: { groups: Group[]; onClose: () => void }) {
  const rows: [string, string][] = [
    ["Space", "Natural breath for everybody, at once"],
    ["F", "Go on: ends what is not counted; in a pause, takes the round up again"],
    ...groups
      .flatMap((g) => g.controls)
      .map((c): [string, string] => [keyName(c.key), `${c.name}${c.twice ? " (press twice)" : ""}`]),
    ["1", "Seen: what is seen in the room, and what to do about it"],
    ["2", "Tap the room's counts or inhales, and take its tempo"],
    ["4", "Counts, or strokes"],
    ["B", "Note"],
    ["T", "Cautions"],
    ["?", "This card"],
    ["Page Down", "Pedal: go on"],
    ["Page Up", "Pedal: natural breath"],
  ];
  return (
    <Modal show centered onHide={onClose} aria-labelledby="keys">
      <Modal.Header closeButton>
        <Modal.Title id="keys">Keys</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Table size="sm" className="mb-0">
          <tbody>
            {rows.map(([key, does]) => (
              <tr key={key}>
                <th scope="row">
                  <kbd>{key}</kbd>
                </th>
                <td>{does}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Modal.Body>
    </Modal>
  );
}
