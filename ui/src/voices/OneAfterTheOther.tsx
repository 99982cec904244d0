import { useCallback, useLayoutEffect, useRef } from "react";
import { Alert, Button } from "react-bootstrap";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Progress } from "../frame/shell/Progress";
import type { VoiceWord } from "../wire/contract";
import { useRecorder } from "./useRecorder";
import { rich, t } from "../language/text";

type Props = {
  words: VoiceWord[];
  at: number;
  missing: number;
  longest: number; // seconds
  sending: boolean;
  error: Error | null;
  onAt: (at: number) => void;
  onRecorded: (text: string, sound: Blob) => void;
  onHear: (sum: string) => void;
};

/** OneAfterTheOther records word after word: space begins and ends, what was recorded is heard, and the next one stands there. */
export function OneAfterTheOther({
  words,
  at,
  missing,
  longest,
  sending,
  error,
  onAt,
  onRecorded,
  onHear,
}: Props) {
  const word = words[at];
  const said = useRef(""); // what was there when it began: another word may be chosen meanwhile
  const { none, starting, recording, level, start, stop } = useRecorder(longest, (sound) =>
    onRecorded(said.current, sound),
  );
  const begin = useCallback(() => {
    said.current = word?.text ?? "";
    start();
  }, [word, start]);
  const busy = sending || starting;
  const still = !recording && !starting;
  // In the same moment as the drawing: a key pressed on what is seen must mean what is seen.
  useLayoutEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (
        event.target instanceof HTMLElement &&
        event.target.closest("input, select, textarea, button, a, dialog, .modal")
      )
        return;
      if (event.key === " " && none === "" && !busy && !event.repeat) {
        if (recording) stop();
        else begin();
      } else if (event.key === "ArrowDown" && still) onAt(Math.min(at + 1, words.length - 1));
      else if (event.key === "ArrowUp" && still) onAt(Math.max(at - 1, 0));
      else return;
      event.preventDefault();
    };
    addEventListener("keydown", pressed);
    return () => removeEventListener("keydown", pressed);
  }, [none, busy, still, recording, at, words.length, begin, stop, onAt]);
  if (!word) return null;
  return (
    <section className="onebyone" aria-label={t("voices.record")}>
      <p className="small text-secondary mb-1">
        {missing === 0 ? t("voices.nothing-is-missing") : t("voices.missing", { missing })}
      </p>
      <p className="say" aria-live="polite">
        {word.text}
      </p>
      {none !== "" && <Alert variant="warning">{none}</Alert>}
      {error && still && <ErrorAlert error={error} />}
      <div className="d-flex flex-wrap gap-2 justify-content-center">
        <Button
          size="lg"
          variant={recording ? "danger" : "primary"}
          disabled={none !== "" || busy}
          onClick={recording ? stop : begin}
        >
          {label(recording, starting, sending, word)} <kbd>{t("frame.space")}</kbd>
        </Button>
        {word.recorded && (
          <Button
            size="lg"
            variant="outline-primary"
            disabled={!still}
            onClick={() => onHear(word.recorded!.sum)}
          >
            {t("voices.hear-it")}
          </Button>
        )}
        <Button
          size="lg"
          variant="outline-secondary"
          disabled={!still}
          onClick={() => onAt((at + 1) % words.length)}
        >
          {rich("voices.next-word", { kbd: <kbd>↓</kbd> })}
        </Button>
      </div>
      <Progress
        className={`mt-3 ${level > tooLoud ? "tooloud" : ""}`}
        done={recording ? level : 0}
        of={t("voices.how-loud-the-microphone")}
      />
    </section>
  );
}

const tooLoud = 0.98;

function label(recording: boolean, starting: boolean, sending: boolean, word: VoiceWord): string {
  if (recording) return t("voices.stop");
  if (starting) return "A moment …";
  if (sending) return t("voices.making-it-ready");
  return word.recorded ? t("voices.record-again") : t("voices.record");
}
