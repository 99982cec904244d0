import type { TypedFact } from "../wire/contract";
import { t } from "./text";

/** factText says what was understood of a typed line: "6 rounds", "starting left". */
export function factText({ field, value }: TypedFact): string {
  switch (field) {
    case "rounds":
      return t("language.typed-rounds", { value: Number(value) });
    case "minutes":
      return t("language.typed-minutes", { value: Number(value) });
    case "seconds":
      return duration(Number(value));
    case "breaths":
      return t("language.typed-breaths", { value: Number(value) });
    case "strokes":
      return t("language.typed-strokes", { value: Number(value) });
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

export const assumedMark = () => t("language.assumed");

function duration(seconds: number): string {
  const minutes = seconds / 60;
  return seconds >= 60 && Number.isInteger(minutes)
    ? t("language.typed-minutes", { value: minutes })
    : t("language.typed-seconds", { value: seconds });
}
