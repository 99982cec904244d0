import { useEffect, useRef } from "react";
import type { Score } from "../wire/contract";
import type { Sign } from "../player/sound/signs";
import { textOf, useShown } from "../player/useShown";

/** useSigns lets the teacher hear what became of each adjustment, and the call of the last round. */
export function useSigns(score: Score, give: (sign: Sign) => void) {
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
  const last = textOf(useShown(score), "last").length > 0;
  useEffect(() => {
    if (last) latest.current("last");
  }, [last]);
}
