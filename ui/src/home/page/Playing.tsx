import type { Sound } from "../../player/sound/useSound";
import { Stage } from "../../player/Stage";
import type { Place } from "../../player/usePlace";
import type { Score, ScorePhase } from "../../wire/contract";
import { t } from "./words";

type Props = {
  score: Score;
  place: Place;
  sound: Sound;
  /** the name of the practice; undefined of a whole class, whose passages have names of their own */
  called: string | undefined;
  /** the phase in progress at its usual length, while a touch is waited for; null while none is */
  usual: ScorePhase | null;
  /** ends what waits; null where nothing of the practice does */
  onTouch: (() => void) | null;
  onRest: () => void;
  onStop: () => void;
  onTooMuch: () => void;
};

/** Playing is the practice as it runs: word, side, count and lamps, as in the room. */
export function Playing({ score, place, sound, called, usual, onTouch, onRest, onStop, onTooMuch }: Props) {
  const { phase } = place;
  return (
    <main className="playing">
      <h1 className="visually-hidden">{called ?? score.passages[(phase?.passage ?? 1) - 1]?.name}</h1>
      <p className="visually-hidden" aria-live="polite">
        {sound.choice.on && sound.choice.voice !== "off" ? "" : `${phase?.word ?? ""} ${phase?.side ?? ""}`}
      </p>
      <div className="stagebox">
        {/* a touch anywhere is the button below */}
        {onTouch && usual && (
          <button type="button" className="anywhere" tabIndex={-1} aria-hidden onClick={onTouch} />
        )}
        <Stage score={score} place={place} called={called} leads={onTouch !== null} />
      </div>
      {onTouch && (
        <p className="keys">
          <button
            type="button"
            className="btn btn-primary btn-lg touch"
            disabled={usual === null}
            onClick={onTouch}
          >
            {usual ? t("page.next-usually-after-s", { usual: seconds(usual) }) : t("page.next")}
          </button>
        </p>
      )}
      <p className="keys">
        <button
          type="button"
          className="btn btn-outline-primary btn-lg"
          autoFocus={onTouch === null}
          onClick={onRest}
        >
          {t("page.natural-breath-2")}
        </button>
        <button type="button" className="btn btn-outline-primary" onClick={onStop}>
          {t("page.stop")}
        </button>
        <button type="button" className="btn btn-outline-primary" onClick={onTooMuch}>
          {t("page.too-much")}
        </button>
      </p>
    </main>
  );
}

function seconds({ at_ms, end_ms }: ScorePhase): number {
  return Math.round((end_ms - at_ms[0]!) / 1000);
}
