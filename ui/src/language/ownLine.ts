import type { OwnLine } from "../wire/contract";
import { t, text } from "./text";

/** placeText says where a line of the teacher's own words comes: "round 3, hold". */
export const placeText = ({ place }: OwnLine): string => place.map(text).join(", ");

/** lineText is a line of the teacher's own words with where it comes. */
export const lineText = (line: OwnLine): string =>
  text({ id: "labelled.text", args: { label: placeText(line), text: line.text } });

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
