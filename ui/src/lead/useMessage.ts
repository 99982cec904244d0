import { useCallback, useEffect, useState } from "react";
import type { Score } from "../wire/contract";
import { text } from "../language/text";

/** Message is what is said on the screen about something that was pressed. */
export type Message = { words: string; refused: boolean };

type Kept = Message & { id: string };

// How long an answer is there, in ms: longer, and it reads as if it were about what is done now.
const answerLasts = 6000;

/**
 * useMessage is what this screen has to say, or else the answer to the last adjustment, whichever device it was made on;
 * nothing of what was answered before this screen was opened. It is gone after six seconds, and with the passage.
 */
export function useMessage(score: Score, passage: number) {
  const { revision } = score;
  const [said, setSaid] = useState<(Message & { revision: number; nth: number }) | null>(null);
  const [opened] = useState(revision);
  const say = useCallback(
    (words: string, refused = true) =>
      setSaid((before) => ({ words, refused, revision, nth: (before?.nth ?? 0) + 1 })),
    [revision],
  );
  const current = said?.revision === revision ? { ...said, id: `said ${said.nth}` } : answered(score, opened);

  const id = current?.id ?? "";
  const [came, setCame] = useState({ id, passage });
  if (came.id !== id) setCame({ id, passage });
  const [gone, setGone] = useState("");
  useEffect(() => {
    const timer = setTimeout(() => setGone(id), answerLasts);
    return () => clearTimeout(timer);
  }, [id]);

  const there = id !== gone && (came.id !== id || came.passage === passage);
  return { message: there ? current : null, say };
}

function answered({ answer }: Score, opened: number): Kept | null {
  if (!answer || answer.number <= opened) return null;
  const from = answer.origin ? ` · ${answer.origin}` : "";
  return {
    words: text(answer.did) + from,
    refused: answer.refused !== null,
    id: `answer ${answer.number}`,
  };
}
