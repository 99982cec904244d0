import { useMemo } from "react";
import type { Score } from "../wire/contract";
import type { Carries } from "./carries";
import { hasLane, laneScore } from "./lane";
import type { Sides } from "./phases";
import { Stage } from "./Stage";
import { usePlace } from "./usePlace";

type Props = { score: Score; sides?: Sides; carries?: Carries };

/** LaneStage is the gentler lane of the passage in progress, where it has one: the same stage, under its own name. */
export function LaneStage({ score, sides, carries }: Props) {
  const lane = useMemo(() => laneScore(score), [score]);
  return lane && <Lane score={lane} sides={sides} carries={carries} />;
}

function Lane({ score, sides, carries }: Props) {
  const place = usePlace(score);
  const passage = place.phase ? score.passages[place.phase.passage - 1] : undefined;
  if (!passage || !hasLane(passage)) return null;
  return (
    <div className="stagebox beside">
      <Stage
        score={score}
        place={place}
        sides={sides}
        carries={carries}
        called={passage.lane_names.beside}
        aside=""
      />
    </div>
  );
}
