import "./body.css";
import { memo } from "react";

/**
 * Body draws a seated torso and lights the place of the hand: the front of the belly, the ribs, the chest or both sides from the
 * front, the low back from behind, and all round as a band about the waist.
 */
export const Body = memo(function Body({ place }: { place: string }) {
  return (
    <svg className="hand-drawing body" viewBox="0 0 100 112" aria-hidden data-place={place}>
      <circle className="outline" cx="50" cy="14" r="10" />
      <path
        className="outline"
        d="M44 24C44 30 30 31 26 36C23 42 22 56 20 70M56 24C56 30 70 31 74 36C77 42 78 56 80 70M33 42C35 54 36 66 33 82M67 42C65 54 64 66 67 82"
      />
      <path className="outline" d="M33 82C22 84 12 92 16 98C34 106 66 106 84 98C88 92 78 84 67 82" />
      {place === "back" && <path className="outline spine" d="M50 32V84" />}
      {(place === "front" || place === "belly") && (
        <ellipse className="place" cx="50" cy="74" rx="12" ry="9" />
      )}
      {place === "ribs" && <ellipse className="place" cx="50" cy="57" rx="14" ry="8" />}
      {place === "chest" && <ellipse className="place" cx="50" cy="41" rx="13" ry="7" />}
      {place === "back" && <ellipse className="place" cx="50" cy="76" rx="14" ry="8" />}
      {place === "sides" && (
        <>
          <ellipse className="place" cx="36" cy="62" rx="5.5" ry="12" />
          <ellipse className="place" cx="64" cy="62" rx="5.5" ry="12" />
        </>
      )}
      {place === "round" && (
        <path
          className="place"
          d="M33 66C42 72 58 72 67 66C68 71 67 77 67 79C58 85 42 85 33 79C33 77 34 71 33 66Z"
        />
      )}
    </svg>
  );
});
