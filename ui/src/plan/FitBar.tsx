import { Button } from "react-bootstrap";
import { clock, minutes } from "../player/format";
import type { Editor } from "./usePlanEditor";
import { t } from "../language/text";

/** FitBar fits the plan to its slot, and tells what could be added where there is room. */
export function FitBar({ editor }: { editor: Editor }) {
  const { summary, message, ask } = editor;
  if (summary.slot_ms === 0 || summary.passages.length === 0) return null;
  const led = summary.passages.some((p) => p.rounds > 0);
  const whole = Math.abs(summary.spare_ms) < 1000;
  return (
    <div className="fitbar">
      {led && !whole && (
        <Button size="sm" variant="outline-primary" onClick={() => void ask({ do: "fit" })}>
          {t("plan.fit-to", { slot: minutes(summary.slot_ms) })}
        </Button>
      )}
      {summary.additions.length > 0 && (
        <>
          <span className="text-secondary">{t("plan.or-add")}</span>
          {summary.additions.map((more) => (
            <Button
              key={more.passage}
              size="sm"
              variant="outline-secondary"
              onClick={() =>
                void ask(
                  more.passage === 0
                    ? { do: "rest", length_ms: more.length_ms }
                    : { do: "rounds", passage: more.passage, rounds: more.rounds },
                )
              }
              title={t("plan.more", { length: clock(more.length_ms) })}
            >
              {more.passage === 0
                ? t("plan.of-rest", { length: clock(more.length_ms) })
                : t("plan.of", { rounds: more.rounds, name: summary.passages[more.passage - 1]?.name })}
            </Button>
          ))}
        </>
      )}
      <span role="status" className="message">
        {message}
      </span>
    </div>
  );
}
