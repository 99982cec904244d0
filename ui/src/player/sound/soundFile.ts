import type { Piece } from "./render";
import { sampleRate } from "./render";

/** SoundFile takes a sound piece by piece. */
export type SoundFile = { add(piece: Piece): void; finish(): Blob };

/** wavFile is a file of 16-bit samples (RIFF WAVE, PCM), which everything reads. */
export function wavFile(): SoundFile {
  const parts: Int16Array<ArrayBuffer>[] = [];
  let bytes = 0;
  return {
    add({ left, right }) {
      const samples = new Int16Array(2 * left.length);
      for (let i = 0; i < left.length; i++) {
        samples[2 * i] = sixteenBits(left[i]!);
        samples[2 * i + 1] = sixteenBits(right[i]!);
      }
      parts.push(samples);
      bytes += samples.byteLength;
    },
    finish: () => new Blob([header(bytes, 2), ...parts], { type: "audio/wav" }),
  };
}

/** oneChannel is a file of 16-bit samples of one channel. */
export function oneChannel(samples: Float32Array): Blob {
  const words = Int16Array.from(samples, sixteenBits);
  return new Blob([header(words.byteLength, 1), words], { type: "audio/wav" });
}

function sixteenBits(sample: number): number {
  return Math.round(Math.max(-1, Math.min(1, sample)) * 32767);
}

/** header is that of channels of 16 bits. */
function header(bytes: number, channels: number): ArrayBuffer {
  const frame = 2 * channels; // bytes of a sample of each
  const view = new DataView(new ArrayBuffer(44));
  const word = (at: number, text: string) =>
    [...text].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  word(0, "RIFF");
  view.setUint32(4, 36 + bytes, true);
  word(8, "WAVEfmt ");
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true); // PCM
  view.setUint16(22, channels, true);
  view.setUint32(24, sampleRate, true);
  view.setUint32(28, sampleRate * frame, true);
  view.setUint16(32, frame, true);
  view.setUint16(34, 16, true);
  word(36, "data");
  view.setUint32(40, bytes, true);
  return view.buffer;
}

const kilobits = 64; // a second: tones need little

async function mp3Encoder() {
  const [{ createEncoder }, { default: wasm }] = await Promise.all([
    import("wasm-media-encoders"),
    import("wasm-media-encoders/wasm/mp3?url"),
  ]);
  return createEncoder("audio/mpeg", wasm);
}

/** mp3Words is small sounds of one channel, one after the other with the same encoder. */
export async function mp3Words(
  kilobits: 16 | 24,
): Promise<(samples: Float32Array) => Uint8Array<ArrayBuffer>> {
  const encoder = await mp3Encoder();
  return (samples) => {
    encoder.configure({ sampleRate, channels: 1, bitrate: kilobits });
    const parts = [encoder.encode([samples]).slice(), encoder.finalize().slice()]; // what it returns is its own
    const sound = new Uint8Array(parts[0]!.length + parts[1]!.length);
    sound.set(parts[0]!);
    sound.set(parts[1]!, parts[0]!.length);
    return sound;
  };
}

/** mp3File is a small file, which any phone plays. */
export async function mp3File(): Promise<SoundFile> {
  const encoder = await mp3Encoder();
  encoder.configure({ sampleRate, channels: 2, bitrate: kilobits });
  const parts: Uint8Array<ArrayBuffer>[] = [];
  return {
    add({ left, right }) {
      parts.push(encoder.encode([left, right]).slice()); // what it returns is its own
    },
    finish: () => new Blob([...parts, encoder.finalize().slice()], { type: "audio/mpeg" }),
  };
}
