import { Table } from "react-bootstrap";
import type { Settings } from "../../wire/contract";
import { rowsOf } from "./keyRows";

/** KeyTable is every key and what it does. */
export function KeyTable({ settings }: { settings: Settings | undefined }) {
  return (
    <Table size="sm" className="mb-0">
      <tbody>
        {rowsOf(settings).map(([key, does]) => (
          <tr key={key}>
            <th scope="row">
              <kbd>{key}</kbd>
            </th>
            <td>{does}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
