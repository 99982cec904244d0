import { verbName } from "../player/answers";
import { clock, plural, timeOfDay } from "../player/format";
import type { Preview, Score } from "../wire/contract";
import type { Control } from "./adjustments";

/** withPreview is a control with what it would do now, as the application has worked it out. */
export function withPreview(control: Control, preview: Preview | undefined, score: Score): Control {
  if (!preview) return control;
  switch (control.id) {
    case "undo":
      return preview.answer.refused
        ? { ...control, met: false, effect: "nothing to take back" }
        : { ...control, effect: `takes back: ${verbName(preview.answer.undone)}` };
    case "finish":
      return preview.answer.refused ? control : { ...control, effect: onTime(preview, score) };
  }
  return control;
}

/** onTime tells before it is pressed what finishing on time would do: "ends 20:40, 3:17 to spare: nothing to do". */
function onTime(preview: Preview, score: Score): string {
  const { answer, fewer, end_ms, change_ms } = preview;
  const takes = fewer > 0 ? `takes ${plural(fewer, "round")}` : "";
  if (answer.late_ms > 0)
    return [takes, `${clock(answer.late_ms)} late all the same`].filter(Boolean).join(", ");
  if (takes !== "") return `late by ${clock(end_ms - change_ms - score.slot_ms)}: ${takes}`;
  return `ends ${timeOfDay(score.started_ms + end_ms)}, ${clock(score.slot_ms - end_ms)} to spare: nothing to do`;
}
