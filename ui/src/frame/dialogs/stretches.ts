import type { HomeStretch } from "../../wire/contract";
import { t } from "../../language/text";

/** daysOf names the days of a step: "days 1 to 3", "from day 8". */
export function daysOf({ first, last }: Pick<HomeStretch, "first" | "last">): string {
  if (last === 0) return t("frame.from-day", { first });
  return first === last ? t("frame.day", { first }) : t("frame.days-to", { first, last });
}

/** noonOf is the middle of a calendar day, written as 2026-11-30, or of one of the days from it on, on this device. */
export function noonOf(begins: string, number = 1): number {
  const [year, month, day] = begins.split("-").map(Number) as [number, number, number];
  return new Date(year, month - 1, day + number - 1, 12).getTime();
}
