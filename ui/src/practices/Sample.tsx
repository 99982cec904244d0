import { useEffect, useMemo, useState } from "react";
import { inReal, now } from "../player/clock";
import type { Score } from "../wire/contract";
import { countShown, isStretch, partWord, phaseWord, sideWord } from "../player/cues";
import { LampSheet } from "../player/LampSheet";
import { useCue } from "../player/useCue";

/** Sample plays a few rounds silently, over and over. */
export function Sample({ score }: { score: Score }) {
  const [started, setStarted] = useState(() => now());
  const playing = useMemo(() => ({ ...score, started_ms: started }), [score, started]);
  const cue = useCue(playing);
  useEffect(() => {
    const timer = setTimeout(() => setStarted(now()), inReal(score.end_ms));
    return () => clearTimeout(timer);
  }, [started, score.end_ms]);
  return (
    <figure className="sample" aria-label="The lamp sheet of the practice, playing silently">
      <figcaption aria-hidden>
        {cue.phase && (
          <>
            <b>{phaseWord(cue.phase)}</b> {[sideWord(cue.phase), partWord(cue)].filter(Boolean).join(" ")}
            <span className="n">{isStretch(cue.phase) ? "" : countShown(cue)}</span>
          </>
        )}
      </figcaption>
      <LampSheet score={playing} cue={cue} />
    </figure>
  );
}
