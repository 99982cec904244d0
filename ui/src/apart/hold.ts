import { now } from "../player/clock";
import { get } from "../wire/api";
import type { Held } from "../wire/contract";
import { answerOf, heldAt, heldCache } from "../wire/held";

const chosen = "holds";
const list = "/api/held";

/** canHold tells whether this browser can open pages without the application: it does so only for an address that it trusts. */
export const canHold = (): boolean => isSecureContext && "serviceWorker" in navigator && "caches" in window;

/** holds tells whether this device is to hold what is needed without the application. */
export const holds = (): boolean => canHold() && localStorage.getItem(chosen) !== "no";

/** hold has this device hold what can be led today, as it is now, in the place of what it held before. */
export async function hold(): Promise<void> {
  await navigator.serviceWorker.register("/service.js");
  const held = await get<Held>("/held");
  const wanted = [list, ...held.paths.map((path) => `/api${path}`)];
  const cache = await caches.open(heldCache);
  for (const path of wanted) {
    const unchanging = path.startsWith("/api/sounds/");
    if (unchanging && (await cache.match(path))) continue;
    const answer = await answerOf(path);
    if (!answer.ok || answer.headers.has(heldAt)) continue; // the older one stays
    const headers = new Headers(answer.headers);
    if (!unchanging) headers.set(heldAt, String(Math.floor(now())));
    if (!holds()) return; // it was switched off meanwhile
    await cache.put(
      path,
      new Response(unchanging ? await answer.blob() : bare(await answer.text()), { headers }),
    );
  }
  for (const { url } of await cache.keys()) {
    const { pathname, search } = new URL(url);
    if (!wanted.includes(pathname + search)) await cache.delete(url);
  }
}

/** bare is an answer without the notes on groups: they are the teacher's, and stay with the application. */
function bare(answer: string): string {
  const kept = (field: string, value: unknown) => (field === "notes" ? "" : value);
  return JSON.stringify(JSON.parse(answer, kept));
}

/** HeldHere is what this device holds, and since when. */
export type HeldHere = { held: Held; at: number };

export async function heldHere(): Promise<HeldHere | null> {
  if (!canHold()) return null;
  const answer = await caches.match(list, { cacheName: heldCache });
  if (!answer) return null;
  return { held: (await answer.json()) as Held, at: Number(answer.headers.get(heldAt)) };
}

/** removeHeld removes what this device holds of the application. */
export async function removeHeld(): Promise<void> {
  if (canHold()) await caches.delete(heldCache);
}

/** switchHolding has this device hold what is needed without the application, or not any more. */
export async function switchHolding(on: boolean): Promise<void> {
  if (on) {
    localStorage.removeItem(chosen);
    return hold();
  }
  localStorage.setItem(chosen, "no");
  await removeHeld();
  const service = await navigator.serviceWorker.getRegistration();
  await service?.unregister();
}
