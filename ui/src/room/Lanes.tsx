import "./lanes.css";
import { useSay } from "../player/say";
import type { Lane } from "../player/lane";

export { LaneStage } from "../player/LaneStage";

type Props = { names: { main: string; beside: string }; lane: Lane; onLane: (lane: Lane) => void };

/** LaneChoice is where a phone chooses its lane, and may change it at any breath. */
export function LaneChoice({ names, lane, onLane }: Props) {
  return (
    <div className="lanes" role="radiogroup" aria-label={useSay()("shows")}>
      {(["main", "beside"] as const).map((id) => (
        <button type="button" key={id} role="radio" aria-checked={lane === id} onClick={() => onLane(id)}>
          {names[id]}
        </button>
      ))}
    </div>
  );
}
