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
    case "wait":
      return "waits for you";
    case "keep":
      return "kept as it is when the class is shortened";
    default:
      return value;
  }
}

export const assumedMark = "assumed";

function duration(seconds: number): string {
  const minutes = seconds / 60;
  if (seconds >= 60 && Number.isInteger(minutes)) return minutes === 1 ? "1 minute" : `${minutes} minutes`;
  return seconds === 1 ? "1 second" : `${seconds} seconds`;
}
