import type { OwnLine } from "../../wire/contract";
import { clock } from "../../player/format";

const stages: Record<string, string> = {
  opening: "in the opening",
  closing: "in the closing",
  setup: "before the first round",
  rest: "in the rest",
  recall: "in the recall",
  round: "in the rounds",
};

const sides: Record<string, string> = {
  left: "through the left",
  right: "through the right",
  both: "through both",
  mouth: "through the mouth",
};

const phases: Record<string, string> = {
  empty: "empty hold",
  still: "natural pause",
  beat: "count-in",
  lead: "lead-in",
};

/** placeText says where a line of the teacher's own words comes: "round 3, hold". */
export function placeText(line: OwnLine): string {
  const words = [
    line.stage === "" ? "" : (stages[line.stage] ?? line.stage),
    rounds(line),
    line.breath > 0 ? `breath ${line.breath}` : "",
    line.phase === "" ? "" : (phases[line.phase] ?? line.phase),
    sides[line.through] ?? "",
    line.part,
    line.second_ms < 0 ? "" : `at ${clock(line.second_ms)}`,
    line.every_ms > 0 ? `and every ${line.every_ms / 1000} s after it` : "",
  ].filter((word) => word !== "");
  return words.length === 0 ? "all the time" : words.join(", ");
}

function rounds({ stage, first, last, last_round, phase, second_ms }: OwnLine): string {
  if (last_round) return stage === "rest" ? "before the last round" : "last round";
  if (first === 0) return phase !== "" && second_ms < 0 && stage === "" ? "every round" : "";
  const of = first === last ? `round ${first}` : `rounds ${first} to ${last}`;
  return stage === "rest" ? `after ${of}` : of;
}

const readers = { teacher: "only you see it", room: "only the room sees it", all: "everybody sees it" };

/** readersText says who sees a line and when: "only you see it, 2 s ahead". */
export function readersText({ who, ahead_ms, say }: OwnLine): string {
  const ahead = ahead_ms > 0 ? `, ${ahead_ms / 1000} s ahead` : "";
  return `${readers[who]}${ahead}${say ? ", said aloud" : ""}`;
}
