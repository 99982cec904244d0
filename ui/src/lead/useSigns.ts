import { useEffect, useRef } from "react";
import type { Score } from "../wire/contract";
import type { Sign } from "../player/sound/signs";
import type { Place } from "../player/usePlace";

/** useSigns lets the teacher hear what became of each adjustment, and that the last round has begun. */
export function useSigns(score: Score, place: Place, give: (sign: Sign) => void) {
  const latest = useRef(give);
  useEffect(() => {
    latest.current = give;
  });
  const heard = useRef(score.revision);
  useEffect(() => {
    if (score.revision === heard.current) return;
    heard.current = score.revision;
    latest.current(score.answer?.refused ? "refused" : "taken");
  }, [score]);
  const { phase } = place;
  const rounds = phase ? score.passages[phase.passage - 1]?.rounds : 0;
  const last = phase?.stage === "round" && phase.round === rounds;
  useEffect(() => {
    if (last) latest.current("last");
  }, [last]);
}
