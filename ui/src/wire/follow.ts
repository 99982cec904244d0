import { signedOut } from "./api";
import { listen } from "./stream";

/** unpack reads an event: JSON, packed with gzip, in base64. */
async function unpack<Told>(packed: string): Promise<Told> {
  const bytes = Uint8Array.from(atob(packed), (letter) => letter.charCodeAt(0));
  const plain = new Blob([bytes]).stream().pipeThrough(new DecompressionStream("gzip"));
  return (await new Response(plain).json()) as Told;
}

type Following<Told> = {
  /** takes what is told, in its order */
  take: (told: Told) => void;
  /** whether there is a connection; without one the last score is played on */
  onConnected: (connected: boolean) => void;
  /** is called when a connection has begun, after a loss too */
  onOpen: () => void;
};

/** follow takes everything that a stream tells, until the function that is returned is called. */
export function follow<Told>(path: string, { take, onConnected, onOpen }: Following<Told>): () => void {
  let last = Promise.resolve(); // unpacking takes a moment: the order is kept
  let stopped = false;
  const stop = listen(path, ({ event, data }) => {
    switch (event) {
      case "open":
        onConnected(true);
        onOpen();
        break;
      case "refused":
        window.dispatchEvent(new Event(signedOut)); // it may be that: whoever asks finds out
        onConnected(false);
        break;
      case "lost":
        onConnected(false);
        break;
      case "score":
      case "room":
        onConnected(true);
        last = last.then(async () => {
          const told = await unpack<Told>(data);
          if (!stopped) take(told);
        });
        break;
    }
  });
  return () => {
    stopped = true;
    stop();
  };
}
