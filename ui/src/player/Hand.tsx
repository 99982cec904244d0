import { memo } from "react";
import type { ScorePhase } from "../wire/contract";

type Props = {
  fingers: ScorePhase["fingers"];
  /** how the fingers are held: folded, brows, little or both; two with a space between stand side by side */
  way: string;
  /** whether the practice has the hand at the nose at all */
  atNose: boolean;
};

/**
 * Hand draws the nose from the front, with the breather's own left on the left, and the fingers of the right hand: the thumb
 * at the right nostril, the ring finger (or the little one, or both) at the left.
 */
export const Hand = memo(function Hand({ fingers, way, atNose }: Props) {
  if (!atNose) return null;
  const raised = fingers !== "" && fingers !== "down";
  const ways = way.split(" ");
  return (
    <svg
      className={`hand-drawing ${raised ? "raised" : "lowered"} ${ways.length > 1 ? "pair" : ""}`}
      viewBox={`0 0 ${ways.length > 1 ? 220 : 108} 112`}
      aria-hidden
    >
      {ways.map((one, i) => (
        <g key={one} transform={i > 0 ? "translate(112)" : undefined}>
          <Nose fingers={fingers} way={one} />
        </g>
      ))}
    </svg>
  );
});

function Nose({ fingers, way }: Pick<Props, "fingers" | "way">) {
  const place = (closed: boolean) =>
    fingers === "narrow" ? "near" : closed || fingers === "both" ? "closing" : "open";
  const left = place(fingers === "left");
  const right = place(fingers === "right");
  const ring = way !== "little";
  const little = way === "little" || way === "both";
  return (
    <>
      <path
        className="nose"
        d="M45 8C44 32 41 45 35 55C30 64 33 72 40 72C44 72 46 75 50 76C54 75 56 72 60 72C67 72 70 64 65 55C59 45 56 32 55 8"
      />
      <ellipse className={`nostril left ${left}`} cx="42" cy="66" rx="5.5" ry="3.6" />
      <ellipse className={`nostril right ${right}`} cx="58" cy="66" rx="5.5" ry="3.6" />
      <g className="fingers">
        <path className="palm" d="M52 104C54 92 62 87 74 87C88 87 95 94 96 104Z" />
        {way === "brows" ? (
          <path className="resting" d="M66 92C60 70 54 40 48 17M72 90C66 66 60 40 54 16" />
        ) : (
          <path className="resting" d="M63 91L61 84M72 89L71 82" />
        )}
        <path className={`finger thumb ${right}`} d="M91 99C89 85 80 73 66.5 65" />
        {ring && <path className={`finger ring ${left}`} d="M58 97C43 98 29 86 33.5 65" />}
        {little && <path className={`finger little ${left}`} d="M57 101C34 103 19 90 26.5 70" />}
      </g>
    </>
  );
}
