import { Floor } from "./floor";
import type { Frame } from "./frames";
import rules from "./rules.json";

const { strokes: rule, frames } = rules;

/** Pace is how a room strokes. */
export type Pace = {
  /** strokes a minute */
  rate: number;
  /** from 0 to 1: how surely they come at that rate */
  regular: number;
  /** the first and the last stroke that it rests on, in seconds since listening began */
  from: number;
  to: number;
  /** how far the people are together */
  together: Together;
};

/** Together is how far people stroke at the same time. */
export type Together = "together" | "loose" | "scattered";

type Rise = { at: number; weight: number };
type Onset = Rise & { over: number };

/**
 * Strokes finds the strokes of skull-shining, bellows and panting breath: short hisses without a voice, at an even rate. It tells
 * a rate only where it is sure of one.
 */
export class Strokes {
  private readonly floor = new Floor();
  private readonly low = new Floor(); // of the voice's band
  private recent: Frame[] = []; // as long as a rise lasts
  private found: Onset[] = []; // that may still have a voice beside them
  private onsets: Onset[] = [];
  private voices: { at: number; over: number }[] = []; // how far the voice's band is above its noise
  private last = -Infinity;
  private rises: Rise[] = [];
  private powers: number[] = []; // of the hiss above its noise, of the last frames

  push(frame: Frame): void {
    this.floor.push(frame.high, false);
    this.low.push(frame.low, false);
    const low = frame.low - this.low.floor;
    const voiced = low > rule.rise_db && frame.voiced();
    this.voices.push({ at: frame.at, over: voiced ? Infinity : low });
    if (this.voices.length > (2 * rule.voice_s) / frames.hop_s) this.voices.shift();
    this.recent.push(frame);
    const back = Math.round(rule.rise_s / frames.hop_s);
    if (this.recent.length > 2 * back + 1) this.recent.shift();
    this.rising(frame, back);
    this.noteRise(frame);
    this.settle(frame.at);
    const since = frame.at - rule.window_s;
    while (this.onsets[0] && this.onsets[0].at < since) this.onsets.shift();
    while (this.rises[0] && this.rises[0].at < since) this.rises.shift();
  }

  /** rest follows the noise of the room, and forgets the strokes before. */
  rest(frame: Frame): void {
    this.floor.push(frame.high, false);
    this.low.push(frame.low, false);
    this.onsets = [];
    this.found = [];
    this.rises = [];
    this.recent = [];
    this.voices = [];
    this.powers = [];
  }

  /** noteRise notes by how much the hiss became stronger: with an echo it takes long to fall, but it rises as each stroke does. */
  private noteRise(frame: Frame): void {
    const power = 10 ** (frame.high / 10) - 10 ** ((this.floor.floor + rule.spread_over_db) / 10);
    this.powers.push(Math.max(0, power));
    if (this.powers.length > 3) this.powers.shift();
    const weight = this.powers.at(-1)! - this.powers[0]!;
    if (weight > 0) this.rises.push({ at: frame.at, weight });
  }

  /** rising notes a rise of the hiss; the strongest in a short time is a stroke. */
  private rising(frame: Frame, back: number): void {
    const before = this.recent[this.recent.length - 1 - back];
    if (!before) return;
    const over = frame.high - this.floor.floor;
    const rise = frame.high - Math.max(before.high, this.floor.floor);
    if (over < rule.rise_db || rise < rule.rise_db) return;
    const at = frame.at - rule.rise_s / 2;
    const weight = Math.min(rise, 20);
    const same = this.found.at(-1);
    if (same && at - same.at < rule.apart_s) {
      if (weight > same.weight) Object.assign(same, { at: same.at + (at - same.at) / 2, weight });
      same.over = Math.max(same.over, over);
      return;
    }
    if (at - this.last < rule.apart_s) return;
    this.found.push({ at, weight, over });
  }

  /** settle takes what had no voice beside it for long enough. */
  private settle(now: number): void {
    while (this.found[0] && now - this.found[0].at >= rule.voice_s) {
      const onset = this.found.shift()!;
      this.last = onset.at;
      if (this.voices.some(({ over }) => over > onset.over - rule.voice_below_db)) continue;
      this.onsets.push(onset);
    }
  }

  /**
   * pace is how the room strokes; null where nothing can be told. beat is the strokes a minute that are led. Where they go both
   * ways, each may be heard once or twice: which, is told from the rates that there can be, which do not overlap.
   */
  pace(beat: number, bothWays: boolean): Pace | null {
    if (!bothWays) return this.paceOf(beat * rule.from_beat, beat * rule.to_beat, 1);
    return (
      this.paceOf(beat * rule.from_beat, 2 * beat * rule.both_from_beat, 1) ??
      this.paceOf(beat * rule.both_from_beat, beat * rule.both_to_beat, 2)
    );
  }

  /** paceOf looks for a rate between two, in strokes a minute, of which each is heard so many times. */
  private paceOf(slowest: number, quickest: number, times: number): Pace | null {
    if (this.onsets.length < rule.at_least) return null;
    let best: { hisses: number; regular: number } | null = null;
    const step = 0.25; // a minute
    for (let hisses = times * slowest; hisses <= times * quickest; hisses += step) {
      const regular = together(this.onsets, hisses);
      if (!best || regular > best.regular) best = { hisses, regular };
    }
    if (!best || best.regular < rule.regular) return null;
    const { hisses, regular } = best;
    // Of few hisses some rate always fits well: the number and how well they fit have to be improbable together.
    if (this.onsets.length * regular ** 2 < rule.evident) return null;
    const [from, to] = [this.onsets[0]!.at, this.onsets.at(-1)!.at];
    const expected = 1 + ((to - from) * hisses) / 60;
    if (expected < rule.at_least || Math.abs(this.onsets.length / expected - 1) > rule.missing) return null;
    return { rate: hisses / times, regular, from, to, together: this.together(hisses) };
  }

  /** together tells from how far within a stroke's time the hiss rises (the circular standard deviation, as below). */
  private together(rate: number): Together {
    const spread = (Math.sqrt(-2 * Math.log(together(this.rises, rate))) / (2 * Math.PI)) * (60 / rate);
    if (spread <= rule.together_s) return "together";
    return spread < rule.scattered_s ? "loose" : "scattered";
  }
}

/**
 * together is from 0 to 1 how evenly moments come at a rate a minute: the length of their mean direction on a circle that goes
 * round once a stroke (Mardia and Jupp, Directional Statistics, 2000, section 2.3; from memory).
 */
function together(list: Rise[], rate: number): number {
  let x = 0;
  let y = 0;
  let all = 0;
  for (const { at, weight } of list) {
    const turn = (2 * Math.PI * at * rate) / 60;
    x += weight * Math.cos(turn);
    y += weight * Math.sin(turn);
    all += weight;
  }
  return all === 0 ? 0 : Math.hypot(x, y) / all;
}
