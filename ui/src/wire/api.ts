import type { Problem } from "./contract";
import { heldAt, noteHeld } from "./held";
import { opened } from "./score";

/** Failed is an error answer of the application: its problem tells what is wrong and what to do. */
export class Failed extends Error {
  constructor(
    readonly problem: Problem,
    readonly status: number,
  ) {
    super(problem.say.id);
  }
}

const unreachable: Problem = { say: { id: "web.unreachable" } };

/** unanswered tells whether the application had no answer, or what stands before it says that it is gone. */
export const unanswered = (error: unknown): boolean =>
  error instanceof Failed
    ? error.status === 0 || (error.status >= 502 && error.status <= 504)
    : error instanceof DOMException && error.name === "TimeoutError";

/** signedOut is the event of the window that says that the application asks to sign in first. */
export const signedOut = "lantern:signed-out";

async function call<Out>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<Out> {
  return ask<Out>(method, path, body === undefined ? undefined : JSON.stringify(body), signal);
}

async function ask<Out>(
  method: string,
  path: string,
  body: string | Blob | undefined,
  signal?: AbortSignal,
): Promise<Out> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      signal,
      keepalive: method === "PUT", // a save goes through although the page is being left
      headers: body === undefined ? undefined : { "Content-Type": "application/json" },
      body,
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new Failed(unreachable, 0);
  }
  if (response.status === 401) window.dispatchEvent(new Event(signedOut));
  if (method === "GET") {
    const at = response.headers.get(heldAt);
    if (at !== null || path !== "/clock") noteHeld(at === null ? null : Number(at));
  }
  const answer: unknown = await response.json().catch(() => null);
  if (!response.ok || answer === null)
    throw new Failed((answer as Problem | null) ?? unreachable, response.status);
  return opened(answer as Out);
}

export const get = <Out>(path: string, signal?: AbortSignal) => call<Out>("GET", path, undefined, signal);
export const post = <Out>(path: string, body: unknown, signal?: AbortSignal) =>
  call<Out>("POST", path, body, signal);
/** send sends a file of JSON as it is. */
export const send = <Out>(path: string, file: Blob) => ask<Out>("POST", path, file);
export const put = <Out>(path: string, body: unknown) => call<Out>("PUT", path, body);
export const remove = <Out>(path: string) => call<Out>("DELETE", path, {});
