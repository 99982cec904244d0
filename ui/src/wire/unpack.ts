import { opened } from "./score";

/** unpack reads JSON that was packed with gzip, in base64. */
export async function unpack<Shape>(packed: string): Promise<Shape> {
  const bytes = Uint8Array.from(atob(packed), (letter) => letter.charCodeAt(0));
  const plain = new Blob([bytes]).stream().pipeThrough(new DecompressionStream("gzip"));
  return opened((await new Response(plain).json()) as Shape);
}
