import type { TypedFact } from "../../wire/contract";
import { t } from "../text";

/** factText says what was understood of a typed line: "6 rounds", "starting left". */
export function factText({ field, value }: TypedFact): string {
  const many = (one: string, several: string) => `${value} ${value === "1" ? one : several}`;
  switch (field) {
    case "rounds":
      return many("round", "rounds");
    case "minutes":
      return many("minute", "minutes");
    case "seconds":
      return duration(Number(value));
    case "breaths":
      return many(t("language.natural-breath"), t("language.natural-breaths"));
    case "strokes":
      return many("stroke", "strokes");
    case "rate":
      return t("language.strokes-a-minute", { value });
    case "open_seconds":
      return t("language.seconds", { value });
    case "tempo":
      return t("language.counts-a-minute", { value: value.replace("@", "") });
    case "side":
      return t("language.side", { value });
    case "script":
      return t("language.only-you-read", { value });
    case "remark":
      return t("language.remark", { value });
    case "wait":
      return t("frame.waits-for");
    case "keep":
      return t("language.kept-as");
    default:
      return value;
  }
}

/** checkWords says why somebody should look at a passage that was typed. */
export const checkWords = (): Record<string, string> => ({
  words: t("language.not-everything-was-understood-the-rest"),
  name: t("language.not-in-the-practice-book-2"),
  reading: t("language.this-can-be-read-in-another"),
});

/** doubtText says what was made of a piece of a line that is doubtful. */
export function doubtText(kind: string, given: string): string {
  switch (kind) {
    case "name":
      return t("language.not-in-the-practice-book");
    case "reading":
      return t("language.can-be-something-else", { given });
    default:
      return t("language.is-kept-as-a-remark", { given });
  }
}

export const assumedMark = "assumed";

function duration(seconds: number): string {
  const minutes = seconds / 60;
  if (seconds >= 60 && Number.isInteger(minutes))
    return minutes === 1 ? "1 minute" : t("language.minutes", { minutes });
  return seconds === 1 ? "1 second" : t("language.seconds-2", { seconds });
}
