import type { OwnLine } from "../wire/contract";
import { clock } from "../player/format";
import { t } from "./text";

const stages = (): Record<string, string> => ({
  opening: t("language.in-the-opening"),
  closing: t("language.in-the-closing"),
  setup: t("language.before-the-first-round"),
  rest: t("language.in-the-rest"),
  recall: t("language.in-the-recall"),
  round: t("language.in-the-rounds"),
});

const sides = (): Record<string, string> => ({
  left: t("language.through-the-left"),
  right: t("language.through-the-right"),
  both: t("language.through-both"),
  mouth: t("frame.through-the-mouth"),
});

const phases = (): Record<string, string> => ({
  empty: t("language.empty-hold"),
  still: t("language.natural-pause"),
  beat: t("language.count-in"),
  lead: t("language.lead-in"),
});

/** placeText says where a line of the teacher's own words comes: "round 3, hold". */
export function placeText(line: OwnLine): string {
  const words = [
    line.stage === "" ? "" : (stages()[line.stage] ?? line.stage),
    rounds(line),
    line.breath > 0 ? t("frame.breath", { breath: line.breath }) : "",
    line.phase === "" ? "" : (phases()[line.phase] ?? line.phase),
    sides()[line.through] ?? "",
    line.part,
    line.second_ms < 0 ? "" : t("language.at", { second: clock(line.second_ms) }),
    line.every_ms > 0 ? t("language.and-every-s-after", { every: line.every_ms / 1000 }) : "",
  ].filter((word) => word !== "");
  return words.length === 0 ? t("language.all-the-time") : words.join(", ");
}

function rounds({ stage, first, last, last_round, phase, second_ms }: OwnLine): string {
  if (last_round) return stage === "rest" ? t("language.before-the-last-round") : t("language.last-round");
  if (first === 0) return phase !== "" && second_ms < 0 && stage === "" ? t("language.every-round") : "";
  const of = first === last ? t("language.round", { first }) : t("language.rounds-to", { first, last });
  return stage === "rest" ? t("language.after", { of }) : of;
}

const readers = () => ({
  teacher: t("language.only-you-see"),
  room: t("language.only-the-room-sees"),
  all: t("language.everybody-sees"),
});

/** readersText says who sees a line and when: "only you see it, 2 s ahead". */
export function readersText({ who, ahead_ms, say }: OwnLine): string {
  const ahead = ahead_ms > 0 ? t("language.s-ahead", { ahead: ahead_ms / 1000 }) : "";
  return `${readers()[who]}${ahead}${say ? t("language.said-aloud") : ""}`;
}
