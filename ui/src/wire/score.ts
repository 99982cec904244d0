import type { PackedPhases, Packing, Score, ScorePhase } from "./contract";

type Packed = Score & { packed_lists: Packing };

/** opened is an answer of the application with every score in it unpacked, wherever it stands. */
export function opened<Shape>(answer: Shape): Shape {
  if (typeof answer !== "object" || answer === null) return answer;
  if (Array.isArray(answer)) return answer.map(opened) as Shape;
  if ("packed_lists" in answer) return unpacked(answer as unknown as Packed) as Shape;
  return Object.fromEntries(Object.entries(answer).map(([name, part]) => [name, opened(part)])) as Shape;
}

/** unpacked has the lists of a score written out: studio/contract/packed.go tells how they are packed. */
function unpacked({ packed_lists: packed, ...score }: Packed): Score {
  let moment = 0;
  const moments = packed.moments.map((step) => (moment += step));
  let read = 0;
  let at = 0;
  /** time is where in the moments the next time is. */
  const time = () => (at += packed.times[read++]!);
  const phases = ({ looks, rounds, breaths }: PackedPhases) => {
    let round = 0;
    let breath = 0;
    return looks.map((look, i): ScorePhase => {
      const phase = packed.looks[look]!;
      const first = time();
      const end = first + phase.says.length;
      round += rounds[i]!;
      breath += breaths[i]!;
      return { ...phase, round, breath, at_ms: moments.slice(first, end), end_ms: moments[end]! };
    });
  };
  const cues = (list: number[]) =>
    list.map((i) => ({ ...packed.cues[i]!, at_ms: moments[time()]!, until_ms: moments[time()]! }));
  const spoken = (list: number[]) => list.map((i) => ({ ...packed.says[i]!, at_ms: moments[time()]! }));
  // In the order of packed.times.
  score.phases = phases(packed.phases);
  score.lane = phases(packed.lane);
  const waiting = phases(packed.wait);
  if (score.wait) score.wait.phases = waiting;
  score.cues = cues(packed.main_cues);
  score.lane_cues = cues(packed.lane_cues);
  score.spoken = spoken(packed.spoken);
  score.lane_spoken = spoken(packed.lane_spoken);
  return score;
}

/** newer keeps the score that knows more: answers and the stream may cross. */
export function newer(old: Score | undefined, fresh: Score): Score {
  if (!old) return fresh;
  const later = old.revision - fresh.revision || (old.edition ?? 0) - (fresh.edition ?? 0);
  return later > 0 ? old : fresh;
}
