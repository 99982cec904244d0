import { ToggleButton, ToggleButtonGroup } from "react-bootstrap";
import type { Change, PassageSummary } from "../wire/contract";
import { t, wordOf } from "../language/text";

/** PacerRow asks who sets the pace of a practice: the beat, the teacher's breath, or each person. */
export function PacerRow({
  summary,
  onAsk,
}: {
  summary: PassageSummary;
  onAsk: (change: Change) => Promise<string | null>;
}) {
  if (summary.pacers.length < 2) return null;
  const name = `pacer-${summary.start_ms}`;
  return (
    <div className="pacer" role="group" aria-label={t("frame.who-sets-the-pace")}>
      <span>{t("frame.who-sets-the-pace")}</span>
      <ToggleButtonGroup
        type="radio"
        name={name}
        size="sm"
        value={summary.pacer}
        onChange={(pacer: PassageSummary["pacer"]) => void onAsk({ do: "pacer", pacer })}
      >
        {summary.pacers.map((pacer) => (
          <ToggleButton key={pacer} id={`${name}-${pacer}`} value={pacer} variant="outline-secondary">
            {wordOf("pacer", pacer)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {summary.pacer === "hand" && <span className="hint">{t("plan.your-go-on-key-ends-each")}</span>}
    </div>
  );
}
