import { useQuery } from "@tanstack/react-query";
import { Table } from "react-bootstrap";
import { get } from "../wire/api";
import type { Settings } from "../wire/contract";
import { type Group, keyName } from "./adjustments";
import { Pad } from "./Pad";

/** KeyCard lists every key. */
export function KeyCard({ groups, onClose }: { groups: Group[]; onClose: () => void }) {
  const { data: settings } = useQuery({ queryKey: ["settings"], queryFn: () => get<Settings>("/settings") });
  const means = (id: string | undefined) => settings?.pedals?.find((way) => way.id === id)?.says ?? "";
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
    ["Page Down", `Pedal: ${means(settings?.pedal_down)}`],
    ["Page Up", `Pedal: ${means(settings?.pedal_up)}`],
  ];
  return (
    <Pad title="Keys" onClose={onClose}>
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
      <p className="text-secondary mt-3 mb-0">+0:36 on a key: the class would end so much later.</p>
    </Pad>
  );
}
