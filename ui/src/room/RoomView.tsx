import volumeMute from "bootstrap-icons/icons/volume-mute.svg?raw";
import volumeUp from "bootstrap-icons/icons/volume-up.svg?raw";
import { lazy, Suspense, useState } from "react";
import { Button } from "react-bootstrap";
import { canStayAwake, mayGoDark, useWakeLock } from "../player/useWakeLock";
import { Icon } from "../frame/Icon";
import type { Score } from "../wire/contract";
import { type Sides, sideSaid } from "../player/phases";
import { textOf, useShown } from "../player/useShown";
import { LampSheet } from "../player/LampSheet";
import { useLight } from "../frame/light";
import { Saying } from "../player/Saying";
import { Loading } from "../frame/Loading";
import { classTime, type Place, usePlace, useSeconds } from "../player/usePlace";
import { clock } from "../player/format";
import { useSound } from "../player/sound/useSound";
import { useRoom } from "./useRoom";

// What is opened by few is loaded when it is, with the styles of it.
const styles = () => import("./cards.scss");
const ScreenCard = lazy(async () => (await styles(), { default: (await import("./ScreenCard")).ScreenCard }));
const SoundCard = lazy(
  async () => (await styles(), { default: (await import("../player/sound/SoundCard")).SoundCard }),
);
const ErrorAlert = lazy(
  async () => (await styles(), { default: (await import("../frame/ErrorAlert")).ErrorAlert }),
);

/** RoomView is for everybody: word, side, count and lamps, and nothing that could be pressed to change the class. */
export function RoomView({ code }: { code: string }) {
  const { room, error, retry, connected } = useRoom(code);
  const [light, changeLight] = useLight("room", "night");
  const [lamps, setLamps] = useState(() => localStorage.getItem("room:lamps") !== "no");
  const [sides, setSides] = useState(storedSides);
  const [card, setCard] = useState(false);
  const [seen, setSeen] = useState(false);
  if (room?.score && !seen) setSeen(true);
  useWakeLock(true);
  const toggle = () => {
    localStorage.setItem("room:lamps", lamps ? "no" : "yes");
    setLamps(!lamps);
  };
  return (
    <div className="room">
      {!room && (
        <main>
          <h1 className="visually-hidden">The room</h1>
          <Suspense>
            {error ? <ErrorAlert error={error} retry={retry} /> : <Loading what="Joining the class" />}
          </Suspense>
        </main>
      )}
      {room &&
        (room.score ? (
          <Class key={room.score.class_id} score={room.score} lamps={lamps} sides={sides} />
        ) : (
          <Quiet ended={seen} />
        ))}
      <footer>
        {!connected && <span role="status">not connected: still counting</span>}
        <Button variant="link" className="quiet" onClick={() => setCard(true)}>
          This screen
        </Button>
      </footer>
      <Suspense>
        {card && (
          <ScreenCard
            lamps={lamps}
            onLamps={toggle}
            sides={sides}
            onSides={(next) => {
              localStorage.setItem("room:sides", next);
              setSides(next);
            }}
            light={light}
            onLight={changeLight}
            onClose={() => setCard(false)}
          />
        )}
      </Suspense>
    </div>
  );
}

function storedSides(): Sides {
  const kept = localStorage.getItem("room:sides");
  return kept === "named" || kept === "hand" ? kept : "class";
}

/** Quiet waits before a class, and thanks after one. */
function Quiet({ ended }: { ended: boolean }) {
  return (
    <main className="quietly">
      <h1 className="word">{ended ? "Thank you" : "Soon"}</h1>
      <p>
        {ended ? "The class has ended." : "Nothing is led just now."} This page wakes up by itself when one
        begins.
      </p>
      {!ended && !canStayAwake() && <p>{mayGoDark}</p>}
    </main>
  );
}

function Class({ score, lamps, sides }: { score: Score; lamps: boolean; sides: Sides }) {
  const place = usePlace(score);
  const seconds = useSeconds(score);
  const shown = useShown(score);
  const coming = useComingIn(score, place);
  const sound = useSound("room", score, place);
  const [card, setCard] = useState(false);
  const { phase } = place;
  if (!phase) return <Quiet ended={place.over} />;
  const passage = score.passages[phase.passage - 1];
  return (
    <main className={`now ${phase.through || "none"}`}>
      <div className="where">
        <h1>{passage?.name}</h1>
        <span>{coming ? "join at the next inhale" : phase.round > 0 && `round ${phase.round}`}</span>
      </div>
      <Saying place={place} side={sideSaid(score, phase, sides)} time={left(place, seconds * 1000)} />
      <p className="besides" role="status">
        {textOf(shown, "hand", "line", "last", "half", "minute", "half-minute").join(" · ")}
      </p>
      {lamps && <LampSheet score={score} place={place} sides={sides} />}
      <Button variant="link" className="quiet sounding" onClick={() => setCard(true)}>
        <Icon of={sound.choice.on ? volumeUp : volumeMute} /> Sound
      </Button>
      <Suspense>{card && <SoundCard sound={sound} onClose={() => setCard(false)} />}</Suspense>
    </main>
  );
}

/** left is what is left of a stretch; of one that waits for the teacher nobody knows. */
function left(place: Place, at: number): string {
  return place.phase && place.phase.end_ms >= 0 ? clock(place.phase.end_ms - at) : "";
}

/** useComingIn tells whether somebody came in the middle of a round and should wait for the next inhale. */
function useComingIn(score: Score, place: Place): boolean {
  const [came] = useState(() => classTime(score));
  const [joined, setJoined] = useState(false);
  const begins = (place.phase?.at_ms[0] ?? 0) >= came;
  const fresh = begins && (place.phase?.kind === "inhale" || place.phase?.stage !== "round");
  if (!joined && fresh) setJoined(true);
  return !joined && place.phase?.stage === "round";
}
