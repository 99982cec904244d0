import rules from "./rules.json";

const { floor: rule, frames } = rules;

/** Floor follows the noise of the room in a band, in dB: down quickly, up slowly, and not while somebody sounds. */
export class Floor {
  /** the level without its quickest changes, in dB; NaN before the first */
  level = NaN;
  /** the noise of the room */
  floor = NaN;
  private unheard = 0; // seconds in which nobody sounded

  push(level: number, sounding: boolean): void {
    if (Number.isNaN(this.level)) {
      this.begin(level);
      return;
    }
    this.level += (level - this.level) * (frames.hop_s / rule.smooth_s);
    this.unheard = sounding ? 0 : this.unheard + frames.hop_s;
    if (this.level < this.floor) {
      this.floor += (this.level - this.floor) * Math.min(1, frames.hop_s / rule.falls_in_s);
    } else if (!sounding) {
      const rises = this.unheard > rule.later_s ? rule.rises_later_db_a_s : rule.rises_db_a_s;
      this.floor += Math.min(this.level - this.floor, rises * frames.hop_s);
    }
  }

  /** begin takes a level for the noise of the room. */
  begin(level: number): void {
    this.level = this.floor = level;
  }

  /** over is how far the level is above the noise, in dB. */
  get over(): number {
    return this.level - this.floor;
  }
}
