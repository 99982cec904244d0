import { Failed } from "./api";
import type { Problem } from "./contract";

/** saveFile fetches a file that takes a while to write, and has the browser save it; what is wrong is thrown. */
export async function saveFile(path: string): Promise<void> {
  const answer = await fetch(`/api${path}`);
  if (!answer.ok) throw new Failed((await answer.json()) as Problem, answer.status);
  const named = /filename="?([^";]+)"?/.exec(answer.headers.get("Content-Disposition") ?? "");
  const address = URL.createObjectURL(await answer.blob());
  const link = Object.assign(document.createElement("a"), {
    href: address,
    download: named?.[1] ?? "taught",
  });
  link.click();
  URL.revokeObjectURL(address);
}
