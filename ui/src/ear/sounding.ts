import { Floor } from "./floor";
import type { Frame } from "./frames";
import rules from "./rules.json";

const { sound: rule, frames } = rules;

/** Tone is a chant, a hum or a loud breath of the room, in seconds since listening began. */
export type Tone = {
  from: number;
  /** null as long as somebody sounds */
  end: number | null;
  /**
   * whether it can be said when it ended: it was far above the noise until shortly before. Where it sank into the noise little by
   * little, the last voices may have gone on unheard. While it sounds: whether it is far above the noise
   */
  sure: boolean;
  /** whether many still sound, or few of those who did; null where it cannot be told */
  still: "many" | "few" | null;
};

/**
 * Sounding finds when a room begins to chant or to hum, and when the last of it has fallen silent. One person has a clear pitch;
 * many have none together, but sound on without the gaps of speech.
 */
export class Sounding {
  private readonly floor = new Floor();
  private readonly hiss = new Floor();
  private readonly levels: { at: number; level: number; hiss: number }[] = []; // of the last seconds
  private rose: number | null = null; // since when it is loud
  private voiced = 0; // frames with a voice since then
  private loud = 0; // frames since then
  private most = -Infinity; // the highest level since then
  private quiet: number | null = null; // since when nobody is heard
  private clear = -Infinity; // when it was far above the noise last
  private tone: Tone | null = null;

  /** sounding is what sounds now; null in silence. */
  get sounding(): Tone | null {
    return this.tone;
  }

  push(frame: Frame, onEnd: (tone: Tone) => void): void {
    this.floor.push(frame.low, this.tone !== null || this.rose !== null);
    this.hiss.push(frame.high, false);
    this.levels.push({ at: frame.at, level: this.floor.level, hiss: this.hiss.level });
    if (this.levels.length > 4 / frames.hop_s) this.levels.shift();
    if (this.tone) this.goesOn(frame, onEnd);
    else this.mayBegin(frame);
  }

  /** rest follows the noise of the room, and forgets what sounded. */
  rest(frame: Frame): void {
    this.floor.push(frame.low, false);
    this.hiss.push(frame.high, false);
    this.over(this.floor.level);
  }

  private mayBegin(frame: Frame): void {
    const { over, level } = this.floor;
    this.most = Math.max(this.most, level);
    if (over < rule.over_db || level < this.most - rule.steady_db) {
      this.rose = null;
      this.most = level;
      return;
    }
    if (this.rose === null) {
      this.rose = frame.at;
      this.voiced = this.loud = 0;
    }
    this.loud++;
    if (frame.voiced()) this.voiced++;
    const lasted = frame.at - this.rose;
    const clear = lasted >= rule.begins_s && this.voiced >= this.loud * rule.voiced;
    if (!clear && lasted < rule.steady_s) return;
    this.tone = { from: this.rose, end: null, sure: false, still: null };
    this.quiet = null;
  }

  private goesOn(frame: Frame, onEnd: (tone: Tone) => void): void {
    const { level, over } = this.floor;
    if (over >= rule.sure_db) this.clear = frame.at;
    this.tone!.sure = over >= rule.sure_db;
    this.most = Math.max(this.most, level);
    this.tone!.still = this.still(frame.at);
    if (frame.at - this.tone!.from > rule.longest_s) {
      // Nobody chants that long: it is a noise that began, as of a fan.
      this.floor.begin(level);
      this.over(level);
      return;
    }
    if (over >= rule.ends_db) {
      this.quiet = null;
      return;
    }
    this.quiet ??= frame.at;
    if (frame.at - this.quiet < rule.ends_s) return;
    const sure = this.quiet - this.clear <= rule.sinks_s && !this.speaks(this.quiet);
    const tone = { ...this.tone!, end: this.fell(this.quiet), sure, still: null };
    this.over(level);
    onEnd(tone);
  }

  /** speaks tells whether somebody spoke in the last seconds before: a chant that ends gets softer, and words rise again and hiss. */
  private speaks(quiet: number): boolean {
    let [soft, still] = [Infinity, Infinity];
    return this.levels.some(({ at, level, hiss }) => {
      if (at <= quiet - rule.spoken_s || at > quiet) return false;
      soft = Math.min(soft, level);
      still = Math.min(still, hiss);
      return level - soft > rule.rises_again_db || hiss - still > rule.hisses_db;
    });
  }

  private over(level: number): void {
    this.tone = this.rose = this.quiet = null;
    this.most = level;
  }

  /** still tells how many sound from how much softer it is than it was: a quarter of the people are 6 dB softer than all. */
  private still(at: number): Tone["still"] {
    if (at - this.tone!.from < rule.still_after_s || this.most - this.floor.floor < rule.still_over_db)
      return null;
    const softer = this.most - this.floor.level;
    if (softer >= rule.few_db) return "few";
    return softer <= rule.many_db ? "many" : null;
  }

  /**
   * fell is when the last voice died away, before it was quiet. The room's echo and the smoothing come after that, and fall
   * quickly; where one person stops after the other, the level falls slowly.
   */
  private fell(quiet: number): number {
    const steps = Math.round(rule.fall_s / frames.hop_s);
    let i = this.levels.findLastIndex(({ at }) => at <= quiet);
    while (
      i > steps &&
      this.levels[i - steps]!.level - this.levels[i]!.level >= rule.fall_s * rule.falls_db_a_s
    )
      i--;
    const knee = this.levels[Math.max(0, i - steps)]!.at;
    return Math.min(quiet, knee + rule.dies_s);
  }
}
