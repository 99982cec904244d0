import { useEffect, useRef } from "react";
import type { Sign } from "../player/sound/signs";
import type { Score } from "../wire/contract";
import type { Message } from "./useMessage";

type Heard = { give: (sign: Sign) => void; tell: (words: string) => void };

/** useSigns lets the teacher hear what became of each adjustment; the calls come with the sound of the class. */
export function useSigns(score: Score, message: Message | null, heard: Heard) {
  const latest = useRef(heard);
  useEffect(() => {
    latest.current = heard;
  });
  const last = useRef(score.revision);
  useEffect(() => {
    if (score.revision === last.current) return;
    last.current = score.revision;
    latest.current.give(score.answer?.refused ? "refused" : "taken");
  }, [score]);
  const words = message?.words ?? "";
  useEffect(() => {
    if (words !== "") latest.current.tell(words);
  }, [words]);
}
