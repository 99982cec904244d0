import { useState } from "react";
import { Button } from "react-bootstrap";
import { useParams } from "react-router";
import { canStayAwake, mayGoDark, useWakeLock } from "../lead/useWakeLock";
import type { Score } from "../shared/contract";
import { type Sides, sideSaid } from "../shared/cues";
import { LampSheet } from "../shared/LampSheet";
import { useLight } from "../shared/light";
import { Saying } from "../shared/Saying";
import { Trouble, Waiting } from "../shared/Told";
import { classTime, type Cue, useCue, useSeconds } from "../shared/useCue";
import { clock } from "../shared/words";
import { SoundCard } from "../sound/SoundCard";
import { useSound } from "../sound/useSound";
import { ScreenCard } from "./ScreenCard";
import { useRoom } from "./useRoom";

/** RoomView is for everybody: word, side, count and lamps, and nothing that could be pressed to change the class. */
export function RoomView() {
  const code = useParams().code ?? "";
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
          {error ? <Trouble error={error} retry={() => void retry()} /> : <Waiting what="Coming in" />}
        </main>
      )}
      {room &&
        (room.score ? (
          <Class key={room.score.class_id} score={room.score} lamps={lamps} sides={sides} />
        ) : (
          <Quiet ended={seen} />
        ))}
      <footer>
        {!connected && <span role="status">not connected: the count goes on here</span>}
        <Button variant="link" className="quiet" onClick={() => setCard(true)}>
          This screen
        </Button>
      </footer>
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
  const cue = useCue(score);
  const seconds = useSeconds(score);
  const coming = useComingIn(score, cue);
  const sound = useSound("room", score, cue);
  const [card, setCard] = useState(false);
  const { strand } = cue;
  if (!strand) return <Quiet ended={cue.over} />;
  const passage = score.passages[strand.passage - 1];
  return (
    <main className={`now ${strand.through || "none"}`}>
      <div className="where">
        <h1>{passage?.name}</h1>
        <span>{coming ? "join at the next inhale" : strand.round > 0 && `round ${strand.round}`}</span>
      </div>
      <Saying cue={cue} side={sideSaid(score, strand, sides)} time={left(cue, seconds * 1000)} />
      {lamps && <LampSheet score={score} cue={cue} sides={sides} />}
      <Button variant="link" className="quiet sounding" onClick={() => setCard(true)}>
        <i className={sound.choice.on ? "bi bi-volume-up" : "bi bi-volume-mute"} aria-hidden /> Sound
      </Button>
      {card && <SoundCard sound={sound} onClose={() => setCard(false)} />}
    </main>
  );
}

/** left is what is left of a stretch; of one that waits for the teacher nobody knows. */
function left(cue: Cue, at: number): string {
  return cue.strand && cue.strand.end_ms >= 0 ? clock(cue.strand.end_ms - at) : "";
}

/** useComingIn tells whether somebody came in the middle of a round and should wait for the next inhale. */
function useComingIn(score: Score, cue: Cue): boolean {
  const [came] = useState(() => classTime(score));
  const [joined, setJoined] = useState(false);
  const begins = (cue.strand?.at_ms[0] ?? 0) >= came;
  const fresh = begins && (cue.strand?.phase === "inhale" || cue.strand?.stage !== "round");
  if (!joined && fresh) setJoined(true);
  return !joined && cue.strand?.stage === "round";
}
