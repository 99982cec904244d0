import type { Score } from "../wire/contract";
import { calling, isStretch, nextInWords, sideWord } from "../player/cues";
import { Saying } from "../player/Saying";
import { type Cue, useSeconds } from "../player/useCue";
import { clock } from "../player/format";

/** Now is what to say: the word, the side and the count, and what comes after it. */
export function Now({ score, cue }: { score: Score; cue: Cue }) {
  const seconds = useSeconds(score);
  const { strand } = cue;
  if (!strand) return null;
  const passage = score.passages[strand.passage - 1];
  const stretch = isStretch(strand);
  return (
    <section className={`now ${strand.through || "none"}`} aria-label="Now">
      <p className="where">
        <span>{passage?.name}</span>
        {strand.round > 0 && passage && (
          <span className="round">
            round <b>{strand.round}</b> of <b>{passage.rounds}</b>
            {strand.stage === "round" && strand.round === passage.rounds && " · the last"}
          </span>
        )}
        {strand.stage === "opening" && <span className="round">opening</span>}
        {strand.stage === "closing" && <span className="round">closing</span>}
      </p>
      <Saying cue={cue} side={sideWord(strand)} time={stretchTime(cue, seconds * 1000)} />
      <p className="next">
        <span>
          <small>next</small> {nextInWords(score, cue)}
        </span>
        <span className="call" role="status">
          {calling(score, seconds * 1000)}
        </span>
      </p>
      {stretch && passage?.script && <p className="script">{passage.script}</p>}
      {strand.phase === "free" && strand.says[0] && strand.stage === "closing" && (
        <p className="script">{strand.says[0]}</p>
      )}
    </section>
  );
}

/** A stretch shows the time that is left, or, where it waits for the teacher, how long it has lasted. */
function stretchTime(cue: Cue, at: number): string {
  const strand = cue.strand!;
  return strand.end_ms < 0 ? clock(at - strand.at_ms[0]!) : clock(strand.end_ms - at);
}
