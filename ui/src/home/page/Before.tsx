import type { Lane } from "../../player/lane";
import { useVoices } from "../../player/sound/useSpoken";
import type { Choice } from "../../player/sound/choice";
import type { Sound } from "../../player/sound/useSound";
import type { HomePage } from "../../wire/contract";

type Props = {
  page: HomePage;
  choice: number;
  onChoice: (choice: number) => void;
  lane: Lane;
  onLane: (lane: Lane) => void;
  /** what the lanes are called, where there is a gentler one */
  lanes: { main: string; beside: string } | null;
  sound: Sound;
  onStart: () => void;
};

/** Before is what is read before it starts: how it goes, when to stop, how much at once. */
export function Before({
  page: { sheet, choices },
  choice,
  onChoice,
  lane,
  onLane,
  lanes,
  sound,
  onStart,
}: Props) {
  const { home } = sheet;
  const speaks = useVoices().length > 0 || sound.speaker !== null;
  return (
    <main className="before">
      <header>
        <h1>{home.name}</h1>
        {sheet.term !== "" && <p className="small">{sheet.term}</p>}
        {home.amount !== "" && <p className="amount">{home.amount}</p>}
        {home.sentence !== "" && <blockquote>{home.sentence}</blockquote>}
      </header>
      <section className="stop" aria-labelledby="stop">
        <h2 id="stop">When to stop</h2>
        <p>{sheet.stop}</p>
        {sheet.cautions.map((caution) => (
          <p key={caution}>{caution}</p>
        ))}
      </section>
      <section aria-labelledby="how">
        <h2 id="how">How it goes</h2>
        <ol>
          {sheet.how.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
      </section>
      <section className="choices">
        <label>
          How much now
          <select value={choice} onChange={(e) => onChoice(Number(e.currentTarget.value))}>
            {choices.map((one, i) => (
              <option key={i} value={i}>
                {one.says}
              </option>
            ))}
          </select>
        </label>
        {lanes && (
          <label>
            Which breath
            <select value={lane} onChange={(e) => onLane(e.currentTarget.value as Lane)}>
              <option value="main">{lanes.main}</option>
              <option value="beside">{lanes.beside}</option>
            </select>
          </label>
        )}
        <label>
          Sound
          <select
            value={sound.choice.on ? (speaks ? sound.choice.voice : "off") : "none"}
            onChange={(e) => {
              const voice = e.currentTarget.value;
              if (voice === "none") sound.change({ on: false });
              else sound.change({ on: true, voice: voice as Choice["voice"] });
            }}
          >
            <option value="none">none</option>
            <option value="off">tones</option>
            {speaks && <option value="words">tones, and a voice for the words</option>}
            {speaks && <option value="counts">tones, and a voice that counts</option>}
          </select>
        </label>
      </section>
      <p className="keys">
        <button type="button" className="btn btn-primary btn-lg" onClick={onStart}>
          Start
        </button>
        <Light />
      </p>
      <p className="small">
        Space is natural breath, and goes on again; Escape stops. Nothing leaves this page.
        {sheet.from !== "" && ` From the class “${sheet.from}”.`}
      </p>
    </main>
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
      Day or night
    </button>
  );
}
