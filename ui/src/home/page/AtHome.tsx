import { useCallback, useEffect, useLayoutEffect, useMemo, useState } from "react";
import { application, ClockContext, trialClock, useClock } from "../../player/clock";
import { hasLane, laneScore } from "../../player/lane";
import type { Lane } from "../../player/lane";
import { useSound } from "../../player/sound/useSound";
import { useAwake } from "../../player/useAwake";
import { locate, usePlace } from "../../player/usePlace";
import type { HomePage, Score } from "../../wire/contract";
import { Before, type Pace } from "./Before";
import { Playing } from "./Playing";
import { today } from "./today";
import { TooMuch } from "./TooMuch";
import { untilTouched, waiting } from "./touch";
import { useMemory } from "./useMemory";
import { useNow } from "./useNow";
import { t } from "./words";

/**
 * What is going on: it is read first, then played, from a moment of the score on; it rests in natural breath at any moment; and
 * it comes to its end, or was too much.
 */
type State =
  { is: "reading" | "done" | "too-much" } | { is: "playing"; from: number } | { is: "resting"; at: number };

/** AtHome is one practice, by oneself, on a clock of its own. */
export function AtHome({ page }: { page: HomePage }) {
  const [clock, setClock] = useState(application);
  const play = useCallback((at: number) => setClock(trialClock(at, 1)), []);
  return (
    <ClockContext value={clock}>
      <OneByOneself page={page} onPlay={play} />
    </ClockContext>
  );
}

/** Chosen is what was chosen in the place of what is offered; null where nothing was. */
type Chosen = { step: number; choice: number } | null;

function OneByOneself({ page, onPlay }: { page: HomePage; onPlay: (at: number) => void }) {
  const clock = useClock();
  const remembered = useMemory(page.key);
  const now = today(page.steps, page.sheet.home.begins, remembered.memory, useNow());
  const [chosen, setChosen] = useState<Chosen>(null);
  const { step, choice } = chosen ?? offer(page, now);
  const [lane, setLane] = useState<Lane>("main");
  const [pace, setPace] = useState<Pace>("touch");
  const [state, setState] = useState<State>({ is: "reading" });
  const picked = page.steps[step]!.choices[choice]!;
  const byTouch = picked.by_touch >= 0;
  const score = page.scores[byTouch && pace === "touch" ? picked.by_touch : picked.score]!;
  const touches = byTouch && pace === "touch";
  const gentle = useMemo(() => laneScore(score), [score]);
  const led = lane === "beside" && gentle ? gentle : score;
  const silent = useMemo(() => still(led), [led]);
  const from = state.is === "playing" ? state.from : null;
  const played = useMemo(
    () => (from === null ? silent : touches ? untilTouched(led, from) : led),
    [from, silent, touches, led],
  );
  const place = usePlace(played);
  const sound = useSound("room", played, place);
  useAwake(state.is === "playing");
  const over = state.is === "playing" && place.over;
  if (over) setState({ is: "done" });
  const { mark } = remembered;
  const done = state.is === "done";
  useEffect(() => {
    if (done) mark(now.on, now.evening ? { evening: true } : { done: true });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each time that it was done, by the time when it was
  }, [done]);

  const play = useCallback(
    (at: number) => {
      onPlay(at);
      setState({ is: "playing", from: at });
    },
    [onPlay],
  );
  const rest = useCallback(() => setState({ is: "resting", at: roundAt(led, clock.now()) }), [led, clock]);
  const read = useCallback(() => setState({ is: "reading" }), []);
  const back = () => {
    setChosen(null); // what was chosen was for this time
    read();
  };
  const tooMuch = () => {
    mark(now.on, { tooMuch: true });
    setState({ is: "too-much" });
  };
  const resting = state.is === "resting" ? state.at : null;
  const waits = touches && place.phase?.open === true && from !== null;
  const goOn = useCallback(() => {
    const next = led.phases[waiting(led, from ?? 0)];
    if (next) play(next.end_ms);
  }, [led, from, play]);
  // In the same moment as the drawing: a key pressed on what is seen must mean what is seen.
  useLayoutEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const other = event.target instanceof Element && event.target.closest("button:not(.touch)");
      if (other && (event.key === " " || event.key === "Enter")) return; // it is that button's
      if (event.key === "Escape" && state.is !== "reading") read();
      else if ((event.key === " " || event.key === "Enter") && waits) goOn();
      else if (state.is === "playing" && (event.key === "n" || (event.key === " " && !touches))) rest();
      else if (event.key === " " && resting !== null) play(resting);
      else return;
      event.preventDefault();
    };
    addEventListener("keydown", pressed);
    return () => removeEventListener("keydown", pressed);
  }, [state.is, resting, waits, touches, play, rest, read, goOn]);

  if (state.is === "too-much") return <TooMuch sheet={page.sheet} onBack={back} />;
  if (state.is === "playing" && place.phase)
    return (
      <Playing
        score={played}
        place={place}
        sound={sound}
        called={score.passages.length === 1 ? page.steps[step]!.name : undefined}
        usual={waits ? led.phases[place.index]! : null}
        onTouch={touches ? goOn : null}
        onRest={rest}
        onStop={read}
        onTooMuch={tooMuch}
      />
    );
  if (resting !== null)
    return (
      <Between word={t("page.natural-breath")} says={t("page.for-as-long-as-you-like")}>
        <button type="button" className="btn btn-primary" autoFocus onClick={() => play(resting)}>
          {t("page.go-on-from-the-round")}
        </button>
        <button type="button" className="btn btn-outline-primary" onClick={read}>
          {t("page.stop-here")}
        </button>
        <button type="button" className="btn btn-outline-primary" onClick={tooMuch}>
          {t("page.too-much")}
        </button>
      </Between>
    );
  if (state.is === "done" || over)
    return (
      <Between word={t("page.it-is-done")} says={t("page.natural-breath-for-a-while")}>
        <button type="button" className="btn btn-primary" autoFocus onClick={back}>
          {t("page.back")}
        </button>
        <button type="button" className="btn btn-outline-primary" onClick={tooMuch}>
          {t("page.too-much")}
        </button>
      </Between>
    );
  return (
    <Before
      page={page}
      now={now}
      remembered={remembered}
      step={step}
      onStep={(next) => setChosen({ step: next, choice: page.steps[next]!.given })}
      choice={choice}
      onChoice={(next) => setChosen({ step, choice: next })}
      lane={lane}
      onLane={setLane}
      lanes={gentle ? (score.passages.find(hasLane)?.lane_names ?? null) : null}
      pace={byTouch ? pace : null}
      onPace={setPace}
      sound={sound}
      onStart={() => play(0)}
      onTooMuch={tooMuch}
    />
  );
}

/** offer is what is offered now: today's step, or the one before it; of the first step, where less is wanted, the least. */
function offer(page: HomePage, now: ReturnType<typeof today>) {
  const { evening, given } = page.steps[now.offered]!;
  if (now.why !== "" && now.offered === now.due) return { step: now.offered, choice: 0 };
  return { step: now.offered, choice: now.evening && evening >= 0 ? evening : given };
}

type BetweenProps = { word: string; says: string; children: React.ReactNode };

function Between({ word, says, children }: BetweenProps) {
  return (
    <main className="between">
      <h1 className="word">{word}</h1>
      <p>{says}</p>
      <p className="keys">{children}</p>
    </main>
  );
}

/** still is a score in which nothing sounds or moves. */
function still(score: Score): Score {
  return { ...score, phases: [], cues: [], spoken: [] };
}

/** roundAt is where the round began that is in progress, or what stands around the rounds: there one goes on. */
function roundAt(score: Score, at: number): number {
  const { index, phase } = locate(score, at);
  if (!phase) return 0;
  const first = score.phases.findLastIndex(
    (p, i) => i <= index && (i === 0 || p.starts || p.stage !== score.phases[i - 1]!.stage),
  );
  return score.phases[Math.max(first, 0)]!.at_ms[0]!;
}
