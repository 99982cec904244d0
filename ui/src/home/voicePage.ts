import { mp3Words } from "../player/sound/soundFile";
import { sampleRate } from "../player/sound/render";
import type { HomeRecordings } from "../wire/contract";
import { textOf } from "../wire/download";
import { type Packed, soundOf } from "../wire/sounds";

/** The most that the page may have, in bytes: it is sent by message. */
export const mostBytes = 250_000;

/** VoicePage is the page that plays with a recorded voice in it. tight is that the voice was made small, to stay below the most. */
export type VoicePage = { page: Blob; name: string; tight: boolean };

/**
 * voicePage puts the recordings into the page of a home practice, as small sounds that any browser reads. onDone is told how much
 * is made, from 0 to 1.
 */
export async function voicePage(
  id: number,
  { sums }: HomeRecordings,
  onDone: (done: number) => void,
  cancelled: () => boolean,
): Promise<VoicePage | null> {
  const { text, name } = await textOf(`/homes/${id}/page?voice=true`);
  for (const kilobits of [24, 16] as const) {
    const recordings: { [sum: string]: Packed } = {};
    const encode = await mp3Words(kilobits);
    for (const [n, sum] of sums.entries()) {
      if (cancelled()) return null;
      recordings[sum] = await packed(sum, encode);
      onDone((n + 1) / sums.length);
    }
    const page = new Blob([text.replace("RECORDINGS-GO-HERE", () => JSON.stringify(recordings))], {
      type: "text/html",
    });
    if (page.size < mostBytes || kilobits === 16) return { page, name, tight: kilobits === 16 };
  }
  return null;
}

async function packed(
  sum: string,
  encode: (samples: Float32Array) => Uint8Array<ArrayBuffer>,
): Promise<Packed> {
  const plain = await samplesOf((await soundOf(sum)).file);
  const small = encode(plain);
  const lead = onsetOf(await samplesOf(small.slice().buffer)) - onsetOf(plain);
  let binary = "";
  for (const byte of small) binary += String.fromCharCode(byte);
  return [Math.max(0, Math.round((lead / sampleRate) * 1e4) / 1e4), btoa(binary)];
}

async function samplesOf(file: ArrayBuffer): Promise<Float32Array> {
  const buffer = await new OfflineAudioContext(1, 1, sampleRate).decodeAudioData(file);
  return buffer.getChannelData(0);
}

const heardFrom = 0.2; // of its loudest sample: what the encoder adds before it is far below

/** onsetOf is where a sound is first heard, in samples: the encoder begins a little late, and this tells by how much. */
function onsetOf(samples: Float32Array): number {
  let loudest = 0;
  for (const s of samples) loudest = Math.max(loudest, Math.abs(s));
  return samples.findIndex((s) => Math.abs(s) >= heardFrom * loudest);
}
