import { Breaths } from "./breaths";
import type { Frame } from "./frames";
import rules from "./rules.json";
import { Sounding, type Tone } from "./sounding";
import { type Pace, Strokes } from "./strokes";
import type { ListensFor } from "./told";

const { frames: rule } = rules;

/** Listener hears strokes, chants and breaths in frames. Which of them matters, the practice says. */
export class Listener {
  listensFor: ListensFor = "nothing";
  private readonly strokes = new Strokes();
  private readonly voice = new Sounding();
  private readonly breath = new Breaths();
  private zeros = -Infinity; // when there were some last

  constructor(
    /** is told of a chant, a hum or a breath when it is over */
    private readonly onTone: (tone: Tone) => void,
  ) {}

  push(frame: Frame): void {
    // A microphone that has just been opened, or stalls, gives zeros. They are not the noise of the room, and neither is
    // a window that has some of them.
    if (Math.max(frame.low, frame.high) <= rule.silent_db) this.zeros = frame.at;
    if (frame.at - this.zeros < 2 * rule.window_s) {
      this.breath.forget(); // what is before and after a gap is not one breath
      return;
    }
    // What is not listened for follows the noise all the same: it is known when its passage begins.
    if (this.listensFor === "strokes") this.strokes.push(frame);
    else this.strokes.rest(frame);
    if (this.listensFor === "voice") this.voice.push(frame, this.onTone);
    else this.voice.rest(frame);
    if (this.listensFor === "breath") this.breath.push(frame, this.onTone);
    else this.breath.rest(frame);
  }

  /**
   * pace is how the room strokes at a beat of so many strokes a minute; null where it cannot be told. bothWays tells whether each
   * stroke may be heard twice, in and out.
   */
  pace(beat: number, bothWays = false): Pace | null {
    return this.strokes.pace(beat, bothWays);
  }

  /** sounding is the chant, the hum or the breath that sounds now; null in silence. */
  get sounding(): Tone | null {
    return this.voice.sounding ?? this.breath.sounding;
  }
}
