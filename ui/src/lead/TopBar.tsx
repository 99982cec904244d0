import { Button } from "react-bootstrap";
import { Link } from "react-router";
import type { Score } from "../shared/contract";
import { now, rate } from "../shared/clock";
import type { Light } from "../shared/light";
import { type Cue, useSeconds } from "../shared/useCue";
import { clock, timeOfDay } from "../shared/words";

type Props = {
  score: Score;
  cue: Cue;
  connected: boolean;
  light: Light;
  onLight: () => void;
  onKeys: () => void;
  onRoom?: () => void; // not in a try-out

  sounds: boolean;
  onSound: () => void;
};

/** endOf is when the class will end if nothing is adjusted. What waits beyond its planned end moves it on. */
function endOf(score: Score, seconds: number): number {
  if (!score.wait) return score.end_ms;
  return Math.max(score.wait.planned_end_ms, seconds * 1000) + score.wait.length_ms;
}

export function TopBar({ score, cue, connected, light, onLight, onKeys, onRoom, sounds, onSound }: Props) {
  const seconds = useSeconds(score);
  const end = endOf(score, seconds);
  const spare = score.slot_ms - end;
  const late = spare <= -500; // what is shown as 0:00 is in time
  return (
    <header className="topbar">
      <Link to="/" className="leave" aria-label="Leave to today">
        <i className="bi bi-chevron-left" aria-hidden />
      </Link>
      <h1 className="title">
        {score.title}
        {score.group && <small>{score.group.name}</small>}
      </h1>
      {!connected && (
        <span className="offline" role="status">
          <i className="bi bi-plug" aria-hidden /> not connected: the count goes on here
        </span>
      )}
      <span className="clocks">
        <span>
          <small>time</small> {timeOfDay(now())}
        </span>
        {!cue.over && (
          <span>
            <small>left</small> {clock(end - seconds * 1000)}
          </span>
        )}
        {score.slot_ms > 0 && (
          <span className={late ? "spare late" : "spare"}>
            <small>{late ? "late" : "to spare"}</small> {clock(Math.abs(spare))}
          </span>
        )}
        {rate() !== 1 && (
          <span>
            <small>clock</small> ×{rate()}
          </span>
        )}
      </span>
      <Button variant="link" onClick={onSound} aria-label="Sound">
        <i className={sounds ? "bi bi-volume-up" : "bi bi-volume-mute"} aria-hidden />
      </Button>
      {onRoom && (
        <Button variant="link" onClick={onRoom} aria-label="The room's screen">
          <i className="bi bi-display" aria-hidden />
        </Button>
      )}
      <Button variant="link" onClick={onKeys} aria-label="Keys">
        <kbd>?</kbd>
      </Button>
      <Button variant="link" onClick={onLight} aria-label={light === "night" ? "Day light" : "Night light"}>
        <i className={light === "night" ? "bi bi-sun" : "bi bi-moon"} aria-hidden />
      </Button>
    </header>
  );
}
