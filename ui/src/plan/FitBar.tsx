import { Button } from "react-bootstrap";
import { clock, minutes, plural } from "../player/format";
import type { Editor } from "./usePlanEditor";

/** FitBar fits the plan to its slot, and tells what could be added where there is room. */
export function FitBar({ editor }: { editor: Editor }) {
  const { summary, told, ask } = editor;
  if (summary.slot_ms === 0 || summary.passages.length === 0) return null;
  const led = summary.passages.some((p) => p.rounds > 0);
  const whole = Math.abs(summary.spare_ms) < 1000;
  return (
    <div className="fitbar">
      {led && !whole && (
        <Button size="sm" variant="outline-primary" onClick={() => void ask({ fit: true })}>
          Fit to {minutes(summary.slot_ms)}
        </Button>
      )}
      {summary.could.length > 0 && (
        <>
          <span className="text-secondary">or add</span>
          {summary.could.map((more) => (
            <Button
              key={more.passage}
              size="sm"
              variant="outline-secondary"
              onClick={() => void ask({ more })}
              title={`${clock(more.length_ms)} more`}
            >
              {more.passage === 0
                ? `${clock(more.length_ms)} of rest`
                : `${plural(more.rounds, "round")} of ${summary.passages[more.passage - 1]?.name}`}
            </Button>
          ))}
        </>
      )}
      <span role="status" className="told">
        {told}
      </span>
    </div>
  );
}
