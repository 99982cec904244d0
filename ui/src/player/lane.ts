import type { Score, ScorePassage, ScorePhase } from "../wire/contract";

// What the lane has of its own; lines and calls are everybody's.
const own = ["now", "next", "hand"];

/**
 * laneScore is the score as those play it who take the gentler lane: its phases and cues in the same time. The teacher's script
 * stands with the main lane. It is null where nothing stands beside.
 */
export function laneScore(score: Score): Score | null {
  if (score.lane.length === 0) return null;
  return {
    ...score,
    phases: score.lane.map(said),
    cues: [...score.lane_cues, ...score.cues.filter((c) => !own.includes(c.kind))],
    lane_spoken: [], // its own phases say it
    wait: null,
    passages: score.passages.map((p) => ({ ...p, script: "", lines_for: [] })),
  };
}

/** said gives a phase of the lane what a voice says for those in it alone: the sheet says nothing there, since it is the room's. */
function said(phase: ScorePhase): ScorePhase {
  const word = `${phase.word} ${phase.side}`.trim();
  return { ...phase, says: phase.shows.map((number, i) => (i === 0 ? word : number)) };
}

/** hasLane tells whether something stands beside the passage as it is in force. */
export function hasLane(passage: ScorePassage | undefined): boolean {
  return (passage?.lane_names.beside ?? "") !== "";
}

export type Lane = "main" | "beside";
