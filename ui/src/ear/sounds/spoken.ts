import { mix, silence, type Sound } from "./parts";

// What speech.sh made; nothing where it was not run.
const files = import.meta.glob<string>("./speech/*.wav", { query: "?inline", import: "default" });

const named = (prefix: string) =>
  Object.keys(files)
    .filter((path) => path.startsWith(`./speech/${prefix}`))
    .sort();

/** talks is the names of what espeak-ng reads. */
export const talks = named("talk-");

/** spoken is a sound that speech.sh made: 16 bits, one channel, at the rate of all made sounds. */
export async function spoken(name: string): Promise<Sound> {
  const [, base64] = (await files[name]!()).split(",");
  const bytes = Uint8Array.from(atob(base64!), (letter) => letter.charCodeAt(0));
  const header = 44;
  return Float32Array.from(
    new Int16Array(bytes.buffer, header, (bytes.length - header) >> 1),
    (x) => x / 32_768,
  );
}

/** counting is somebody who counts to eight on a beat a minute, again and again, in one of the languages of speech.sh. */
export async function counting(tag: string, beat: number, seconds: number): Promise<Sound> {
  const words = await Promise.all(named(`word-${tag}-`).map(spoken));
  const sound = silence(seconds);
  if (words.length === 0) return sound;
  for (let i = 0, at = 1; at < seconds - 1; i++, at += 60 / beat)
    mix(sound, words[i % words.length]!, at, 0.5);
  return sound;
}
