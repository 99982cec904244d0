import { Failed } from "./api";
import type { Problem } from "./contract";

/** saveFile fetches a file that takes a while to write, and has the browser save it; what is wrong is thrown. */
export async function saveFile(path: string): Promise<void> {
  const answer = await fetch(`/api${path}`);
  if (!answer.ok) throw new Failed((await answer.json()) as Problem, answer.status);
  const named = /filename="?([^";]+)"?/.exec(answer.headers.get("Content-Disposition") ?? "");
  saveBlob(await answer.blob(), named?.[1] ?? "taught");
}

/** saveBlob has the browser save what was made on this page. */
export function saveBlob(content: Blob, name: string): void {
  const address = URL.createObjectURL(content);
  const link = Object.assign(document.createElement("a"), { href: address, download: name });
  link.click();
  URL.revokeObjectURL(address);
}
