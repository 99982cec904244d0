/** Random is a source of numbers from a seed (mulberry32, in the public domain): the same seed makes the same sounds. */
export class Random {
  constructor(private state: number) {}

  /** next is from 0 up to 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  }

  between(from: number, to: number): number {
    return from + (to - from) * this.next();
  }

  /** normal is around 0 with that standard deviation (Box and Muller, 1958). */
  normal(deviation: number): number {
    return deviation * Math.sqrt(-2 * Math.log(1 - this.next())) * Math.cos(2 * Math.PI * this.next());
  }
}
