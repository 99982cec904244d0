import { Failed } from "./api";
import type { Problem } from "./contract";

/** saveFile fetches a file that takes a while to write, and has the browser save it; what is wrong is thrown. */
export async function saveFile(path: string): Promise<void> {
  const answer = await fetch(`/api${path}`);
  if (!answer.ok) throw new Failed((await answer.json()) as Problem, answer.status);
  saveBlob(await answer.blob(), nameOf(answer));
}

/** textOf is a file as text, and the name under which it is saved. */
export async function textOf(path: string): Promise<{ text: string; name: string }> {
  const answer = await fetch(`/api${path}`);
  if (!answer.ok) throw new Failed((await answer.json()) as Problem, answer.status);
  return { text: await answer.text(), name: nameOf(answer) };
}

function nameOf(answer: Response): string {
  return /filename="?([^";]+)"?/.exec(answer.headers.get("Content-Disposition") ?? "")?.[1] ?? "taught";
}

/** saveBlob has the browser save what was made on this page. */
export function saveBlob(content: Blob, name: string): void {
  const address = URL.createObjectURL(content);
  const link = Object.assign(document.createElement("a"), { href: address, download: name });
  link.click();
  URL.revokeObjectURL(address);
}
