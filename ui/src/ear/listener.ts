import type { Frame } from "./frames";
import { Sounding, type Tone } from "./sounding";
import { type Pace, Strokes } from "./strokes";

/** Listener hears strokes and chants in frames. Which of them matters, the practice says. */
export class Listener {
  private readonly strokes = new Strokes();
  private readonly tones = new Sounding();

  constructor(
    /** is told of a chant or a hum when the room has fallen silent */
    private readonly onTone: (tone: Tone) => void,
  ) {}

  push(frame: Frame): void {
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
