import { lazy, Suspense, useEffect, useMemo, useState } from "react";
import { Button } from "react-bootstrap";
import { Loading } from "../frame/shell/Loading";
import { hasLane, type Lane, laneScore } from "../player/lane";
import type { Carries } from "../player/carries";
import type { Sides } from "../player/phases";
import { usePlace } from "../player/usePlace";
import { awakeText, useAwake } from "../player/useAwake";
import { RoomWords, sayIn, useWords } from "../player/say";
import { Dusk } from "./Dusk";
import { useLook } from "./look";
import { noteLane, noteShown, wasAnswered, wasShown } from "./part";
import { Playing, type PlayingProps } from "./Playing";
import type { Asked } from "../wire/contract";
import { useRoom } from "./useRoom";

// What is opened by few is loaded when it is, with the styles of it.
const styles = () => import("./cards.scss");
const ScreenCard = lazy(async () => (await styles(), { default: (await import("./ScreenCard")).ScreenCard }));
const Quiet = lazy(async () => ({ default: (await import("./Quiet")).Quiet }));
const Asking = lazy(async () => ({ default: (await import("./Asking")).Asking }));
const CheckIn = lazy(async () => ({ default: (await import("./CheckIn")).CheckIn }));
const LaneChoice = lazy(async () => ({ default: (await import("./Lanes")).LaneChoice }));
const LaneStage = lazy(async () => ({ default: (await import("./Lanes")).LaneStage }));
const ErrorAlert = lazy(
  async () => (await styles(), { default: (await import("../frame/shell/ErrorAlert")).ErrorAlert }),
);

/** RoomView is for everybody: word, side, count and lamps, and nothing that could be pressed to change the class. */
export function RoomView({ code }: { code: string }) {
  const [language, setLanguage] = useState(() => localStorage.getItem("room:language") ?? "");
  const { room, error, retry, connected } = useRoom(code, language);
  const words = useWords(language || (room?.score?.language ?? "en"));
  const say = sayIn(words);
  const [look, changeLook] = useLook();
  const [carries, setCarries] = useState(storedCarries);
  const [sides, setSides] = useState(storedSides);
  const [card, setCard] = useState(false);
  const [seen, setSeen] = useState(false);
  if (room?.score && !seen) setSeen(true);
  const asked = useAsked(room?.asked ?? null);
  const awake = useAwake(true);
  const check = room?.check_in && (
    <Suspense>
      <CheckIn key={`${room.check_in.id} ${room.check_in.after}`} code={code} asked={room.check_in} />
    </Suspense>
  );
  return (
    <RoomWords value={words}>
      <div className="room">
        {look === "lanterns" && <Dusk score={room?.score ?? null} />}
        {!room && (
          <main>
            <h1 className="visually-hidden">{say("the-room")}</h1>
            <Suspense>
              {error ? <ErrorAlert error={error} retry={retry} /> : <Loading what={say("joining")} />}
            </Suspense>
          </main>
        )}
        {room &&
          (room.score ? (
            <>
              {check}
              <Class key={room.score.class_id} score={room.score} carries={carries} sides={sides} />
            </>
          ) : (
            <Suspense>
              <Quiet
                ended={seen || asked !== null || room.check_in?.after === true}
                next={room.next}
                bring={room.bring}
              >
                {check}
                {asked && <Asking key={asked.class_id} code={code} asked={asked} />}
              </Quiet>
            </Suspense>
          ))}
        <footer>
          <span role="status">
            {connected ? awakeText(awake, say) : say(room?.score ? "disconnected-counting" : "disconnected")}
          </span>
          <Button variant="link" className="quiet" onClick={() => setCard(true)}>
            {say("this-screen")}
          </Button>
        </footer>
        <Suspense>
          {card && (
            <ScreenCard
              carries={carries}
              onCarries={(next) => {
                localStorage.setItem("room:count", next);
                setCarries(next);
              }}
              sides={sides}
              onSides={(next) => {
                localStorage.setItem("room:sides", next);
                setSides(next);
              }}
              language={language}
              onLanguage={(next) => {
                localStorage.setItem("room:language", next);
                setLanguage(next);
              }}
              look={look}
              onLook={changeLook}
              awake={awake}
              onClose={() => setCard(false)}
            />
          )}
        </Suspense>
      </div>
    </RoomWords>
  );
}

/**
 * useAsked is the class that this browser is to be asked about: it showed it, and has not answered when the page was opened or
 * the question came.
 */
function useAsked(asked: Asked | null): Asked | null {
  const about = asked?.class_id ?? 0;
  const ask = useMemo(() => about !== 0 && wasShown(about) && !wasAnswered(about), [about]);
  return ask ? asked : null;
}

const choices = ["class", "both", "numbers", "lamps", "hidden"];

function storedCarries(): Carries {
  const kept = localStorage.getItem("room:count");
  if (kept !== null && choices.includes(kept)) return kept as Carries;
  return localStorage.getItem("room:lamps") === "no" ? "numbers" : "class"; // as earlier versions kept it
}

function storedSides(): Sides {
  const kept = localStorage.getItem("room:sides");
  return kept === "named" || kept === "hand" ? kept : "class";
}

/**
 * Class plays the lane that this screen has chosen; where there is room for both, they stand side by side. Playing stays while
 * lanes come and go: with it the sound would go.
 */
function Class({ score, ...rest }: PlayingProps) {
  const [lane, setLane] = useState<Lane>(() =>
    localStorage.getItem("room:lane") === "beside" ? "beside" : "main",
  );
  const gentle = useMemo(() => laneScore(score), [score]);
  const { phase } = usePlace(score);
  const both = window.matchMedia(wide).matches; // asked again with each count
  const passage = phase ? score.passages[phase.passage - 1] : undefined;
  const two = gentle !== null && hasLane(passage);
  const shows = two && !both ? lane : null;
  useEffect(() => noteShown(score.class_id), [score.class_id]);
  useEffect(() => {
    if (shows) noteLane(shows);
  }, [shows]);
  const names = two ? passage!.lane_names : null;
  const choose = (next: Lane) => {
    localStorage.setItem("room:lane", next);
    setLane(next);
  };
  return (
    <Playing
      score={two && !both && lane === "beside" ? gentle : score}
      {...rest}
      called={both ? names?.main : undefined}
      above={
        names &&
        !both && (
          <Suspense>
            <LaneChoice names={names} lane={lane} onLane={choose} />
          </Suspense>
        )
      }
      beside={
        names &&
        both && (
          <Suspense>
            <LaneStage score={score} sides={rest.sides} carries={rest.carries} />
          </Suspense>
        )
      }
    />
  );
}

/** Where there is room for both lanes beside each other. */
const wide = "(min-width: 1000px) and (min-aspect-ratio: 5/4)";
