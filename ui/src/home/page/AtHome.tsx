import { useCallback, useLayoutEffect, useMemo, useState } from "react";
import { application, ClockContext, trialClock, useClock } from "../../player/clock";
import { laneScore } from "../../player/lane";
import type { Lane } from "../../player/lane";
import { useSound } from "../../player/sound/useSound";
import { useAwake } from "../../player/useAwake";
import { locate, usePlace } from "../../player/usePlace";
import type { HomePage, Score } from "../../wire/contract";
import { Before } from "./Before";
import { Playing } from "./Playing";

/** What is going on: it is read first, then played; it rests in natural breath at any moment; and it comes to its end. */
type State = { is: "reading" | "playing" | "done" } | { is: "resting"; at: number };

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

function OneByOneself({ page, onPlay }: { page: HomePage; onPlay: (at: number) => void }) {
  const clock = useClock();
  const [choice, setChoice] = useState(page.given);
  const [lane, setLane] = useState<Lane>("main");
  const [state, setState] = useState<State>({ is: "reading" });
  const { score } = page.choices[choice]!;
  const gentle = useMemo(() => laneScore(score), [score]);
  const led = lane === "beside" && gentle ? gentle : score;
  const silent = useMemo(() => still(led), [led]);
  const played = state.is === "playing" ? led : silent;
  const place = usePlace(played);
  const sound = useSound("room", played, place);
  useAwake(state.is === "playing");
  const over = state.is === "playing" && place.over;
  if (over) setState({ is: "done" });

  const play = useCallback(
    (at: number) => {
      onPlay(at);
      setState({ is: "playing" });
    },
    [onPlay],
  );
  const rest = useCallback(() => setState({ is: "resting", at: roundAt(led, clock.now()) }), [led, clock]);
  const stop = useCallback(() => setState({ is: "reading" }), []);
  const resting = state.is === "resting" ? state.at : null;
  // In the same moment as the drawing: a key pressed on what is seen must mean what is seen.
  useLayoutEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (event.key === "Escape" && state.is !== "reading") stop();
      else if (event.key === " " && state.is === "playing") rest();
      else if (event.key === " " && resting !== null) play(resting);
      else return;
      event.preventDefault();
    };
    addEventListener("keydown", pressed);
    return () => removeEventListener("keydown", pressed);
  }, [state.is, resting, play, rest, stop]);

  if (state.is === "playing" && place.phase)
    return (
      <Playing
        score={led}
        place={place}
        sound={sound}
        called={page.sheet.home.name}
        onRest={rest}
        onStop={stop}
      />
    );
  if (resting !== null)
    return (
      <main className="between">
        <h1 className="word">natural breath</h1>
        <p>For as long as you like.</p>
        <p className="keys">
          <button type="button" className="btn btn-primary" autoFocus onClick={() => play(resting)}>
            Go on, from the round that was left
          </button>
          <button type="button" className="btn btn-outline-primary" onClick={stop}>
            Stop here
          </button>
        </p>
      </main>
    );
  if (state.is === "done" || over)
    return (
      <main className="between">
        <h1 className="word">It is done</h1>
        <p>Natural breath for a while, and notice.</p>
        <p className="keys">
          <button type="button" className="btn btn-primary" autoFocus onClick={stop}>
            Back
          </button>
        </p>
      </main>
    );
  return (
    <Before
      page={page}
      choice={choice}
      onChoice={setChoice}
      lane={lane}
      onLane={setLane}
      lanes={gentle ? score.passages[0]!.lane_names : null}
      sound={sound}
      onStart={() => play(0)}
    />
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
