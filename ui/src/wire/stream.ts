import { type FromPage, Hub, type Listener, type News, stillHere } from "./hub";

const listeners = new Map<string, Set<Listener>>();

function hear(news: News): void {
  for (const listener of [...(listeners.get(news.path) ?? [])]) listener(news);
}

type Link = { send: (again?: boolean) => void };
let link: Link | null = null;

/** connect is the way to the shared worker, or where a browser has none, to a hub of this page alone. */
function connect(): Link {
  if (typeof SharedWorker === "undefined") return alone();
  const worker = new SharedWorker(new URL("./stream.worker.ts", import.meta.url), {
    type: "module",
    name: "streams",
  });
  worker.port.onmessage = ({ data }: MessageEvent<News>) => hear(data);
  const post = (paths: string[], again?: boolean) =>
    worker.port.postMessage({ paths, again } satisfies FromPage);
  const send = (again?: boolean) => post([...listeners.keys()], again);
  worker.onerror = () => {
    link = alone(); // it could not be loaded
    link.send();
  };
  setInterval(() => link?.send(), stillHere);
  window.addEventListener("pagehide", () => post([]));
  window.addEventListener("pageshow", (event) => event.persisted && send());
  return { send };
}

function alone(): Link {
  const hub = new Hub();
  const listened = new Set<string>();
  return {
    send(again) {
      for (const path of listened) {
        if (listeners.has(path)) continue;
        hub.leave(path, hear);
        listened.delete(path);
      }
      for (const path of listeners.keys()) {
        listened.add(path);
        hub.listen(path, hear);
      }
      if (again) hub.again();
    },
  };
}

/** listen hears what the stream of the path tells, until the function that is returned is called. */
export function listen(path: string, listener: Listener): () => void {
  const known = listeners.get(path);
  if (known) known.add(listener);
  else listeners.set(path, new Set([listener]));
  link ??= connect();
  link.send();
  return () => {
    const all = listeners.get(path);
    all?.delete(listener);
    if (all?.size === 0) {
      listeners.delete(path);
      link?.send();
    }
  };
}

/** again connects at once what was refused, as after a new sign-in. */
export function again(): void {
  link?.send(true);
}
