import volumeMute from "bootstrap-icons/icons/volume-mute.svg?raw";
import volumeUp from "bootstrap-icons/icons/volume-up.svg?raw";
import { lazy, type ReactNode, Suspense, useState } from "react";
import { Button } from "react-bootstrap";
import { Icon } from "../frame/shell/Icon";
import type { Carries } from "../player/carries";
import type { Sides } from "../player/phases";
import { Stage } from "../player/Stage";
import { useSound } from "../player/sound/useSound";
import { useClock } from "../player/clock";
import { classTime, type Place, usePlace } from "../player/usePlace";
import type { Score } from "../wire/contract";
import { useSay } from "../player/say";

const Quiet = lazy(async () => ({ default: (await import("./Quiet")).Quiet }));
const SoundCard = lazy(
  async () => (
    await import("./cards.scss"),
    { default: (await import("../player/sound/SoundCard")).SoundCard }
  ),
);

export type PlayingProps = {
  score: Score;
  carries: Carries;
  sides: Sides;
  /** what the lane that is played is called, in the place of the passage's name */
  called?: string;
  /** the choice of a lane */
  above?: ReactNode;
  /** the other lane, where there is room for both */
  beside?: ReactNode;
};

/** Playing is the class, or a lane of it, for everybody: word, side, count and lamps, with its sound. */
export function Playing({ score, carries, sides, called, above, beside }: PlayingProps) {
  const place = usePlace(score);
  const coming = useComingIn(score, place);
  const sound = useSound("room", score, place);
  const [card, setCard] = useState(false);
  const say = useSay();
  const { phase } = place;
  if (!phase)
    return (
      <Suspense>
        <Quiet ended={place.over} next={null} bring="" />
      </Suspense>
    );
  return (
    <main className={beside ? "both" : ""}>
      <h1 className="visually-hidden">{score.passages[phase.passage - 1]?.name}</h1>
      {above}
      <div className="stagebox">
        <Stage
          score={score}
          place={place}
          sides={sides}
          carries={carries}
          called={called}
          aside={coming ? say("join") : undefined}
        />
      </div>
      {beside}
      <Button variant="link" className="quiet sounding" onClick={() => setCard(true)}>
        <Icon of={sound.choice.on ? volumeUp : volumeMute} /> {say("sound")}
      </Button>
      <Suspense>{card && <SoundCard sound={sound} onClose={() => setCard(false)} />}</Suspense>
    </main>
  );
}

/** useComingIn tells whether somebody came in the middle of a round and should wait for the next inhale. */
function useComingIn(score: Score, place: Place): boolean {
  const clock = useClock();
  const [came] = useState(() => classTime(score, clock));
  const [joined, setJoined] = useState(false);
  const begins = (place.phase?.at_ms[0] ?? 0) >= came;
  const fresh = begins && (place.phase?.kind === "inhale" || place.phase?.stage !== "round");
  if (!joined && fresh) setJoined(true);
  return !joined && place.phase?.stage === "round";
}
