import { Button } from "react-bootstrap";
import type { VoiceWord } from "../wire/contract";
import { t } from "../language/text";

type Props = {
  words: VoiceWord[];
  at: number;
  busy: boolean;
  onAt: (at: number) => void;
  onHear: (sum: string) => void;
  onTakeBack: (text: string) => void;
};

const titles = (): { [kind in VoiceWord["kind"]]: string } => ({
  breath: t("voices.the-breath"),
  numbers: t("voices.numbers"),
  sides: t("voices.left-and-right"),
  calls: t("voices.calls"),
  hand: t("voices.the-hand-and-the-others"),
  zones: t("voices.zones-movements-where-attention-goes"),
  practices: t("voices.practices-and-their-own-words"),
  own: t("voices.your-own-lines-and-syllables"),
  "tens of strokes": t("voices.tens-of-strokes"),
});

/** WordList is all that is to be recorded, by what it is for, with what is missing. */
export function WordList({ words, at, busy, onAt, onHear, onTakeBack }: Props) {
  const kinds = [...new Set(words.map((word) => word.kind))];
  return (
    <>
      {kinds.map((kind) => {
        const those = words.flatMap((word, i) => (word.kind === kind ? [{ word, i }] : []));
        const recorded = those.filter(({ word }) => word.recorded).length;
        return (
          <section key={kind} className="voicewords" aria-label={titles()[kind]}>
            <h2>
              {titles()[kind]}{" "}
              <small className="text-secondary">{t("voices.of-2", { recorded, those: those.length })}</small>
            </h2>
            <ul>
              {those.map(({ word, i }) => (
                <li key={word.plain} className={i === at ? "at" : undefined}>
                  <button type="button" className="word" aria-current={i === at} onClick={() => onAt(i)}>
                    {word.text}
                    {!word.recorded && <small> {t("voices.not-recorded")}</small>}
                  </button>
                  {word.recorded && (
                    <>
                      <small className="text-secondary">
                        {t("voices.s", { value: word.recorded.seconds.toFixed(1) })}
                        {word.recorded.clipped && t("voices.too-near-the-microphone")}
                      </small>
                      <Button
                        size="sm"
                        variant="link"
                        aria-label={t("voices.hear", { text: word.text })}
                        onClick={() => onHear(word.recorded!.sum)}
                      >
                        {t("voices.hear-2")}
                      </Button>
                      <Button
                        size="sm"
                        variant="link"
                        aria-label={t("voices.take-back", { text: word.text })}
                        disabled={busy}
                        onClick={() => onTakeBack(word.text)}
                      >
                        {t("voices.take-back-2")}
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
