import type { Unstored as Held } from "../wire/contract";
import { clock } from "../player/format";
import { text, wordOf } from "../language/text";

/** Unstored says exactly what is not in the data file yet, and why. The class goes on. */
export function Unstored({ unstored }: { unstored: Held }) {
  const { presses, why } = unstored;
  return (
    <div className="unstored" role="status">
      <strong>Not stored yet: {listed(presses)}.</strong> {text(why)} The class goes on; keep the program
      running until this is gone.
    </div>
  );
}

/** listed names what was pressed, each kind once with the first time it was. */
function listed(presses: Held["presses"]): string {
  const kinds = new Map<string, Held["presses"]>();
  for (const press of presses) kinds.set(press.do, [...(kinds.get(press.do) ?? []), press]);
  return [...kinds.values()]
    .map(
      (of) =>
        `${wordOf("verb", of[0]!.do)} at ${clock(of[0]!.at_ms)}${of.length > 1 ? ` and ${of.length - 1} more` : ""}`,
    )
    .join(", ");
}
