import { heardIn } from "./heard";
import type { Score } from "../../wire/contract";
import { soundOf } from "../../wire/sounds";
import type { PageClock } from "../clock";
import { classTime } from "../usePlace";
import { heard, utterances, type Wanted } from "./saying";

const gap = 0.04; // s between two recordings of one text
const cutOff = 0.03; // s in which what is cut off becomes silent

type Sound = { buffer: AudioBuffer; lead: number };

const loaded = new Map<string, Promise<Sound>>(); // by the rate of samples and the sum

function load(context: BaseAudioContext, sum: string): Promise<Sound> {
  const name = `${context.sampleRate} ${sum}`;
  let sound = loaded.get(name);
  if (!sound) {
    sound = soundOf(sum).then(async ({ file, lead }) => ({
      buffer: await context.decodeAudioData(file),
      lead,
    }));
    sound.catch(() => loaded.delete(name)); // it is asked for again
    loaded.set(name, sound);
  }
  return sound;
}

/** Voice is a recorded voice, ready to be played. */
export type Voice = {
  /** whether all that is recorded could be had */
  whole: boolean;
  /** in seconds; 0 where it does not say this */
  lengthOf: (text: string) => number;
  /** plays a text from a second of a context's clock on, no longer than so many seconds */
  say: (
    context: BaseAudioContext,
    to: AudioNode,
    text: string,
    at: number,
    longest: number,
  ) => AudioScheduledSourceNode[];
};

/** voiceOf loads the recordings of a score. What cannot be had is not said by this voice. */
export async function voiceOf(context: BaseAudioContext, score: Score): Promise<Voice> {
  const said = score.speaker?.said ?? {};
  const sounds = new Map<string, Sound>();
  const sums = new Set(Object.values(said).flat());
  await Promise.all(
    [...sums].map((sum) =>
      load(context, sum).then(
        (sound) => void sounds.set(sum, sound),
        () => {},
      ),
    ),
  );
  const piecesOf = (text: string) => {
    const pieces = (said[text] ?? []).map((sum) => sounds.get(sum));
    return pieces.every((piece) => piece !== undefined) ? pieces : [];
  };
  const seconds = ({ buffer, lead }: Sound) => buffer.duration - lead;
  return {
    whole: sounds.size === sums.size,
    lengthOf: (text) => piecesOf(text).reduce((sum, piece, i) => sum + seconds(piece) + (i > 0 ? gap : 0), 0),
    say: (context, to, text, at, longest) => {
      const over = at + longest;
      const gain = new GainNode(context);
      gain.gain.setValueAtTime(1, Math.max(at, over - cutOff));
      gain.gain.linearRampToValueAtTime(0, over);
      gain.connect(to);
      let from = at;
      return piecesOf(text).map((piece) => {
        const source = new AudioBufferSourceNode(context, { buffer: piece.buffer });
        source.connect(gain);
        source.start(from, piece.lead);
        source.stop(Math.max(from, over));
        from += seconds(piece) + gap;
        return source;
      });
    },
  };
}

const ahead = 1500; // ms scheduled ahead, in real time
const every = 100;
const late = { phase: 150, count: 80, call: 1000 }; // ms in real time after which it is no longer said
const again = 10_000; // ms after which what could not be had is asked for again
const said = new Map<string, number>(); // what was said, or is about to be, and when by the audio clock

/** speak says a score with the recorded voice, once it is loaded, until it is stopped. */
export function speak(
  context: AudioContext,
  to: AudioNode,
  score: Score,
  clock: PageClock,
  wanted: Wanted,
  view: string,
): () => void {
  let stop: (() => void) | undefined;
  let over = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const begin = () =>
    void voiceOf(context, score).then((voice) => {
      if (over) return;
      stop?.();
      stop = schedule(context, to, score, clock, wanted, view, voice);
      if (!voice.whole) timer = setTimeout(begin, again);
    });
  begin();
  return () => {
    over = true;
    clearTimeout(timer);
    stop?.();
  };
}

/** schedule puts what is said a little ahead on the audio clock, until it is stopped. */
function schedule(
  context: AudioContext,
  to: AudioNode,
  score: Score,
  clock: PageClock,
  wanted: Wanted,
  view: string,
  voice: Voice,
): () => void {
  const inClass = 1000 / clock.inReal(1); // ms of the class in a second
  const list = heard(utterances(score, wanted, view), (text) => voice.lengthOf(text) * inClass);
  const stops: (() => void)[] = [];
  const look = () => {
    const now = classTime(score, clock);
    for (const { at, text, kind, until } of list) {
      const wait = clock.inReal(at - now);
      const name = `${score.class_id} ${at} ${text}`;
      if (wait > ahead) break;
      if (wait < -late[kind] || said.has(name)) continue;
      const begin = heardIn(context, wait);
      const sources = voice.say(context, to, text, begin, clock.inReal(until - at) / 1000);
      said.set(name, begin);
      stops.push(() => {
        if (context.currentTime >= begin) return; // what was begun is said to its end
        for (const source of sources) source.stop();
        said.delete(name);
      });
    }
  };
  look();
  const timer = setInterval(look, every);
  return () => {
    clearInterval(timer);
    for (const stop of stops) stop();
  };
}
