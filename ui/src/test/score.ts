import type { Score, ScorePassage, ScorePhase } from "../wire/contract";

/** aPhase is a phase of a score: four counts of an inhale at 60 unless it says otherwise. */
export function aPhase(change: Partial<ScorePhase> = {}): ScorePhase {
  const at_ms = change.at_ms ?? [0, 1000, 2000, 3000];
  return {
    passage: 1,
    practice: "counted-breath",
    stage: "round",
    round: 1,
    breath: 1,
    kind: "inhale",
    through: "both",
    first: 1,
    of: at_ms.length,
    at_ms,
    end_ms: at_ms.at(-1)! + 1000,
    says: at_ms.map((_, i) => (i === 0 ? "inhale" : String(i + 1))),
    shows: at_ms.map((_, i) => String(i + 1)),
    starts: false,
    kept: true,
    word: "inhale",
    side: "",
    fingers: "",
    open: false,
    ...change,
  };
}

/** aPassage is a passage of a score: counted breath in six rounds unless it says otherwise. */
export function aPassage(change: Partial<ScorePassage> = {}): ScorePassage {
  return {
    name: "Counted breath",
    type: "practice",
    practice: "counted-breath",
    rounds: 6,
    tempo: 60,
    script: "",
    pattern: "",
    choices: [],
    hand_at_nose: "",
    numbers: "shown",
    cards: [],
    hand_place: "",
    sides: [],
    side_breaths: 0,
    syllables: [],
    timed: false,
    lines_for: [],
    own_round: [],
    lanes: [],
    lane_names: { main: "", beside: "" },
    in_force: {
      tempo: 60,
      rounds: 6,
      counts: "4:4",
      four: [4, 0, 4, 0],
      strokes: 0,
      beside: "none",
      by_hand: [],
    },
    ...change,
  } as ScorePassage;
}

/** aScore is a class that stands at `at` ms, of these phases. */
export function aScore(phases: ScorePhase[], change: Partial<Score> = {}, at = 0): Score {
  return {
    class_id: 7,
    revision: 1,
    title: "Lunch",
    started_ms: -at,
    over: false,
    phases,
    lane: [],
    wait: null,
    end_ms: phases.at(-1)?.end_ms ?? 0,
    cues: [],
    lane_cues: [],
    spoken: [],
    passages: [aPassage()],
    fingers_by: "",
    ...change,
  } as Score;
}
