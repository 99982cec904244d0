import { Failed } from "./api";
import type { Problem } from "./contract";

/** Packed is a recording inside a page: how many seconds of it come before its beginning, and the sound in base64. */
export type Packed = [lead: number, base64: string];

let inPage: { [sum: string]: Packed } = {};

/** carry has recordings taken from the page itself, which asks nothing of anybody. */
export function carry(recordings: { [sum: string]: Packed }): void {
  inPage = recordings;
}

/** soundOf is a recording by its sum, as a file, and how many seconds of it come before its beginning. */
export async function soundOf(sum: string): Promise<{ file: ArrayBuffer; lead: number }> {
  const packed = inPage[sum];
  if (packed)
    return { file: Uint8Array.from(atob(packed[1]), (c) => c.charCodeAt(0)).buffer, lead: packed[0] };
  const answer = await fetch(`/api/sounds/${sum}`);
  if (!answer.ok) throw new Failed((await answer.json()) as Problem, answer.status);
  return { file: await answer.arrayBuffer(), lead: 0 };
}
