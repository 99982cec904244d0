import type { Score } from "../wire/contract";
import { calling, isStretch, nextInWords, sideWord } from "../player/cues";
import { Saying } from "../player/Saying";
import { type Cue, useSeconds } from "../player/useCue";
import { clock } from "../player/format";

/** Now is what to say: the word, the side and the count, and what comes after it. */
export function Now({ score, cue }: { score: Score; cue: Cue }) {
  const seconds = useSeconds(score);
  const { phase } = cue;
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
      <Saying cue={cue} side={sideWord(phase)} time={stretchTime(cue, seconds * 1000)} />
      <p className="next">
        <span>
          <small>next</small> {nextInWords(score, cue)}
        </span>
        <span className="call" role="status">
          {calling(score, seconds * 1000)}
        </span>
      </p>
      {stretch && passage?.script && <p className="script">{passage.script}</p>}
      {phase.kind === "free" && phase.says[0] && phase.stage === "closing" && (
        <p className="script">{phase.says[0]}</p>
      )}
    </section>
  );
}

/** A stretch shows the time that is left, or, where it waits for the teacher, how long it has lasted. */
function stretchTime(cue: Cue, at: number): string {
  const phase = cue.phase!;
  return phase.end_ms < 0 ? clock(at - phase.at_ms[0]!) : clock(phase.end_ms - at);
}
