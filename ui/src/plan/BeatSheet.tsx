import "./beats.css";
import type { CSSProperties } from "react";
import type { ScorePhase } from "../wire/contract";

/** BeatSheet draws two lanes of one round under each other: the same beat stands in the same column. */
export function BeatSheet({ main, beside }: { main: ScorePhase[]; beside: ScorePhase[] }) {
  const beats = main.reduce((all, phase) => all + phase.at_ms.length, 0);
  return (
    <div className="beats" style={{ "--beats": beats } as CSSProperties}>
      <Row name="all" phases={main} />
      <Row name="beside" phases={beside} />
    </div>
  );
}

function Row({ name, phases }: { name: string; phases: ScorePhase[] }) {
  return (
    <>
      <span className="lanename">{name}</span>
      {phases.map((phase, i) => (
        <span
          key={i}
          className={`beat ph-${phase.kind} ${phase.through || "none"}`}
          style={{ gridColumn: `span ${phase.at_ms.length}` }}
        >
          {phase.word} {phase.side} {phase.kind === "free" ? "" : phase.of}
        </span>
      ))}
    </>
  );
}
