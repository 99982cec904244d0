import chevronLeft from "bootstrap-icons/icons/chevron-left.svg?raw";
import display from "bootstrap-icons/icons/display.svg?raw";
import moon from "bootstrap-icons/icons/moon.svg?raw";
import plug from "bootstrap-icons/icons/plug.svg?raw";
import sun from "bootstrap-icons/icons/sun.svg?raw";
import volumeMute from "bootstrap-icons/icons/volume-mute.svg?raw";
import volumeUp from "bootstrap-icons/icons/volume-up.svg?raw";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import type { Score } from "../wire/contract";
import { Icon } from "../frame/shell/Icon";
import { useClock } from "../player/clock";
import type { Light } from "../frame/shell/light";
import { type Place, useSeconds } from "../player/usePlace";
import { clock, momentOf } from "../player/format";
import type { Alone } from "../apart/leader";
import { Apart } from "./Apart";
import { EarLight } from "./EarLight";
import type { Ear } from "./useEar";
import { overrun } from "./overrun";
import { rich, t } from "../language/text";

type Props = {
  score: Score;
  place: Place;
  connected: boolean;
  /** how this screen does without the program, where it has a copy of the class */
  alone?: Alone;
  ear: Ear;
  onEar: () => void;
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
  return score.wait.planned_end_ms + overrun(score, seconds * 1000) + score.wait.length_ms;
}

export function TopBar({
  score,
  place,
  connected,
  alone,
  ear,
  onEar,
  light,
  onLight,
  onKeys,
  onRoom,
  sounds,
  onSound,
}: Props) {
  const time = useClock();
  const seconds = useSeconds(score);
  const end = endOf(score, seconds);
  const spare = score.slot_ms - end;
  const late = spare <= -500; // what is shown as 0:00 is in time
  return (
    <header className="topbar">
      <Link to="/" className="leave" aria-label={t("lead.leave-to-today")}>
        <Icon of={chevronLeft} />
      </Link>
      <h1 className="title">
        {score.title}
        {score.group && <small>{score.group.name}</small>}
      </h1>
      {alone?.ready ? (
        (alone.apart || !connected) && <Apart alone={alone} />
      ) : connected ? null : (
        <span className="offline" role="status">
          <Icon of={plug} />{" "}
          {rich("lead.not-connected", {
            span: <span className="still">{t("lead.the-count-goes-on-here")}</span>,
          })}
        </span>
      )}
      <EarLight ear={ear} onOpen={onEar} />
      <span className="clocks">
        <span>
          <small>{t("lead.time")}</small> {momentOf(score, seconds * 1000)}
        </span>
        {!place.over && (
          <span>
            <small>{t("lead.left")}</small> {clock(end - seconds * 1000)}
          </span>
        )}
        {score.slot_ms > 0 && (
          <span className={late ? "spare late" : "spare"}>
            <small>{late ? t("lead.late") : t("frame.to-spare")}</small> {clock(Math.abs(spare))}
          </span>
        )}
        {time.rate() !== 1 && (
          <span>
            <small>{t("lead.clock")}</small> ×{time.rate()}
          </span>
        )}
      </span>
      <Button variant="link" onClick={onSound} aria-label={t("frame.sound")}>
        <Icon of={sounds ? volumeUp : volumeMute} />
      </Button>
      {onRoom && (
        <Button variant="link" onClick={onRoom} aria-label={t("lead.the-rooms-screen")}>
          <Icon of={display} />
        </Button>
      )}
      <Button variant="link" onClick={onKeys} aria-label={t("lead.keys")}>
        <kbd>?</kbd>
      </Button>
      <Button
        variant="link"
        onClick={onLight}
        aria-label={light === "night" ? t("lead.day-light") : t("lead.night-light")}
      >
        <Icon of={light === "night" ? sun : moon} />
      </Button>
    </header>
  );
}
