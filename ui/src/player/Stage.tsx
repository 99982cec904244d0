import { lazy, Suspense } from "react";
import type { Cue, Score, ScorePassage, ScorePhase } from "../wire/contract";
import { Hand } from "./Hand";
import { LampSheet } from "./LampSheet";
import { type Carries, carried } from "./carries";
import { clock } from "./format";
import { isWord } from "./lampFit";
import { countShown, isStretch, partWord, type Sides, sideSaid } from "./phases";
import { type Place, useSeconds } from "./usePlace";
import { type Say, useSay } from "./say";
import { textOf, useShown } from "./useShown";
import { useFonts, widthOf } from "./widthOf";
import { fitted, Words } from "./Words";

type Props = {
  score: Score;
  place: Place;
  sides?: Sides;
  /** what shows the count */
  carries?: Carries;
  /** what stands beside the passage's name, where it is not the round */
  aside?: string;
  /** what stands in the place of the passage's name: that of a lane beside */
  called?: string;
  /** what the teacher says, where it is one card of several and not all of it */
  script?: string;
  /** whether the seconds of a phase by hand are shown: they are for who leads */
  leads?: boolean;
};

/**
 * Stage is what is led by: the word, the side and the count, what the hand does, what comes next, what is to be said, and the
 * lamps. It shows the cues of the core and makes up none. The lead screen and the room have the same.
 */
export function Stage({
  score,
  place,
  sides = "class",
  carries = "both",
  aside,
  called,
  script,
  leads = false,
}: Props) {
  useFonts();
  const shown = useShown(score, place);
  const { phase } = place;
  if (!phase) return null;
  const planned = score.passages[phase.passage - 1]!;
  const passage = { ...planned, name: called ?? planned.name, script: script ?? planned.script };
  const parts = { score, place, phase, passage, shown, sides, carries, aside, leads };
  if (phase.kind === "talk") return <Talk {...parts} />;
  if (phase.stage === "own") return <OwnPace {...parts} />;
  return <Led {...parts} />;
}

type Parts = Required<Omit<Props, "aside" | "called" | "script">> & {
  phase: ScorePhase;
  passage: ScorePassage;
  shown: Cue[];
  aside: string | undefined;
};

/** Led is what is counted, and the free breath around it. */
function Led({ score, place, phase, passage, shown, sides, carries, aside, leads }: Parts) {
  const say = useSay();
  const { numbers, lamps } = carried(carries, passage);
  const spoken = lines(shown);
  const roomy = passage.script !== "" ? "worded scripted" : passage.lines_for.length > 0 ? "worded" : "";
  return (
    <section
      className={`stage led ${phase.through || "none"} ${ofStrokes(phase, passage) ? "bytime" : ""} ${byHand(phase, passage) || !numbers ? "byhand" : ""} ${roomy}`}
      aria-label={say("now")}
      {...read(score, place)}
    >
      <Where name={passage.name} aside={aside ?? roundOf(phase, passage, say)} />
      <Saying
        score={score}
        place={place}
        side={sideSaid(score, phase, sides)}
        shown={shown}
        passage={passage}
        count={numbers && (leads || !byHand(phase, passage))}
      />
      <Besides shown={shown} numbers={numbers} />
      <Words lines={spoken} script={passage.script} most={0.5} />
      {lamps && !(numbers && ofStrokes(phase, passage)) && (
        <LampSheet score={score} place={place} sides={sides} />
      )}
    </section>
  );
}

/** ofStrokes tells whether strokes fill the minutes of a passage: there the time that is left says more than their number. */
function ofStrokes(phase: ScorePhase, passage: ScorePassage): boolean {
  return passage.timed && phase.kind === "stroke";
}

/**
 * byHand tells whether a phase lasts until the teacher, who leads by breathing, goes on: one of a practice with a tempo, which
 * open holds do not have. What is in force may be the beat again, from the next phase on.
 */
function byHand(phase: ScorePhase, passage: ScorePassage): boolean {
  return phase.open && passage.tempo > 0;
}

/** In a talk the teacher's words are the largest text. */
function Talk({ score, place, phase, passage, shown, aside }: Parts) {
  const say = useSay();
  const spoken = lines(shown);
  const silent = spoken.length === 0 && passage.script === "";
  return (
    <section className="stage talk none" aria-label={say("now")} {...read(score, place)}>
      <Where name={silent ? "" : phase.word} aside={aside ?? ""} word={!silent} />
      {silent ? (
        <p className="word" data-testid="word" style={fitted(phase.word)}>
          {phase.word}
        </p>
      ) : (
        <Words lines={spoken} script={passage.script} />
      )}
      <p className="timed" style={fitted("00:00")}>
        <Time score={score} place={place} />
      </p>
      <Besides shown={shown} />
    </section>
  );
}

/** At own pace the pattern is large, and a round of it stands unlit. */
function OwnPace({ score, place, phase, passage, shown, sides, carries, aside }: Parts) {
  const say = useSay();
  return (
    <section className="stage own none" aria-label={say("now")} {...read(score, place)}>
      <Where name={passage.name} aside={aside ?? ""} />
      <div className="patterned">
        <p className="word" data-testid="word" style={fitted(phase.word)}>
          {phase.word}
        </p>
        <p className="timed" style={fitted("00:00")}>
          <Time score={score} place={place} />
        </p>
      </div>
      <Words
        lines={[
          ...passage.pattern.split("; "),
          passage.syllables.join(", "),
          passage.choices.join(" or "),
        ].filter(Boolean)}
        script=""
        pattern
      />
      <Besides shown={shown.filter((c) => c.kind !== "hand")} />
      <Words lines={lines(shown)} script={passage.script} />
      {carried(carries, passage).lamps && (
        <LampSheet score={score} place={place} sides={sides} unlit={passage.own_round} />
      )}
    </section>
  );
}

/** For tests: by which reading of the clock a stage was drawn, in ms of the class, and of which revision of the score. */
function read(score: Score, place: Place) {
  return { "data-at": place.at, "data-revision": score.revision };
}

/** What is to be said besides the count: the teacher's own lines and the practice's prompts. */
function lines(shown: Cue[]): string[] {
  return textOf(shown, "line", "prompt");
}

function roundOf(phase: ScorePhase, passage: ScorePassage, say: Say): string {
  if (ofStrokes(phase, passage)) return "";
  if (phase.round > 0) {
    const round = say("round-of", { n: phase.round, of: passage.rounds });
    const side = bodySide(phase, passage);
    return side ? say("side-round", { side, round }) : round;
  }
  return phase.stage === "opening" || phase.stage === "closing" ? say(phase.stage) : "";
}

/** bodySide is the side of the body that a round is on; undefined where there is none. */
function bodySide(phase: ScorePhase, { sides, side_breaths }: ScorePassage): string | undefined {
  return phase.breath > 0 ? sides[Math.floor((phase.breath - 1) / side_breaths)] : undefined;
}

function Where({ name, aside, word = false }: { name: string; aside: string; word?: boolean }) {
  return (
    <p className="where" style={fitted(`${name}    ${aside}`)}>
      <span data-testid={word ? "word" : undefined}>{name}</span>
      <span className="aside">{aside}</span>
    </p>
  );
}

type SayingProps = {
  score: Score;
  place: Place;
  side: string;
  shown: Cue[];
  passage: ScorePassage;
  /** whether the number, or the time, is shown */
  count: boolean;
};

/**
 * Saying is the word, the side and the count, as large as there is room for; of what is not counted it is the time. A phase
 * by hand has no number: only the screen that leads shows its seconds.
 */
function Saying({ score, place, side, shown, passage, count: counted }: SayingProps) {
  const phase = place.phase!;
  const besides = [side, partWord(place)].filter(Boolean).join(" ");
  const count = countShown(place);
  const timed = isStretch(phase) || ofStrokes(phase, passage);
  const hand = shown.find((c) => c.kind === "hand")?.fingers ?? phase.fingers;
  return (
    <div className="saying">
      <p className="word" data-testid="word" style={fitted(`${phase.word} ${besides}`)}>
        {phase.word.split(", ").map((line) => (
          <span key={line} style={fitted(line)}>
            {line}
          </span>
        ))}{" "}
        {besides && (
          <span className="side" style={fitted(besides)}>
            {besides}
          </span>
        )}
      </p>
      <Drawing place={place} passage={passage} fingers={hand} way={score.fingers_by} />
      {counted && (
        <p
          className={timed ? "count time" : "count"}
          data-testid="count"
          style={fitted(timed ? "00:00" : widthOf(count) > widthOf("00") ? count : "00")}
        >
          {timed ? <Time score={score} place={place} /> : count}
        </p>
      )}
    </div>
  );
}

// Few practices have these drawings: they are loaded when they are needed.
const Body = lazy(async () => ({ default: (await import("./Body")).Body }));
const Fingertips = lazy(async () => ({ default: (await import("./Fingertips")).Fingertips }));

/** Where a hand can lie on the body; "all" goes from zone to zone. */
const bodyPlaces = ["front", "belly", "ribs", "chest", "sides", "back", "round"];

type DrawingProps = {
  place: Place;
  passage: ScorePassage;
  fingers: ScorePhase["fingers"];
  way: string;
};

/** Drawing is what the hand does: at the nose, fingertip to thumb with each syllable, or where it lies on the body. */
function Drawing({ place, passage, fingers, way }: DrawingProps) {
  if (passage.hand_at_nose) return <Hand fingers={fingers} way={way} atNose />;
  if (passage.syllables.length > 0) {
    const said = passage.syllables.includes(countShown(place));
    const first = isWord(place.phase!, 0) ? 1 : 0; // a word's own beat has no syllable
    return (
      said && (
        <Suspense>
          <Fingertips finger={place.count - first} />
        </Suspense>
      )
    );
  }
  const lies = bodyPlaces.includes(passage.hand_place) ? passage.hand_place : partWord(place);
  if (passage.hand_place === "" || !bodyPlaces.includes(lies)) return null;
  return (
    <Suspense>
      <Body place={lies} />
    </Suspense>
  );
}

/** A stretch shows the time that is left, or, where it waits for the teacher, how long it has lasted. */
function Time({ score, place }: { score: Score; place: Place }) {
  const phase = place.phase!;
  const lasted = Math.max(0, useSeconds(score, phase.at_ms[0])); // what was just begun may be seen a moment before
  const at = useSeconds(score) * 1000;
  if (byHand(phase, score.passages[phase.passage - 1]!)) return <>{lasted}</>;
  return <>{phase.end_ms < 0 ? clock(lasted * 1000) : clock(phase.end_ms - at)}</>;
}

/** Besides is what comes next, what the hand comes to do, and the calls. It has its place also where there are none. */
function Besides({ shown, numbers = true }: { shown: Cue[]; numbers?: boolean }) {
  const say = useSay();
  const coming = shown.find((c) => c.kind === "next");
  const next = (!numbers && coming?.bare) || (coming?.text ?? "");
  const hand = textOf(shown, "hand").join(", ");
  const call = textOf(shown, "last", "half", "minute", "half-minute").join(", ");
  return (
    <div className="besides">
      <p className="next" style={fitted(`${say("next")} ${next}`)}>
        <small>{say("next")}</small> {next}
      </p>
      <p className="cues" role="status" style={fitted(`${hand}   ${call}`)}>
        <span className="hand">{hand}</span>
        <b className="call">{call}</b>
      </p>
    </div>
  );
}
