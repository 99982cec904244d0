import type { OwnLine } from "../wire/contract";
import { placeText, readersText } from "../language/ownLine";

/** OwnLines says of each line of the teacher's own words how its place was understood. */
export function OwnLines({ lines }: { lines: OwnLine[] }) {
  if (lines.length === 0) return null;
  return (
    <ul className="ownlines">
      {lines.map((line, i) => (
        <li key={i}>
          “{line.text}”: {placeText(line)}; {readersText(line)}.
        </li>
      ))}
    </ul>
  );
}
