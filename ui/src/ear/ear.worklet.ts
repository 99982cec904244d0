import { Framer } from "./frames";
import { Listener } from "./listener";
import type { Tone } from "./sounding";
import type { Pace } from "./strokes";
import { type Ask, earName, type Told } from "./told";

// The scope of an audio worklet, which TypeScript's library does not describe (W3C Web Audio API, AudioWorkletGlobalScope).
declare const sampleRate: number;
declare const currentTime: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void;

const every = 0.1; // seconds between two messages
const paceEvery = 0.5; // seconds between two looks at the rate, which is of ten
const deadAfter = 3; // seconds of digital silence
const silence = -90; // dB: below any microphone's own noise

/** Ear hears the microphone on the audio thread. Samples go into the framer and nowhere else. */
class Ear extends AudioWorkletProcessor {
  private readonly framer = new Framer(sampleRate);
  private readonly listener = new Listener((tone) => (this.ended = tone));
  private ended: Tone | null = null;
  private beat = 0;
  private bothWays = false;
  private pace: Pace | null = null;
  private paced = -Infinity; // when it was looked at, in seconds since listening began
  private began: number | null = null; // when listening began, on the audio clock
  private told = 0;
  private sounded = 0; // when anything was heard last, in seconds since listening began

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<Ask>) => {
      this.beat = data.beat;
      this.bothWays = data.bothWays;
      this.listener.listensFor = data.listensFor;
      this.paced = -Infinity;
    };
  }

  process([input]: Float32Array[][]): boolean {
    const samples = input?.[0];
    if (!samples) return true;
    this.began ??= currentTime;
    this.framer.push(samples, (frame) => {
      this.listener.push(frame);
      if (Math.max(frame.low, frame.high) > silence) this.sounded = frame.at;
      if (frame.at - this.told < every && !this.ended) return;
      this.told = frame.at;
      this.tell(frame.at);
    });
    return true;
  }

  private tell(at: number): void {
    const began = this.began!;
    if (at - this.paced >= paceEvery) {
      this.paced = at;
      this.pace = this.beat > 0 ? this.listener.pace(this.beat, this.bothWays) : null;
    }
    const { pace } = this;
    const moved = (tone: Tone | null): Tone | null =>
      tone && { ...tone, from: tone.from + began, end: tone.end === null ? null : tone.end + began };
    const told: Told = {
      at: at + began,
      pace: pace && { ...pace, from: pace.from + began, to: pace.to + began },
      sounding: moved(this.listener.sounding),
      ended: moved(this.ended),
      dead: at - this.sounded > deadAfter,
    };
    this.ended = null;
    this.port.postMessage(told);
  }
}

registerProcessor(earName, Ear);
