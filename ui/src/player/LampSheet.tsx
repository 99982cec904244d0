import { type CSSProperties, memo } from "react";
import { type PageClock, useClock } from "./clock";
import type { Score, ScorePhase } from "../wire/contract";
import { clock } from "./format";
import { fitLamps, groupsOf, isWord, longestLabel, sizeOf } from "./lampFit";
import { isStretch, type Sides, sideSaid, unit } from "./phases";
import { useBox } from "./useBox";
import { classTime, type Place } from "./usePlace";
import { widthOf } from "./widthOf";
import { type Say, useSay } from "./say";

/** More lamps than these are dots that nobody counts: they are not drawn. */
const mostLamps = 240;

type Props = {
  score: Score;
  place: Place;
  sides?: Sides;
  /** a round that is shown without being in progress, in the place of what is */
  unlit?: ScorePhase[];
};

/**
 * LampSheet lays a round out whole: each count a lamp, each phase a string of lamps, hung on the side the air goes.
 * An inhale lights its lamps one by one, a hold keeps the light and is counted along below, an exhale puts its lamps
 * out, an empty hold is counted along dark lamps. The lamps are as large as the place for them allows.
 */
export function LampSheet({ score, place, sides = "class", unlit }: Props) {
  const [ref, box] = useBox<HTMLDivElement>();
  const { phases, current } = near(unlit ? { phases: unlit, current: -1 } : unit(score, place));
  const say = useSay();
  const strings = phases.map((phase) => sizeOf(phase, labelOf(score, phase, sides, say), widthOf));
  const lamps = phases.reduce((all, phase) => all + phase.at_ms.length, 0);
  const fit = box && lamps <= mostLamps && fitLamps(strings, box.width, box.height);
  const style = fit
    ? {
        "--lamp-size": `${fit.lamp}px`,
        "--label": `${fit.text}px`,
        "--longest": longestLabel(strings),
      }
    : undefined;
  return (
    <div
      className={`lampsheet ${fit ? fit.labels : ""} ${unlit ? "unlit" : ""}`}
      ref={ref}
      style={style as CSSProperties | undefined}
      aria-hidden
    >
      {fit &&
        phases.map((phase, i) => (
          <LampString
            key={`${phase.round}.${i}`}
            phase={phase}
            label={labelOf(score, phase, sides, say)}
            when={i < current ? "past" : i > current ? "ahead" : "now"}
            count={i === current ? place.count : 0}
            score={score}
          />
        ))}
    </div>
  );
}

/** A round of more phases than these is a sequence of movements: the breath in progress and the one after it are shown. */
const mostPhases = 10;

function near({ phases, current }: { phases: ScorePhase[]; current: number }) {
  if (phases.length <= mostPhases) return { phases, current };
  const breath = phases[Math.max(0, current)]!.breath;
  const from = phases.findIndex((phase, i) => phase.breath === breath || i === current);
  const end = phases.findIndex((phase, i) => i > current && phase.breath > breath + 1);
  return { phases: phases.slice(from, end < 0 ? from + 4 : end), current: current - from };
}

/** labelOf is what stands beside a string. Of a stretch the screen says the rest already; one that waits says so. */
function labelOf(score: Score, phase: ScorePhase, sides: Sides, say: Say): string {
  if (phase.kind === "still") return "";
  if (!isStretch(phase) || phase.open) return `${phase.word} ${sideSaid(score, phase, sides)}`.trim();
  if (phase.end_ms >= 0 || !score.wait) return "";
  const planned = score.wait.planned_end_ms - phase.at_ms[0]!;
  return planned > 0 ? say("waits-planned", { time: clock(planned) }) : say("waits");
}

type When = "past" | "now" | "ahead";

type StringProps = { phase: ScorePhase; label: string; when: When; count: number; score: Score };

/** With each count only the string and the lamps that change are drawn: a slow phone has a frame for the rest. */
const LampString = memo(function LampString({ phase, label, when, count, score }: StringProps) {
  return (
    <div className={`string ${when} ph-${phase.kind} ${phase.through || "none"}`}>
      {label !== "" && <span className="label">{label}</span>}
      {isStretch(phase) && !phase.open ? (
        <Embers phase={phase} />
      ) : (
        <span className="lamps">
          {groupsOf(phase).map((group) => (
            <span className="lamp-group" key={group.lamps[0]}>
              {group.name !== "" && <span className="named">{group.name}</span>}
              <span className="four">
                {group.lamps.map((n) => {
                  const state = when === "now" ? (n < count ? "past" : n > count ? "ahead" : "now") : when;
                  return <Lamp key={n} phase={phase} n={n} when={state} score={score} />;
                })}
              </span>
            </span>
          ))}
        </span>
      )}
    </div>
  );
});

type LampProps = { phase: ScorePhase; n: number; when: When; score: Score };

/**
 * Lamp is one count. The running one changes smoothly for as long as the count lasts. An open hold has a mark where its
 * planned length ends, and what runs past it is told along on the other side of the mark.
 */
const Lamp = memo(function Lamp({ phase, n, when, score }: LampProps) {
  const clock = useClock();
  const run = when === "now" ? running(phase, n, score, clock) : undefined;
  const marked = phase.open && score.passages[phase.passage - 1]?.tempo === 0;
  return (
    <span className={`lamp ${when} ${isWord(phase, n) ? "word" : ""}`}>
      <span className="pane">
        <span className="light" style={run} />
      </span>
      <span className={marked ? "notch marked" : "notch"}>
        <span className="tally" style={run} />
        {marked && <span className="mark" />}
        {marked && when === "now" && <span className="beyond" style={runningOver(phase, score, clock)} />}
      </span>
    </span>
  );
});

/** running times the smooth change of a lamp: as long as its count, begun as long ago as the count has run. */
function running(phase: ScorePhase, n: number, score: Score, clock: PageClock): CSSProperties {
  const from = phase.at_ms[n]!;
  const end = phase.at_ms[n + 1] ?? phase.end_ms;
  const to = end < 0 ? (score.wait?.planned_end_ms ?? from) : end; // an open phase fills as planned, then stays
  const gone = Math.max(0, classTime(score, clock) - from);
  return { animationDuration: `${clock.inReal(to - from)}ms`, animationDelay: `${-clock.inReal(gone)}ms` };
}

/** runningOver times what runs past the planned length: as long again as was planned. */
function runningOver(phase: ScorePhase, score: Score, clock: PageClock): CSSProperties {
  const from = phase.at_ms[0]!;
  const planned = (score.wait?.planned_end_ms ?? from) - from;
  const gone = Math.max(0, classTime(score, clock) - from);
  return {
    animationDuration: `${clock.inReal(planned)}ms`,
    animationDelay: `${clock.inReal(planned - gone)}ms`,
  };
}

/** Embers stand for a stretch that nobody counts. */
function Embers({ phase }: { phase: ScorePhase }) {
  return (
    <span className="embers">
      {Array.from({ length: phase.kind === "still" ? 1 : 7 }, (_, i) => (
        <i key={i} style={{ "--i": i } as CSSProperties} />
      ))}
    </span>
  );
}
