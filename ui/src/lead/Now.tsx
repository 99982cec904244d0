import type { Cue, Score } from "../wire/contract";
import { isStretch } from "../player/phases";
import { Saying } from "../player/Saying";
import { type Place, useSeconds } from "../player/usePlace";
import { textOf, useShown } from "../player/useShown";
import { clock } from "../player/format";

/** Now is what to say: the word, the side and the count, and what comes after it. */
export function Now({ score, place }: { score: Score; place: Place }) {
  const seconds = useSeconds(score);
  const shown = useShown(score);
  const { phase } = place;
  if (!phase) return null;
  const passage = score.passages[phase.passage - 1];
  const stretch = isStretch(phase);
  return (
    <section className={`now ${phase.through || "none"}`} aria-label="Now">
      <p className="where">
        <span>{passage?.name}</span>
        {phase.round > 0 && passage && (
          <span className="round">
            round <b>{phase.round}</b> of <b>{passage.rounds}</b>
            {phase.stage === "round" && phase.round === passage.rounds && " · the last"}
          </span>
        )}
        {phase.stage === "opening" && <span className="round">opening</span>}
        {phase.stage === "closing" && <span className="round">closing</span>}
      </p>
      <Saying place={place} side={phase.side} time={stretchTime(place, seconds * 1000)} />
      <p className="next">
        <span>
          <small>next</small> {textOf(shown, "next").join("")}
        </span>
        <span className="call" role="status">
          {textOf(shown, "last", "half", "minute", "half-minute").join(" · ")}
        </span>
      </p>
      <Besides cues={shown} />
      {stretch && passage?.script && <p className="script">{passage.script}</p>}
    </section>
  );
}

/** A stretch shows the time that is left, or, where it waits for the teacher, how long it has lasted. */
function stretchTime(place: Place, at: number): string {
  const phase = place.phase!;
  return phase.end_ms < 0 ? clock(at - phase.at_ms[0]!) : clock(phase.end_ms - at);
}

/** Besides is what is to be done and said besides the count: the hand, the teacher's own lines, a prompt. */
function Besides({ cues }: { cues: Cue[] }) {
  const hand = textOf(cues, "hand");
  const lines = textOf(
    cues.filter((c) => c.who !== "room"),
    "line",
    "prompt",
  );
  if (hand.length + lines.length === 0) return <p className="besides" aria-hidden />;
  return (
    <p className="besides">
      {hand.length > 0 && <b>{hand.join(" · ")}</b>}
      {lines.map((line, i) => (
        <span key={i}>{line}</span>
      ))}
    </p>
  );
}
