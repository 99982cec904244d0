import type { Sound } from "../../player/sound/useSound";
import { Stage } from "../../player/Stage";
import type { Place } from "../../player/usePlace";
import type { Score } from "../../wire/contract";

type Props = {
  score: Score;
  place: Place;
  sound: Sound;
  called: string;
  onRest: () => void;
  onStop: () => void;
};

/** Playing is the practice as it runs: word, side, count and lamps, as in the room. */
export function Playing({ score, place, sound, called, onRest, onStop }: Props) {
  const { phase } = place;
  return (
    <main className="playing">
      <h1 className="visually-hidden">{called}</h1>
      <p className="visually-hidden" aria-live="polite">
        {sound.choice.on && sound.choice.voice !== "off" ? "" : `${phase?.word ?? ""} ${phase?.side ?? ""}`}
      </p>
      <div className="stagebox">
        <Stage score={score} place={place} called={called} />
      </div>
      <p className="keys">
        <button type="button" className="btn btn-outline-primary btn-lg" autoFocus onClick={onRest}>
          Natural breath
        </button>
        <button type="button" className="btn btn-outline-primary" onClick={onStop}>
          Stop
        </button>
      </p>
    </main>
  );
}
