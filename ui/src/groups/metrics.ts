import type { CoursePoint } from "../wire/contract";

export type Metric = "rounds" | "breath" | "rung" | "tempo" | "held" | "length";

/** What of a practice is plotted over the weeks. */
export const metrics: { id: Metric; name: string; of: (p: CoursePoint) => number }[] = [
  { id: "rounds", name: "Rounds", of: (p) => p.rounds },
  { id: "breath", name: "Counts of a breath", of: (p) => p.breath },
  { id: "rung", name: "Rung of the ratio", of: (p) => p.rung },
  { id: "tempo", name: "Tempo", of: (p) => p.tempo },
  { id: "held", name: "Seconds in holds", of: (p) => Math.round(p.held_ms / 1000) },
  { id: "length", name: "Minutes", of: (p) => Math.round(p.length_ms / 6000) / 10 },
];
