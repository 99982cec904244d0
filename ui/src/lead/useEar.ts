import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { goesOn } from "../ear/goingOn";
import type { Heard } from "../ear/microphone";
import type { Tone } from "../ear/sounding";
import type { Together } from "../ear/strokes";
import type { ListensFor } from "../ear/told";
import { useMicrophone } from "../ear/useMicrophone";
import { useClock } from "../player/clock";
import type { Place } from "../player/usePlace";
import type { FromHeard, Score, ScorePassage } from "../wire/contract";
import type { Press } from "./adjustments";
import type { Desk } from "./desk";
import { type EarChoice, type GoOn, keepChoice, keptChoice, usualGoOn } from "./earChoice";
import { keepHeard } from "./desk";
import { EarLog, sendLeftovers } from "./earLog";
import { useStable } from "./useStable";
import { failureText } from "../language/text";

/** Shown is what is heard, as it is shown. */
export type Shown = {
  /** strokes a minute; null where they cannot be told */
  strokes: number | null;
  /** the first stroke of these, in ms of the class */
  from: number;
  /** how far the room strokes together; "none" where that cannot be told */
  together: Together | "none";
  /** for how many whole seconds the room has chanted or hummed; null in silence */
  sounds: number | null;
  /** whether many still do; "none" where that cannot be told */
  still: "many" | "few" | "none";
  /** how long it did last, in ms; null before the first, and "unsure" where its end could not be told */
  last: number | "unsure" | null;
  /** whether strokes have begun so lately that their rate cannot be known yet */
  early: boolean;
  /** whether the microphone is muted */
  dead: boolean;
};

const nothing: Shown = {
  strokes: null,
  from: 0,
  together: "none",
  sounds: null,
  still: "none",
  last: null,
  early: false,
  dead: false,
};

const logEvery = 5000; // ms of the class, of strokes; and in real time, of what is sent
const takes = 10_000; // ms of the class until the rate of strokes can be known
const askEvery = 2000; // ms of the class
const dismissed = 3; // strokes a minute by which the room has to change until it is proposed again

/** listensForIn is what can be heard in a passage. */
function listensForIn({ hears, hears_breath }: ScorePassage): ListensFor {
  if (!hears) return "nothing";
  if (hears === "stroke") return "strokes";
  return hears_breath ? "breath" : "voice";
}

type Props = {
  score: Score;
  place: Place;
  desk: Desk;
  /** whether this device plays sounds, which it would take for the room's */
  plays: boolean;
  /** what is listened to in the place of the microphone, where there is such a thing */
  listenTo?: () => MediaStream;
  adjust: (press: Press) => Promise<void>;
  /** goOn ends the phase that waits; key makes it count once, whichever screen heard it */
  goOn: (because: string, key: string) => void;
  say: (words: string) => void;
};

export type Ear = ReturnType<typeof useEar>;

/** useEar listens to the room: what is heard, what is proposed, and what goes on by itself. */
export function useEar({ score, place, desk, plays, listenTo, adjust, goOn, say }: Props) {
  const clock = useClock();
  const [choice, setChoice] = useState(keptChoice);
  const [before] = useState(choice.goOn); // what was chosen in classes before
  const [chosen, setChosen] = useState<{ [passage: number]: GoOn }>({});
  const [shown, setShown] = useState(nothing);
  const [refused, setRefused] = useState({ passage: 0, strokes: 0 });
  const ended = useRef<Tone | null>(null);
  const logged = useRef(-Infinity);

  const { phase } = place;
  const passage = phase ? score.passages[phase.passage - 1] : undefined;
  const hears = passage?.hears ?? null;
  const deaf = plays && !choice.headphones && !listenTo;
  const stroking = hears === "stroke" && phase?.stage === "round" && phase.kind === "stroke" && !deaf;
  const usual = { ...usualGoOn, longest: before[passage?.practice ?? ""]?.longest ?? usualGoOn.longest };
  const wants = (phase && chosen[phase.passage]) ?? usual;

  const [log] = useState(() => (desk.ear ? new EarLog(score.class_id, keepHeard) : null));
  useEffect(() => log?.renumber(score.class_id), [log, score.class_id]);
  useEffect(() => {
    if (!log) return;
    void sendLeftovers(score.class_id, keepHeard);
    const timer = setInterval(() => {
      log.flush().catch((error: unknown) => say(failureText(error)));
    }, logEvery);
    return () => {
      clearInterval(timer);
      void log.flush().catch(() => undefined);
    };
  }, [log, score.class_id, say]);

  const onHeard = useStable((heard: Heard) => {
    const inClass = (audio: number) =>
      clock.now() - (performance.now() - heard.pageTime(audio)) * clock.rate() - score.started_ms;
    const moved = (tone: Tone | null): Tone | null =>
      tone && { ...tone, from: inClass(tone.from), end: tone.end === null ? null : inClass(tone.end) };
    const sounding = moved(heard.sounding);
    const tone = moved(heard.ended);
    if (tone) ended.current = tone;
    const next: Shown = {
      strokes: stroking && heard.pace ? Math.round(heard.pace.rate / clock.rate()) : null,
      from: stroking && heard.pace ? Math.floor(inClass(heard.pace.from) / askEvery) * askEvery : 0,
      together: (stroking && heard.pace?.together) || "none",
      still: (!deaf && sounding?.still) || "none",
      sounds: sounding && !deaf ? Math.floor((inClass(heard.at) - sounding.from) / 1000) : null,
      last: tone && !deaf ? (tone.sure ? Math.round(tone.end! - tone.from) : "unsure") : shown.last,
      early: stroking && phase !== null && inClass(heard.at) - phase.at_ms[0]! < takes,
      dead: heard.dead,
    };
    if (JSON.stringify(next) !== JSON.stringify(shown)) setShown(next);
    if (deaf || !phase) return;
    if (stroking && heard.pace && inClass(heard.pace.to) - logged.current >= logEvery) {
      logged.current = inClass(heard.pace.to);
      log?.add({
        phase: "stroke",
        from_ms: Math.max(0, Math.round(inClass(heard.pace.from))),
        to_ms: Math.round(inClass(heard.pace.to)),
        per_minute: Math.round((heard.pace.rate / clock.rate()) * 10) / 10,
      });
    }
    if (tone?.sure && hears !== null && hears !== "stroke" && tone.end! > 0)
      log?.add({
        phase: hears,
        from_ms: Math.max(0, Math.round(tone.from)),
        to_ms: Math.round(tone.end!),
        per_minute: 0,
      });
    if (!wants.on || !phase.open || phase.kind !== hears || place.over) return;
    const why = goesOn({
      from: phase.at_ms[0]!,
      now: inClass(heard.at),
      sounding,
      ended: ended.current,
      longest: wants.longest,
    });
    if (why !== null) goOn(`heard-${why}`, `ear-${score.class_id}-${phase.passage}-${phase.at_ms[0]}`);
  });

  const microphone = useMicrophone(onHeard, listenTo);
  const { hearing, listensFor, stop, start } = microphone;
  const on = hearing.is === "on";
  const beat = stroking && passage ? passage.tempo * clock.rate() : 0;
  const listens = passage && !deaf ? listensForIn(passage) : "nothing";
  const bothWays = passage?.hears_both_ways ?? false;
  useEffect(
    () => listensFor({ listensFor: listens, beat, bothWays }),
    [listensFor, listens, beat, bothWays, on],
  );

  // Of two screens the one that began later listens.
  const known = useRef(false);
  const mine = score.ear === desk.ear?.me;
  const yielded = microphone.yield;
  useEffect(() => {
    if (!on) known.current = false;
    else if (mine) known.current = true;
    else if (known.current && score.ear) yielded();
  }, [on, mine, score.ear, yielded]);

  const tell = useCallback(
    (listens: boolean) => void desk.ear?.listens(listens).catch(() => undefined), // it listens all the same
    [desk.ear],
  );
  /** begin opens a microphone: the one that is chosen, or another */
  const begin = async (device = choice.device) => {
    ended.current = null;
    setShown(nothing);
    if (await start(device)) tell(true);
  };
  const finish = useCallback(() => {
    stop();
    tell(false);
  }, [stop, tell]);

  const { over } = place;
  useEffect(() => {
    if (over && on) finish(); // nobody is listened to after the class
  }, [over, on, finish]);

  const asked = useQuery({
    queryKey: ["strokes-heard", score.class_id, score.revision, shown.strokes, shown.from],
    queryFn: () => desk.asks!.heard({ per_minute: shown.strokes!, from_ms: shown.from }),
    enabled: on && stroking && shown.strokes !== null && desk.asks !== undefined,
    placeholderData: (old: FromHeard | undefined, query) =>
      query?.queryKey[2] === score.revision ? old : undefined,
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
  const putOff =
    refused.passage === phase?.passage &&
    shown.strokes !== null &&
    Math.abs(shown.strokes - refused.strokes) < dismissed;
  const found = on && stroking && shown.strokes !== null && !putOff ? asked.data : undefined;
  const proposal = found && found.say && found.do.length > 0 ? { say: found.say, do: found.do } : null;

  const change = (part: Partial<EarChoice>) => {
    const next = { ...choice, ...part };
    setChoice(next);
    keepChoice(next);
  };
  return {
    hearing,
    shown,
    hears,
    /** whether it hears the simulated room of a rehearsal */
    simulated: listenTo !== undefined,
    /** whether this device's own sounds keep it from hearing */
    deaf,
    stroking,
    proposal,
    begin,
    finish,
    choice,
    change,
    wants,
    /** wantGoOn chooses for this passage; the longest time is remembered with the practice */
    wantGoOn: (goes: GoOn) => {
      if (!phase || !passage) return;
      setChosen({ ...chosen, [phase.passage]: goes });
      change({ goOn: { ...choice.goOn, [passage.practice]: goes } });
    },
    /** take does what is proposed; it is about these strokes, not about later passages */
    take: () => {
      const all = proposal?.do ?? [];
      void (async () => {
        for (const one of all) await adjust({ ...one, carry: false });
      })();
    },
    notNow: () => setRefused({ passage: phase?.passage ?? 0, strokes: shown.strokes ?? 0 }),
  };
}
