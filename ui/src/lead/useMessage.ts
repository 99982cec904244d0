import { useCallback, useState } from "react";
import { inWords } from "../player/answers";
import type { Score } from "../wire/contract";

/** Message is what is said on the screen, until a newer adjustment is answered. */
export type Message = { words: string; refused: boolean };

/**
 * useMessage is what this screen has to say, or else the answer to the last adjustment, whichever device it was made on;
 * nothing of what was answered before this screen was opened.
 */
export function useMessage(score: Score) {
  const [said, setSaid] = useState<(Message & { revision: number }) | null>(null);
  const [opened] = useState(score.revision);
  const { revision } = score;
  const say = useCallback(
    (words: string, refused = true) => setSaid({ words, refused, revision }),
    [revision],
  );
  return { message: said?.revision === revision ? said : answered(score, opened), say };
}

function answered({ answer }: Score, opened: number): Message | null {
  if (!answer || answer.number <= opened) return null;
  const from = answer.origin ? ` · ${answer.origin}` : "";
  return { words: inWords(answer) + from, refused: answer.refused !== "" };
}
