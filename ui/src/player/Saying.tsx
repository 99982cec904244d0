import { countShown, isStretch, partWord } from "./phases";
import type { Place } from "./usePlace";

type Props = { place: Place; side: string; time: string };

/** Saying is the word, the side and the count, as large as the screen has room for; time is of what is not counted. */
export function Saying({ place, side, time }: Props) {
  const phase = place.phase!;
  const stretch = isStretch(phase);
  return (
    <div className="saying">
      <p className="word" data-testid="word">
        {phase.word}
        <span className="side">{[side, partWord(place)].filter(Boolean).join(" ")}</span>
      </p>
      <p className={stretch ? "count time" : "count"} data-testid="count">
        {stretch ? time : countShown(place)}
      </p>
    </div>
  );
}
