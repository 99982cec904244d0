import type { Lane } from "../../player/lane";
import { useVoices } from "../../player/sound/useSpoken";
import type { Choice } from "../../player/sound/choice";
import type { Sound } from "../../player/sound/useSound";
import type { HomePage } from "../../wire/contract";
import { Days } from "./Days";
import type { Today } from "./today";
import type { Remembered } from "./useMemory";
import { t, tag } from "./words";

/** Pace is what ends a phase that waits: a touch, or the beat of its usual length. */
export type Pace = "touch" | "beat";

type Props = {
  page: HomePage;
  now: Today;
  remembered: Remembered;
  step: number;
  onStep: (step: number) => void;
  choice: number;
  onChoice: (choice: number) => void;
  lane: Lane;
  onLane: (lane: Lane) => void;
  /** what the lanes are called, where there is a gentler one */
  lanes: { main: string; beside: string } | null;
  /** null where nothing of the practice waits */
  pace: Pace | null;
  onPace: (pace: Pace) => void;
  sound: Sound;
  onStart: () => void;
  onTooMuch: () => void;
};

/** Before is what is read before it starts: what is for today, how it goes, when to stop, how much at once. */
export function Before(props: Props) {
  const { page, step, onStart, onTooMuch } = props;
  const { sheet } = page;
  const { home } = sheet;
  const { name, term, how, cautions } = page.steps[step]!;
  return (
    <main className="before">
      <header>
        {name !== home.name && <p className="small">{home.name}</p>}
        <h1>{name}</h1>
        {term !== "" && <p className="small">{term}</p>}
        {home.amount !== "" && <p className="amount">{home.amount}</p>}
        {home.sentence !== "" && <blockquote>{home.sentence}</blockquote>}
      </header>
      {page.key !== "" && <Days {...props} />}
      <section className="stop" aria-labelledby="stop">
        <h2 id="stop">{t("page.when-to-stop")}</h2>
        <p>{sheet.stop}</p>
        {cautions.map((caution) => (
          <p key={caution}>{caution}</p>
        ))}
        {tag() !== "en" && <p className="small">{t("page.cautions-translated")}</p>}
      </section>
      <section aria-labelledby="how">
        <h2 id="how">{t("page.how-it-goes")}</h2>
        <ol>
          {how.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ol>
      </section>
      <Choices {...props} />
      <p className="keys">
        <button type="button" className="btn btn-primary btn-lg" onClick={onStart}>
          {t("page.start")}
        </button>
        <button type="button" className="btn btn-outline-primary" onClick={onTooMuch}>
          {t("page.too-much")}
        </button>
        <Light />
      </p>
      <p className="small">
        {t("page.nothing-leaves-this-page", { pace: props.pace === "touch" })}
        {sheet.from !== "" && t("page.from-the-class", { from: sheet.from })}
      </p>
    </main>
  );
}

function Choices(props: Props) {
  const { page, step, choice, onChoice, lane, onLane, lanes, pace, onPace, sound } = props;
  const speaks = useVoices().length > 0 || sound.speaker !== null;
  return (
    <section className="choices">
      <label>
        {t("page.how-much-now")}
        <select value={choice} onChange={(e) => onChoice(Number(e.currentTarget.value))}>
          {page.steps[step]!.choices.map((one, i) => (
            <option key={i} value={i}>
              {one.says}
            </option>
          ))}
        </select>
      </label>
      {lanes && (
        <label>
          {t("page.which-breath")}
          <select value={lane} onChange={(e) => onLane(e.currentTarget.value as Lane)}>
            <option value="main">{lanes.main}</option>
            <option value="beside">{lanes.beside}</option>
          </select>
        </label>
      )}
      {pace && (
        <label>
          {t("page.pace")}
          <select value={pace} onChange={(e) => onPace(e.currentTarget.value as Pace)}>
            <option value="touch">{t("page.my-own-a-touch-ends-each")}</option>
            <option value="beat">{t("page.the-beat-at-the-usual-length")}</option>
          </select>
        </label>
      )}
      <label>
        {t("page.sound")}
        <select
          value={sound.choice.on ? (speaks ? sound.choice.voice : "off") : "none"}
          onChange={(e) => {
            const voice = e.currentTarget.value;
            if (voice === "none") sound.change({ on: false });
            else sound.change({ on: true, voice: voice as Choice["voice"] });
          }}
        >
          <option value="none">{t("page.none")}</option>
          <option value="off">{t("page.tones")}</option>
          {speaks && <option value="words">{t("page.tones-and-a-voice")}</option>}
          {speaks && <option value="counts">{t("page.tones-and-a-voice-that-counts")}</option>}
        </select>
      </label>
    </section>
  );
}

/** Light turns the page from night to day and back. */
function Light() {
  const turn = () => {
    const { dataset } = document.documentElement;
    dataset.bsTheme = dataset.bsTheme === "dark" ? "light" : "dark";
  };
  return (
    <button type="button" className="btn btn-outline-primary" onClick={turn}>
      {t("page.day-or-night")}
    </button>
  );
}
