import type { Key } from "../language/text";
import type { CoursePoint } from "../wire/contract";

export type Metric = "rounds" | "breath" | "rung" | "tempo" | "held" | "length";

/** What of a practice is plotted over the weeks. */
export const metrics: { id: Metric; name: Key; of: (p: CoursePoint) => number }[] = [
  { id: "rounds", name: "frame.rounds", of: (p) => p.rounds },
  { id: "breath", name: "groups.counts-of-a-breath", of: (p) => p.breath },
  { id: "rung", name: "groups.rung-of-the-ratio", of: (p) => p.rung },
  { id: "tempo", name: "frame.tempo", of: (p) => p.tempo },
  { id: "held", name: "groups.seconds-in-holds", of: (p) => Math.round(p.held_ms / 1000) },
  { id: "length", name: "groups.minutes", of: (p) => Math.round(p.length_ms / 6000) / 10 },
];
