import volumeMute from "bootstrap-icons/icons/volume-mute.svg?raw";
import volumeUp from "bootstrap-icons/icons/volume-up.svg?raw";
import { lazy, Suspense, useMemo, useState, useSyncExternalStore } from "react";
import { Button } from "react-bootstrap";
import { awakeWords, useAwake } from "../player/useAwake";
import { Icon } from "../frame/Icon";
import type { Score } from "../wire/contract";
import { hasLane, type Lane, laneNames, laneScore } from "../player/lane";
import { LaneStage } from "../player/LaneStage";
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
  const [lane, setLane] = useState<Lane>(() =>
    localStorage.getItem("room:lane") === "beside" ? "beside" : "main",
  );
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
          <Class
            key={room.score.class_id}
            score={room.score}
            lamps={lamps}
            sides={sides}
            lane={lane}
            onLane={(next) => {
              localStorage.setItem("room:lane", next);
              setLane(next);
            }}
          />
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

type ClassProps = {
  score: Score;
  lamps: boolean;
  sides: Sides;
  lane: Lane;
  onLane: (lane: Lane) => void;
};

/** Class plays the lane that this screen has chosen; where there is room for both, they stand side by side. */
function Class({ score, lane, ...rest }: ClassProps) {
  const beside = useMemo(() => laneScore(score), [score]);
  const both = useWide();
  const own = lane === "beside" && !both && beside ? beside : score;
  return <Playing score={own} whole={score} lane={lane} both={both} {...rest} />;
}

type PlayingProps = ClassProps & { whole: Score; both: boolean };

function Playing({ score, whole, lamps, sides, lane, onLane, both }: PlayingProps) {
  const place = usePlace(score);
  const coming = useComingIn(score, place);
  const sound = useSound("room", score, place);
  const [card, setCard] = useState(false);
  const { phase } = place;
  if (!phase) return <Quiet ended={place.over} next={null} bring="" />;
  const passage = score.passages[phase.passage - 1];
  const choice = whole.lane.length > 0 && hasLane(passage) ? laneNames(passage!) : null;
  return (
    <main className={both && choice ? "both" : ""}>
      <h1 className="visually-hidden">{passage?.name}</h1>
      {choice && !both && (
        <div className="lanes" role="radiogroup" aria-label="What this screen shows">
          {(["main", "beside"] as const).map((id) => (
            <button type="button" key={id} role="radio" aria-checked={lane === id} onClick={() => onLane(id)}>
              {choice[id]}
            </button>
          ))}
        </div>
      )}
      <div className="stagebox">
        <Stage
          score={score}
          place={place}
          sides={sides}
          lamps={lamps}
          called={choice && both ? choice.main : undefined}
          aside={coming ? "join at the next inhale" : undefined}
        />
      </div>
      {both && <LaneStage score={whole} sides={sides} lamps={lamps} />}
      <Button variant="link" className="quiet sounding" onClick={() => setCard(true)}>
        <Icon of={sound.choice.on ? volumeUp : volumeMute} /> Sound
      </Button>
      <Suspense>{card && <SoundCard sound={sound} onClose={() => setCard(false)} />}</Suspense>
    </main>
  );
}

const wide = "(min-width: 1000px) and (min-aspect-ratio: 5/4)";

/** useWide tells whether the screen has room for both lanes beside each other. */
function useWide(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const query = window.matchMedia(wide);
      query.addEventListener("change", changed);
      return () => query.removeEventListener("change", changed);
    },
    () => window.matchMedia(wide).matches,
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
