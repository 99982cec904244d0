import { t, text } from "../language/text";
import type { Record } from "../wire/contract";

/** SeenAfter sets signs beside the lengths of the holds that they were seen after. */
export function SeenAfter({ record }: { record: Record }) {
  if (record.seen_after.length === 0) return null;
  return (
    <section aria-labelledby="seen-after">
      <h2 id="seen-after">{t("taught.signs-after-long-holds")}</h2>
      <ul>
        {record.seen_after.map(({ passage, phase, sign, seen, holds, over_ms }) => (
          <li key={`${passage} ${phase} ${sign.id}`}>
            {record.passages[passage - 1]?.name}:{" "}
            {text({ id: "record.seen-after", args: { phase, sign, seen, holds, seconds: over_ms / 1000 } })}
          </li>
        ))}
      </ul>
    </section>
  );
}
