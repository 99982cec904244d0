import "../player/lamps.css";
import "./roundSheet.css";
import { type CSSProperties, Fragment, type ReactNode } from "react";
import type { ScorePhase } from "../wire/contract";
import { groupsOf, isWord } from "../player/lampFit";
import { number } from "../player/format";
import { isStretch } from "../player/phases";
import { t } from "../language/text";

type Props = {
  phases: ScorePhase[];
  /** px of a lamp's width */
  lamp: number;
  /** makes a string a button; said with what it does */
  onPhase?: { chosen: number; choose: (i: number) => void };
  /** what is drawn beside a string */
  beside?: (i: number) => ReactNode;
};

/** The most lamps that are drawn of one phase: a round of strokes can have hundreds. */
const mostLamps = 60;

/**
 * RoundSheet draws a round as it is planned: each count a lamp, each phase a string of them, hung on the side the air goes. It is
 * the lamp sheet at rest, and small.
 */
export function RoundSheet({ phases, lamp, onPhase, beside }: Props) {
  const style = { "--lamp-size": `${lamp}px`, "--label": "0.8rem" } as CSSProperties;
  return (
    <div className={`lampsheet planned ${beside ? "withbeside" : ""}`} style={style}>
      {phases.map((phase, i) => (
        <Fragment key={i}>
          <RoundString phase={phase} i={i} onPhase={onPhase} />
          {beside?.(i)}
        </Fragment>
      ))}
    </div>
  );
}

/** RoundString is one phase of the round; a button where it can be chosen. */
function RoundString({ phase, i, onPhase }: { phase: ScorePhase; i: number; onPhase: Props["onPhase"] }) {
  const name = `${phase.word} ${phase.side}`.trim();
  const className = `string ahead ph-${phase.kind} ${phase.through || "none"}`;
  if (!onPhase || phase.kind === "still")
    return (
      <div className={className}>
        <Row phase={phase} name={name} />
      </div>
    );
  return (
    <button
      type="button"
      className={className}
      aria-pressed={onPhase.chosen === i}
      aria-label={t("plan.change-phase", { name, length: lengthOf(phase) })}
      onClick={() => onPhase.choose(i)}
    >
      <Row phase={phase} name={name} />
    </button>
  );
}

function Row({ phase, name }: { phase: ScorePhase; name: string }) {
  return (
    <>
      <span className="label">
        {name} <b>{lengthOf(phase)}</b>
      </span>
      {!isStretch(phase) && (
        <span className="lamps" aria-hidden>
          {groupsOf(phase)
            .slice(0, Math.ceil(mostLamps / 4))
            .map((group) => (
              <span className="lamp-group" key={group.lamps[0]}>
                {group.name !== "" && <span className="named">{group.name}</span>}
                <span className="four">
                  {group.lamps.map((n) => (
                    <span className={`lamp ahead ${isWord(phase, n) ? "word" : ""}`} key={n}>
                      <span className="pane">
                        <span className="light" />
                      </span>
                    </span>
                  ))}
                </span>
              </span>
            ))}
        </span>
      )}
    </>
  );
}

/** lengthOf is the counts of a phase, or its seconds if it has none; those of a phase that waits are only planned. */
function lengthOf(phase: ScorePhase): string {
  const seconds = number((phase.end_ms - phase.at_ms[0]!) / 1000);
  if (phase.open) return t("plan.waits-about", { n: seconds });
  if (isStretch(phase)) return t("plan.n-seconds", { n: seconds });
  return String(phase.of);
}
