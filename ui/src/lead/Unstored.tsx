import type { Unstored as Held } from "../wire/contract";
import { clock } from "../player/format";
import { verbName } from "../player/answers";

/** Unstored says exactly what is not in the data file yet, and why. The class goes on. */
export function Unstored({ unstored }: { unstored: Held }) {
  const { presses, why } = unstored;
  return (
    <div className="unstored" role="status">
      <strong>
        Not stored yet: {presses.map((p) => `${verbName(p.do)} at ${clock(p.at_ms)}`).join(", ")}.
      </strong>{" "}
      {why} The class goes on; keep the program running until this is gone.
    </div>
  );
}
