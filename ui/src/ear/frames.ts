import FFT from "fft.js";
import { PitchDetector } from "pitchy";
import rules from "./rules.json";

/** Frame is what a hundredth of a second of sound comes to. No sample is in it. */
export type Frame = {
  /** seconds since listening began, of the middle of the window */
  at: number;
  /** level of the voice's band, and of the band of breath and hiss, in dB */
  low: number;
  high: number;
  /** voiced tells whether a pitch of a voice is clear in it. It costs most of all, and can be asked until the next frame. */
  voiced: () => boolean;
};

const { frames: rule } = rules;
const silent = 1e-10; // of full scale, as power: what is below is digital silence

/** powerOfTwo is the power of two nearest to a number of samples: spectra need one. */
function powerOfTwo(samples: number): number {
  return 2 ** Math.round(Math.log2(samples));
}

/** Framer turns samples, as they come, into frames. It holds a tenth of a second of sound at most, and passes on none. */
export class Framer {
  private readonly hop: number;
  private readonly size: number;
  private readonly pitchSize: number;
  private readonly held: Float32Array; // the last samples, the newest at the end
  private readonly detector: PitchDetector<Float32Array>;
  private readonly fft: FFT;
  private readonly windowed: Float32Array;
  private readonly spectrum: number[];
  private readonly hann: Float32Array;
  private filled = 0; // samples since the last frame
  private heard = 0; // samples in all
  private count = 0; // frames
  private pitched = { at: -Infinity, voiced: false }; // the frame that was looked at last
  private readonly low: [number, number];
  private readonly high: [number, number];

  constructor(
    /** samples a second */
    private readonly rate: number,
  ) {
    this.hop = Math.round(rule.hop_s * rate);
    this.size = powerOfTwo(rule.window_s * rate);
    this.pitchSize = powerOfTwo(rule.pitch_window_s * rate);
    this.held = new Float32Array(Math.max(this.size, this.pitchSize));
    this.detector = PitchDetector.forFloat32Array(this.pitchSize);
    this.detector.minVolumeDecibels = -70;
    this.fft = new FFT(this.size);
    this.spectrum = this.fft.createComplexArray();
    this.windowed = new Float32Array(this.size);
    this.hann = new Float32Array(this.size).map(
      (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / this.size),
    );
    const bin = (hz: number) => Math.round((hz * this.size) / rate);
    this.low = [bin(rule.low_hz[0]!), bin(rule.low_hz[1]!)];
    this.high = [bin(rule.high_hz[0]!), bin(Math.min(rule.high_hz[1]!, rate / 2 - 1))];
  }

  /** push takes samples, and calls for each frame that is complete. */
  push(samples: Float32Array, each: (frame: Frame) => void): void {
    for (let from = 0; from < samples.length;) {
      const part = samples.subarray(from, from + this.hop - this.filled);
      this.held.copyWithin(0, part.length);
      this.held.set(part, this.held.length - part.length);
      this.filled += part.length;
      this.heard += part.length;
      from += part.length;
      if (this.filled < this.hop) return;
      this.filled = 0;
      if (this.heard >= this.held.length) each(this.frame());
    }
  }

  private frame(): Frame {
    const from = this.held.length - this.size;
    for (let i = 0; i < this.size; i++) this.windowed[i] = this.held[from + i]! * this.hann[i]!;
    this.fft.realTransform(this.spectrum, this.windowed);
    const count = this.count++;
    return {
      at: (this.heard - this.size / 2) / this.rate,
      low: this.level(this.low),
      high: this.level(this.high),
      voiced: () => {
        if (count - this.pitched.at >= rule.pitch_every)
          this.pitched = { at: count, voiced: this.hasPitch() };
        return this.pitched.voiced;
      },
    };
  }

  private hasPitch(): boolean {
    const [pitch, clarity] = this.detector.findPitch(
      this.held.subarray(this.held.length - this.pitchSize),
      this.rate,
    );
    return clarity >= rule.clear && pitch >= rule.pitch_hz[0]! && pitch <= rule.pitch_hz[1]!;
  }

  /** level is the power of a band against full scale, in dB. */
  private level([from, to]: [number, number]): number {
    let power = 0;
    for (let i = from; i <= to; i++) power += this.spectrum[2 * i]! ** 2 + this.spectrum[2 * i + 1]! ** 2;
    return 10 * Math.log10(power / (this.size * this.size) + silent);
  }
}
