import { clock, timeOfDay } from "../player/format";
import type { Preview, Score } from "../wire/contract";
import type { Control } from "./adjustments";
import { t, wordOf } from "../language/text";

/**
 * withPreview is a control with what it would do now, as the application has worked it out. A preview that is not settled is
 * of a moment before: it is shown, and says nothing about whether the control is accepted.
 */
export function withPreview(
  control: Control,
  preview: Preview | undefined,
  score: Score,
  settled: boolean,
): Control {
  if (!preview) return control;
  const shown = previewed(control, preview, score);
  return settled ? shown : { ...shown, met: control.met };
}

function previewed(control: Control, preview: Preview, score: Score): Control {
  switch (control.id) {
    case "undo":
      return preview.answer.refused
        ? { ...control, met: false, effect: t("lead.nothing-to-take-back") }
        : {
            ...control,
            effect: t("lead.takes-back", { value: wordOf("verb", preview.answer.undone ?? "") }),
          };
    case "slower":
    case "faster":
      return { ...control, effect: [control.effect, roundsChanged(preview)].filter(Boolean).join(", ") };
    case "fewer":
    case "more":
    case "last":
    case "again":
    case "close":
      return preview.answer.refused ? { ...control, met: false, effect: "" } : control;
    case "holds":
      return withoutHolds(control, preview);
    case "finish":
      return preview.answer.refused ? control : { ...control, effect: onTime(preview, score) };
  }
  return control;
}

/** roundsChanged is the rounds that a change of tempo takes or gives where the minutes are kept: "9 rounds to 8". */
function roundsChanged({ answer }: Preview): string {
  const { before, after } = answer;
  if (answer.refused || before.rounds === after.rounds) return "";
  return t("lead.to", { rounds: before.rounds, rounds2: after.rounds });
}

/** withoutHolds dims "No holds" where there are none to leave out, here and in the closing. */
function withoutHolds(control: Control, { answer, change_ms }: Preview): Control {
  if (answer.do !== "drop-holds") return control;
  const none = !holdsIn(answer.before.counts) && change_ms === 0;
  return none || answer.refused ? { ...control, met: false, effect: t("lead.there-are-none") } : control;
}

/** holdsIn tells whether counts as 4:4:8 have a hold. */
function holdsIn(counts: string): boolean {
  const terms = counts.split(":").map(Number);
  return (terms.length > 2 && terms[1]! > 0) || (terms[3] ?? 0) > 0;
}

/** onTime tells before it is pressed what finishing on time would do: "ends 20:40, 3:17 to spare: nothing to do". */
function onTime(preview: Preview, score: Score): string {
  const { answer, fewer, end_ms, change_ms } = preview;
  const takes = fewer > 0 ? t("lead.takes", { fewer }) : "";
  if (answer.late_ms > 0)
    return [takes, t("lead.late-all-the-same", { late: clock(answer.late_ms) })].filter(Boolean).join(", ");
  if (takes !== "") return t("lead.late-by", { end: clock(end_ms - change_ms - score.slot_ms), takes });
  return t("lead.ends-to-spare-nothing-to-do", {
    started: timeOfDay(score.started_ms + end_ms),
    slot: clock(score.slot_ms - end_ms),
  });
}
