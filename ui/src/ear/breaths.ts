import { Floor } from "./floor";
import type { Frame } from "./frames";
import rules from "./rules.json";
import type { Tone } from "./sounding";

const { breath: rule, floor, frames } = rules;

type Level = { at: number; level: number; over: number };

const keeps = Math.ceil(rule.back_s / frames.hop_s) + 1; // levels

/**
 * Breaths finds sighs, open exhales and ocean breath: a hiss without a voice that goes on for longer than any in speech, and as
 * smoothly as no speech does. Of a room that breathes in and out aloud, each breath is one.
 */
export class Breaths {
  private readonly floor = new Floor();
  private readonly levels: Level[] = []; // of the last moments
  private rose: number | null = null; // since when it is loud
  private from = 0; // when the breath began
  private loud = 0; // frames since then
  private voiced = 0; // of these, with a voice
  private rough = 0; // the sum of how far they jump, in dB
  private most = -Infinity; // the highest level since then
  private least: Level | null = null; // the lowest since the highest
  private quiet: number | null = null; // since when nothing is heard
  private clear = -Infinity; // when it was far above the noise last
  private tone: Tone | null = null;
  private before: Tone | null = null; // that has ended, if what rose after it is a breath and not a voice

  /** sounding is the breath that is heard now; null in silence. */
  get sounding(): Tone | null {
    return this.tone;
  }

  push(frame: Frame, onEnd: (tone: Tone) => void): void {
    this.floor.push(frame.high, this.rose !== null);
    const { level, over } = this.floor;
    const now: Level = { at: frame.at, level, over };
    this.levels.push(now);
    if (this.levels.length > keeps) this.levels.shift();
    if (this.rose === null) {
      if (over >= rule.over_db) this.rises(this.since(rule.from_db));
      return;
    }
    if (over >= rule.sure_db) this.clear = now.at;
    if (this.speaks(frame)) {
      this.forget();
      return;
    }
    if (!this.least || level < this.least.level) this.least = now;
    if (level > this.most) {
      this.most = level;
      this.least = null;
    }
    if (this.tone) this.goesOn(now, onEnd);
    else this.mayBegin(now, onEnd);
  }

  /** rest follows the noise of the room, and forgets what was heard. */
  rest(frame: Frame): void {
    this.floor.push(frame.high, false);
    this.forget();
  }

  /** speaks tells whether what is loud is a voice, or jumps as speech does: then it is no breath. */
  private speaks(frame: Frame): boolean {
    if (frame.at - this.rose! < rule.rises_s) return false;
    this.loud++;
    if (frame.voiced()) this.voiced++;
    this.rough += Math.abs(frame.high - this.floor.level);
    const of = Math.max(this.loud, (rule.begins_s - rule.rises_s) / frames.hop_s);
    return this.voiced > rule.voiced * of || this.rough > rule.rough_db * of;
  }

  private mayBegin({ at, over, level }: Level, onEnd: (tone: Tone) => void): void {
    if (over < rule.over_db || level < this.most - rule.steady_db) {
      this.forget();
      return;
    }
    if (at - this.rose! < rule.begins_s) return;
    this.tone = { from: this.from, end: null, sure: false, still: null };
    this.quiet = null;
    if (this.before) onEnd(this.before);
    this.before = null;
  }

  private goesOn({ at, level, over }: Level, onEnd: (tone: Tone) => void): void {
    this.tone!.sure = over >= rule.sure_db;
    if (at - this.tone!.from > rule.longest_s) {
      this.floor.begin(level); // a noise that began, as of a fan
      this.forget();
      return;
    }
    const { least } = this;
    if (least && level - least.level >= rule.again_db && this.most - least.level >= rule.again_db) {
      this.before = this.ended(least.at - floor.smooth_s); // by so much the level is late
      this.rises(least.at, least.at - floor.smooth_s);
      return;
    }
    if (over >= rule.ends_db) {
      this.quiet = null;
      return;
    }
    this.quiet ??= at;
    if (at - this.quiet < rule.ends_s) return;
    onEnd(this.ended(this.quiet));
    this.forget();
  }

  private rises(at: number, from = at): void {
    this.rose = at;
    this.from = from;
    this.loud = this.voiced = this.rough = 0;
    this.most = -Infinity;
    this.least = null;
    this.tone = null;
  }

  private ended(at: number): Tone {
    return { ...this.tone!, end: at, sure: at - this.clear <= rule.sinks_s, still: null };
  }

  /** forget has whatever is heard now be no breath. */
  forget(): void {
    this.tone = this.before = this.rose = this.quiet = null;
  }

  /** since is from when on it has been so far above the noise. */
  private since(db: number): number {
    const last = this.levels.at(-1)!.at;
    const before = this.levels.findLast(({ at, over }) => over < db || last - at >= rule.back_s);
    return before ? before.at : last;
  }
}
