import type { TypedFact } from "../../wire/contract";

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
      return many("natural breath", "natural breaths");
    case "strokes":
      return many("stroke", "strokes");
    case "rate":
      return `${value} strokes a minute`;
    case "open_seconds":
      return `${value} seconds`;
    case "tempo":
      return `${value.replace("@", "")} counts a minute`;
    case "side":
      return `${value} side`;
    case "script":
      return `only you read “${value}”`;
    case "remark":
      return `remark “${value}”`;
    case "wait":
      return "waits for you";
    case "keep":
      return "kept as it is when the class is shortened";
    default:
      return value;
  }
}

/** checkWords says why somebody should look at a passage that was typed. */
export const checkWords: Record<string, string> = {
  words: "Not everything was understood; the rest is kept as a remark.",
  name: "Not in the practice book.",
  reading: "This can be read in another way.",
};

/** doubtText says what was made of a piece of a line that is doubtful. */
export function doubtText(kind: string, given: string): string {
  switch (kind) {
    case "name":
      return "Not in the practice book: a free stretch with this title.";
    case "reading":
      return `“${given}” can be something else.`;
    default:
      return `“${given}” is kept as a remark.`;
  }
}

export const assumedMark = "assumed";

function duration(seconds: number): string {
  const minutes = seconds / 60;
  if (seconds >= 60 && Number.isInteger(minutes)) return minutes === 1 ? "1 minute" : `${minutes} minutes`;
  return seconds === 1 ? "1 second" : `${seconds} seconds`;
}
