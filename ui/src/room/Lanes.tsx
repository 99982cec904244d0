import "./lanes.css";
import { useMemo, useState, useSyncExternalStore } from "react";
import { hasLane, type Lane, laneNames, laneScore } from "../player/lane";
import { LaneStage } from "../player/LaneStage";
import { usePlace } from "../player/usePlace";
import { Playing, type PlayingProps } from "./Playing";

/** Lanes is a class with two lanes: a phone plays the one that it has chosen, and where there is room both stand side by side. */
export function Lanes({ score, ...rest }: PlayingProps) {
  const [lane, setLane] = useState<Lane>(() =>
    localStorage.getItem("room:lane") === "beside" ? "beside" : "main",
  );
  const gentle = useMemo(() => laneScore(score), [score]);
  const { phase } = usePlace(score);
  const both = useWide();
  const passage = phase ? score.passages[phase.passage - 1] : undefined;
  if (!passage || !hasLane(passage) || !gentle) return <Playing score={score} {...rest} />;
  const names = laneNames(passage);
  if (both)
    return (
      <Playing
        score={score}
        {...rest}
        called={names.main}
        beside={<LaneStage score={score} sides={rest.sides} lamps={rest.lamps} />}
      />
    );
  const choose = (next: Lane) => {
    localStorage.setItem("room:lane", next);
    setLane(next);
  };
  const choice = (
    <div className="lanes" role="radiogroup" aria-label="What this screen shows">
      {(["main", "beside"] as const).map((id) => (
        <button type="button" key={id} role="radio" aria-checked={lane === id} onClick={() => choose(id)}>
          {names[id]}
        </button>
      ))}
    </div>
  );
  return <Playing score={lane === "beside" ? gentle : score} {...rest} above={choice} />;
}

const wide = "(min-width: 1000px) and (min-aspect-ratio: 5/4)";

/** useWide tells whether the screen has room for both lanes beside each other. */
function useWide(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const query = window.matchMedia(wide);
      query.addEventListener("change", changed);
      return () => query.removeEventListener("change", changed);
    },
    () => window.matchMedia(wide).matches,
  );
}
