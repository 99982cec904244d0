import { Button } from "react-bootstrap";
import type { VoiceWord } from "../wire/contract";

type Props = {
  words: VoiceWord[];
  at: number;
  busy: boolean;
  onAt: (at: number) => void;
  onHear: (sum: string) => void;
  onTakeBack: (text: string) => void;
};

const titles: { [kind in VoiceWord["kind"]]: string } = {
  breath: "The breath",
  numbers: "Numbers",
  sides: "Left and right",
  calls: "Calls",
  hand: "The hand, and the others",
  zones: "Zones, movements, where attention goes",
  practices: "Practices, and their own words",
  own: "Your own lines and syllables",
  "tens of strokes": "Tens of strokes",
};

/** WordList is all that is to be recorded, by what it is for, with what is missing. */
export function WordList({ words, at, busy, onAt, onHear, onTakeBack }: Props) {
  const kinds = [...new Set(words.map((word) => word.kind))];
  return (
    <>
      {kinds.map((kind) => {
        const those = words.flatMap((word, i) => (word.kind === kind ? [{ word, i }] : []));
        const recorded = those.filter(({ word }) => word.recorded).length;
        return (
          <section key={kind} className="voicewords" aria-label={titles[kind]}>
            <h2>
              {titles[kind]}{" "}
              <small className="text-secondary">
                {recorded} of {those.length}
              </small>
            </h2>
            <ul>
              {those.map(({ word, i }) => (
                <li key={word.plain} className={i === at ? "at" : undefined}>
                  <button type="button" className="word" aria-current={i === at} onClick={() => onAt(i)}>
                    {word.text}
                    {!word.recorded && <small> not recorded</small>}
                  </button>
                  {word.recorded && (
                    <>
                      <small className="text-secondary">
                        {word.recorded.seconds.toFixed(1)} s
                        {word.recorded.clipped && " · too near the microphone"}
                      </small>
                      <Button
                        size="sm"
                        variant="link"
                        aria-label={`Hear ${word.text}`}
                        onClick={() => onHear(word.recorded!.sum)}
                      >
                        Hear
                      </Button>
                      <Button
                        size="sm"
                        variant="link"
                        aria-label={`Take back: ${word.text}`}
                        disabled={busy}
                        onClick={() => onTakeBack(word.text)}
                      >
                        Take back
                      </Button>
                    </>
                  )}
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </>
  );
}
