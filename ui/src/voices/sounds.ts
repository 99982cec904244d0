import { sampleRate } from "../player/sound/render";
import { oneChannel } from "../player/sound/soundFile";
import { t } from "../language/text";

/** UnreadableError says that a file is no sound that this browser reads. */
export class UnreadableError extends Error {}

/** asWave is a recording in any form that the browser reads, as the application takes it: one channel, RIFF WAVE, in base64. */
export async function asWave(sound: Blob): Promise<string> {
  let buffer: AudioBuffer;
  try {
    buffer = await new OfflineAudioContext(1, 1, sampleRate).decodeAudioData(await sound.arrayBuffer());
  } catch {
    throw new UnreadableError(t("voices.this-is-no-sound"));
  }
  const mixed = new Float32Array(buffer.length);
  for (let c = 0; c < buffer.numberOfChannels; c++)
    buffer.getChannelData(c).forEach((s, i) => (mixed[i]! += s / buffer.numberOfChannels));
  return base64(oneChannel(mixed));
}

function base64(file: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve((reader.result as string).split(",")[1]!);
    reader.onerror = () => reject(new UnreadableError(t("voices.the-sound-could-not-be-read")));
    reader.readAsDataURL(file);
  });
}

/** wordOf is the word that a file says by its name: "close the left.wav", close_the_left.mp3. */
export function wordOf(fileName: string): string {
  return fileName
    .replace(/\.[^.]*$/, "")
    .toLowerCase()
    .replace(/[\s_-]+/g, " ")
    .trim();
}
