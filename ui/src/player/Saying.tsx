import { countShown, isStretch, partWord, phaseWord } from "./cues";
import type { Cue } from "./useCue";

type Props = { cue: Cue; side: string; time: string };

/** Saying is the word, the side and the count, as large as the screen has room for; time is of what is not counted. */
export function Saying({ cue, side, time }: Props) {
  const phase = cue.phase!;
  const stretch = isStretch(phase);
  return (
    <div className="saying">
      <p className="word" data-testid="word">
        {phaseWord(phase)}
        <span className="side">{[side, partWord(cue)].filter(Boolean).join(" ")}</span>
      </p>
      <p className={stretch ? "count time" : "count"} data-testid="count">
        {stretch ? time : countShown(cue)}
      </p>
    </div>
  );
}
