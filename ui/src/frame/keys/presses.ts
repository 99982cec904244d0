import type { Keys } from "./letters";

export type Way = Keys["remote"][number]["press"];

export const longAfter = 600; // ms that a key is held down
export const doubleWithin = 320; // ms between the end of one press and the next

/**
 * Presses tells how a pedal or a key of a remote is pressed: short, long or twice. wants is the ways that mean something for
 * the key; a short press is told at once where neither of the others does. atOnce has it told at once all the same: who leads
 * by breathing cannot wait for whether a second press comes. A long press is then told as well, two are two short ones.
 */
export class Presses {
  private down = "";
  private told = false;
  private waiting: { key: string; timer: ReturnType<typeof setTimeout> } | null = null;
  private held: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly wants: (key: string) => Way[],
    private readonly tell: (key: string, way: Way) => void,
    private readonly atOnce: (key: string) => boolean = () => false,
  ) {}

  /** press is a key that goes down; true where it means anything. */
  press(key: string): boolean {
    const ways = this.wants(key);
    if (ways.length === 0) return false;
    if (this.atOnce(key)) return this.pressAtOnce(key, ways);
    const twice = this.waiting?.key === key;
    this.finish(!twice);
    clearTimeout(this.held);
    this.down = key;
    this.told = true;
    if (twice) this.tell(key, "double");
    else if (ways.length === 1 && ways[0] === "short") this.tell(key, "short");
    else {
      this.told = false;
      // Where a long press means nothing, it is a short one, also of a pedal that never tells of its end.
      this.held = setTimeout(() => this.hold(key, ways.includes("long") ? "long" : "short"), longAfter);
    }
    return true;
  }

  private pressAtOnce(key: string, ways: Way[]): true {
    this.finish(true);
    clearTimeout(this.held);
    this.down = key;
    this.told = true;
    this.tell(key, "short");
    if (ways.includes("long")) this.held = setTimeout(() => this.hold(key, "long"), longAfter);
    return true;
  }

  /** release is a key that comes up. */
  release(key: string): void {
    if (this.down !== key) return;
    this.down = "";
    clearTimeout(this.held);
    if (this.told) return;
    this.told = true;
    if (!this.wants(key).includes("double")) this.tell(key, "short");
    else this.waiting = { key, timer: setTimeout(() => this.finish(true), doubleWithin) };
  }

  /** stop forgets what is not told yet. */
  stop(): void {
    clearTimeout(this.held);
    this.finish(false);
    this.down = "";
  }

  private hold(key: string, way: Way) {
    this.told = true;
    this.tell(key, way);
  }

  /** finish ends the wait for a second press; what was waited for was a short one. */
  private finish(short: boolean) {
    const waiting = this.waiting;
    if (!waiting) return;
    clearTimeout(waiting.timer);
    this.waiting = null;
    if (short) this.tell(waiting.key, "short");
  }
}
