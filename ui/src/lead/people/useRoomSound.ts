import { useCallback, useEffect, useRef } from "react";
import { type PageClock, useClock } from "../../player/clock";
import { locate } from "../../player/usePlace";
import type { Rehearsing, WatchedAct } from "../../wire/contract";
import { chant, hear, sigh, stroke } from "./roomSound";

const every = 60; // ms between two looks at what sounds next
const ahead = 600; // ms in real time of which it is known what sounds: a page may be busy for as long

type Out = { audio: AudioContext; room: GainNode; stream: MediaStreamAudioDestinationNode };

/**
 * useRoomSound lets the room be heard: what sounds of it is made in the browser. It returns the same as a stream, so that listening
 * can be practised without a microphone.
 */
export function useRoomSound(room: Rehearsing, on: boolean): () => MediaStream {
  const clock = useClock();
  const made = useRef<Out>(undefined);
  const sounded = useRef(new Set<string>());
  const open = useCallback((): Out => {
    if (made.current) return made.current;
    const audio = new AudioContext();
    const out = new GainNode(audio);
    const stream = new MediaStreamAudioDestinationNode(audio);
    out.connect(audio.destination);
    out.connect(stream);
    return (made.current = { audio, room: out, stream });
  }, []);
  useEffect(() => {
    if (!on) return;
    const out = open();
    void out.audio.resume();
    const timer = setInterval(() => sound(room, clock, out, sounded.current), every);
    return () => {
      clearInterval(timer);
      void out.audio.suspend();
    };
  }, [room, clock, on, open]);
  useEffect(
    () => () => {
      void made.current?.audio.close();
      made.current = undefined;
    },
    [],
  );
  return useCallback(() => open().stream.stream, [open]);
}

/** sound lets be heard what begins now, each thing once. */
function sound({ people, score }: Rehearsing, clock: PageClock, out: Out, sounded: Set<string>): void {
  const at = clock.now();
  const until = at + ahead * clock.rate();
  const audioTime = (time: number) => out.audio.currentTime + clock.inReal(Math.max(0, time - at)) / 1000;
  const once = (name: string, begin: () => void) => {
    if (sounded.has(name)) return;
    sounded.add(name);
    begin();
  };
  const { phase } = locate(score, at);
  const passage = phase ? score.passages[phase.passage - 1] : undefined;
  people.forEach((person, place) => {
    const side = (2 * (place + 0.5)) / people.length - 1;
    for (const sign of person.signs)
      if (at >= sign.at_ms && at <= sign.at_ms + 600)
        once(`${place} ${sign.id} ${sign.at_ms}`, () => hear(out.room, sign.id, side));
    for (const act of person.acts) {
      if (act.at_ms > until || act.until_ms <= at) continue;
      if (act.do === "stroke") {
        for (const moment of strokesOf(act, passage?.hears_both_ways ? 2 : 1))
          if (moment >= at && moment < until)
            once(`${place} stroke ${moment}`, () => stroke(out.room, audioTime(moment), side));
      } else if (act.do === passage?.hears && act.at_ms >= at - 300) {
        const kind = passage.practice === "om-chant" ? "om" : "hum";
        once(`${place} sounds ${act.at_ms}`, () => {
          const [from, until] = [audioTime(act.at_ms), audioTime(act.until_ms)];
          if (passage.hears_breath) sigh(out.room, from, until, side);
          else chant(out.room, from, until, side, kind);
        });
      }
    }
  });
}

/** strokesOf is the moments of an act's strokes, in ms of the class; both ways, those of the inhales too. */
function strokesOf({ at_ms, until_ms, counts = 1 }: WatchedAct, ways: 1 | 2): number[] {
  const heard = counts * ways;
  return Array.from({ length: heard }, (_, i) => Math.round(at_ms + ((until_ms - at_ms) * i) / heard));
}
