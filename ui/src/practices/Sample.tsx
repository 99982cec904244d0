import { useEffect, useMemo, useState } from "react";
import { useClock } from "../player/clock";
import type { Score } from "../wire/contract";
import { countShown, isStretch, partWord } from "../player/phases";
import { LampSheet } from "../player/LampSheet";
import { usePlace } from "../player/usePlace";
import { t } from "../language/text";

/** Sample plays a few rounds silently, over and over. */
export function Sample({ score }: { score: Score }) {
  const clock = useClock();
  const [started, setStarted] = useState(() => clock.now());
  const playing = useMemo(() => ({ ...score, started_ms: started }), [score, started]);
  const place = usePlace(playing);
  useEffect(() => {
    const timer = setTimeout(() => setStarted(clock.now()), clock.inReal(score.end_ms));
    return () => clearTimeout(timer);
  }, [started, score.end_ms, clock]);
  return (
    <figure className="sample" aria-label={t("practices.the-lamp-sheet-of-the-practice")}>
      <figcaption aria-hidden>
        {place.phase && (
          <>
            <b>{place.phase.word}</b> {[place.phase.side, partWord(place)].filter(Boolean).join(" ")}
            <span className="n">{isStretch(place.phase) ? "" : countShown(place)}</span>
          </>
        )}
      </figcaption>
      <LampSheet score={playing} place={place} />
    </figure>
  );
}
