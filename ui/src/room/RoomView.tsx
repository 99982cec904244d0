import volumeMute from "bootstrap-icons/icons/volume-mute.svg?raw";
import volumeUp from "bootstrap-icons/icons/volume-up.svg?raw";
import { lazy, Suspense, useState } from "react";
import { Button } from "react-bootstrap";
import { awakeWords, useAwake } from "../player/useAwake";
import { Icon } from "../frame/Icon";
import type { Score } from "../wire/contract";
import type { Sides } from "../player/phases";
import { Stage } from "../player/Stage";
import { Loading } from "../frame/Loading";
import { classTime, type Place, usePlace } from "../player/usePlace";
import { useSound } from "../player/sound/useSound";
import { Dusk } from "./Dusk";
import { Quiet } from "./Quiet";
import { useLook } from "./look";
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
  const [look, changeLook] = useLook();
  const [lamps, setLamps] = useState(() => localStorage.getItem("room:lamps") !== "no");
  const [sides, setSides] = useState(storedSides);
  const [card, setCard] = useState(false);
  const [seen, setSeen] = useState(false);
  if (room?.score && !seen) setSeen(true);
  const awake = useAwake(true);
  const toggle = () => {
    localStorage.setItem("room:lamps", lamps ? "no" : "yes");
    setLamps(!lamps);
  };
  return (
    <div className="room">
      {look === "lanterns" && <Dusk score={room?.score ?? null} />}
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
          <Quiet ended={seen} next={room.next} bring={room.bring} />
        ))}
      <footer>
        <span role="status">{connected ? awakeWords[awake] : "not connected: still counting"}</span>
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
            look={look}
            onLook={changeLook}
            awake={awake}
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

function Class({ score, lamps, sides }: { score: Score; lamps: boolean; sides: Sides }) {
  const place = usePlace(score);
  const coming = useComingIn(score, place);
  const sound = useSound("room", score, place);
  const [card, setCard] = useState(false);
  const { phase } = place;
  if (!phase) return <Quiet ended={place.over} next={null} bring="" />;
  return (
    <main>
      <h1 className="visually-hidden">{score.passages[phase.passage - 1]?.name}</h1>
      <div className="stagebox">
        <Stage
          score={score}
          place={place}
          sides={sides}
          lamps={lamps}
          aside={coming ? "join at the next inhale" : undefined}
        />
      </div>
      <Button variant="link" className="quiet sounding" onClick={() => setCard(true)}>
        <Icon of={sound.choice.on ? volumeUp : volumeMute} /> Sound
      </Button>
      <Suspense>{card && <SoundCard sound={sound} onClose={() => setCard(false)} />}</Suspense>
    </main>
  );
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
