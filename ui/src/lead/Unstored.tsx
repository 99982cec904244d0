import type { Unstored as Held } from "../wire/contract";
import { clock } from "../player/format";
import { rich, t, text, wordOf } from "../language/text";

/** Unstored says exactly what is not in the data file yet, and why. The class goes on. */
export function Unstored({ unstored }: { unstored: Held }) {
  const { presses, why } = unstored;
  return (
    <div className="unstored" role="status">
      {rich("lead.the-class-goes-on-keep", {
        strong: <strong>{t("lead.not-stored-yet", { presses: listed(presses) })}</strong>,
        why: text(why),
      })}
    </div>
  );
}

/** listed names what was pressed, each kind once with the first time it was. */
function listed(presses: Held["presses"]): string {
  const kinds = new Map<string, Held["presses"]>();
  for (const press of presses) kinds.set(press.do, [...(kinds.get(press.do) ?? []), press]);
  return [...kinds.values()]
    .map((of) =>
      t("lead.at", {
        value: wordOf("verb", of[0]!.do),
        at: clock(of[0]!.at_ms),
        more: of.length - 1,
      }),
    )
    .join(", ");
}
