import type { ScorePassage } from "../wire/contract";

/** Carries is what a screen shows the count with; "class" is as the plan has it. */
export type Carries = "class" | "both" | "numbers" | "lamps" | "hidden";

/** carried tells whether numbers and lamps are shown in a passage. */
export function carried(
  by: Carries,
  { numbers }: Pick<ScorePassage, "numbers">,
): { numbers: boolean; lamps: boolean } {
  const here = by === "class" ? numbers : by;
  return { numbers: here !== "lamps" && here !== "hidden", lamps: here !== "numbers" && here !== "hidden" };
}
