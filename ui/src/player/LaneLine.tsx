import { useMemo } from "react";
import type { Score } from "../wire/contract";
import { hasLane, laneScore } from "./lane";
import { LampSheet } from "./LampSheet";
import { countShown, isStretch } from "./phases";
import { useSay } from "./say";
import { usePlace } from "./usePlace";
import { textOf, useShown } from "./useShown";

/** LaneLine is the gentler lane of the passage in progress in a line of its own: word, side and number, what comes, and its lamps. */
export function LaneLine({ score }: { score: Score }) {
  const lane = useMemo(() => laneScore(score), [score]);
  return lane && <Line score={lane} />;
}

function Line({ score }: { score: Score }) {
  const say = useSay();
  const place = usePlace(score);
  const shown = useShown(score, place);
  const { phase } = place;
  const only = useMemo(() => ({ ...score, phases: phase ? [phase] : [] }), [score, phase]);
  const passage = phase ? score.passages[phase.passage - 1] : undefined;
  if (!phase || !passage || !hasLane(passage)) return null;
  const [next] = textOf(shown, "next");
  return (
    <section className={`laneline ${phase.through || "none"}`} aria-label={say("lane-beside")}>
      <p className="name">
        {passage.lane_names.beside}
        {next && <small>{say("lane-next", { next })}</small>}
      </p>
      <p className="now" data-testid="lane">
        <b>{phase.word}</b> <span className="side">{phase.side}</span>
      </p>
      <p className="n">{isStretch(phase) ? "" : countShown(place)}</p>
      <LampSheet score={only} place={{ ...place, index: 0 }} />
    </section>
  );
}
