import type { CSSProperties } from "react";
import { inReal } from "./clock";
import type { Score, ScorePhase } from "../wire/contract";
import { isStretch, type Sides, sideSaid, unit } from "./phases";
import { classTime, type Place } from "./usePlace";
import { clock } from "./format";

type Props = { score: Score; place: Place; sides?: Sides };

/**
 * LampSheet lays a round out whole: each count a lamp, each phase a string of lamps, hung on the side the air goes.
 * An inhale lights its lamps one by one, a hold keeps the light and is counted along below, an exhale puts its lamps
 * out, an empty hold is counted along dark lamps.
 */
export function LampSheet({ score, place, sides = "class" }: Props) {
  const { phases, current } = unit(score, place);
  if (phases.length === 0) return null;
  const longest = Math.max(...phases.map((s) => s.at_ms.length));
  return (
    <div className={`lampsheet ${size(phases.length, longest)}`} aria-hidden>
      {phases.map((phase, i) => (
        <LampString
          key={`${phase.round}.${i}`}
          phase={phase}
          side={sideSaid(score, phase, sides)}
          when={i < current ? "past" : i > current ? "ahead" : "now"}
          count={i === current ? place.count : 0}
          score={score}
        />
      ))}
    </div>
  );
}

/** size is how large the lamps are, so that the whole round is seen and its lamps are no smaller than they must be. */
function size(strings: number, longest: number): string {
  if (longest > 120) return "crowded";
  if (longest > 24) return strings === 1 ? "" : "dense";
  if (strings > 6) return "tall";
  if (strings > 4) return "many";
  return longest <= 12 ? "roomy" : "";
}

type When = "past" | "now" | "ahead";

function LampString({
  phase,
  side,
  when,
  count,
  score,
}: {
  phase: ScorePhase;
  side: string;
  when: When;
  count: number;
  score: Score;
}) {
  return (
    <div className={`string ${when} ph-${phase.kind} ${phase.through || "none"}`}>
      <span className="label">
        {isStretch(phase) && !phase.open ? stretchLabel(phase, score) : `${phase.word} ${side}`}
      </span>
      {isStretch(phase) && !phase.open ? (
        <Embers phase={phase} />
      ) : (
        <span className="lamps">
          {fours(phase.at_ms).map((four, f) => (
            <span className="four" key={f}>
              {four.map((_, j) => {
                const n = f * 4 + j;
                const state = when === "now" ? (n < count ? "past" : n > count ? "ahead" : "now") : when;
                return <Lamp key={n} phase={phase} n={n} when={state} score={score} />;
              })}
            </span>
          ))}
        </span>
      )}
    </div>
  );
}

/** A stretch that waits says so; of others the screen shows the time already. */
function stretchLabel(phase: ScorePhase, score: Score): string {
  if (phase.end_ms >= 0 || !score.wait) return "";
  const planned = score.wait.planned_end_ms - phase.at_ms[0]!;
  return planned > 0 ? `until you go on · ${clock(planned)} planned` : "until you go on";
}

function fours<T>(list: T[]): T[][] {
  const groups: T[][] = [];
  for (let i = 0; i < list.length; i += 4) groups.push(list.slice(i, i + 4));
  return groups;
}

/** Lamp is one count. The running one changes smoothly for as long as the count lasts. */
function Lamp({ phase, n, when, score }: { phase: ScorePhase; n: number; when: When; score: Score }) {
  const word = phase.first === 0 && n === 0;
  return (
    <span className={`lamp ${when} ${word ? "word" : ""}`}>
      <span className="pane">
        <span className="light" style={when === "now" ? running(phase, n, score) : undefined} />
      </span>
      <span className="notch">
        <span className="tally" style={when === "now" ? running(phase, n, score) : undefined} />
      </span>
    </span>
  );
}

/** running times the smooth change of a lamp: as long as its count, begun as long ago as the count has run. */
function running(phase: ScorePhase, n: number, score: Score): CSSProperties {
  const from = phase.at_ms[n]!;
  const end = phase.at_ms[n + 1] ?? phase.end_ms;
  const to = end < 0 ? (score.wait?.planned_end_ms ?? from) : end; // an open phase fills as planned, then stays
  const gone = Math.max(0, classTime(score) - from);
  return { animationDuration: `${inReal(to - from)}ms`, animationDelay: `${-inReal(gone)}ms` };
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
