import type { Frame } from "./frames";
import rules from "./rules.json";
import { Sounding, type Tone } from "./sounding";
import { type Pace, Strokes } from "./strokes";

const { frames: rule } = rules;

/** Listener hears strokes and chants in frames. Which of them matters, the practice says. */
export class Listener {
  private readonly strokes = new Strokes();
  private readonly tones = new Sounding();
  private zeros = -Infinity; // when there were some last

  constructor(
    /** is told of a chant or a hum when the room has fallen silent */
    private readonly onTone: (tone: Tone) => void,
  ) {}

  push(frame: Frame): void {
    // A microphone that has just been opened, or stalls, gives zeros. They are not the noise of the room, and neither is
    // a window that has some of them.
    if (Math.max(frame.low, frame.high) <= rule.silent_db) this.zeros = frame.at;
    if (frame.at - this.zeros < 2 * rule.window_s) return;
    this.strokes.push(frame);
    this.tones.push(frame, this.onTone);
  }

  /** pace is how the room strokes at a beat of so many strokes a minute; null where it cannot be told. */
  pace(beat: number): Pace | null {
    return this.strokes.pace(beat);
  }

  /** sounding is the chant or hum that sounds now; null in silence. */
  get sounding(): Tone | null {
    return this.tones.sounding;
  }
}
