import { signedOut } from "./api";
import { listen } from "./stream";
import { unpack } from "./unpack";

type Following<News> = {
  /** takes what arrives, in its order */
  take: (news: News) => void;
  /** whether there is a connection; without one the last score is played on */
  onConnected: (connected: boolean) => void;
  /** is called when a connection has begun, after a loss too */
  onOpen: () => void;
};

/** follow takes everything that a stream tells, until the function that is returned is called. */
export function follow<News>(path: string, { take, onConnected, onOpen }: Following<News>): () => void {
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
          const news = await unpack<News>(data);
          if (!stopped) take(news);
        });
        break;
    }
  });
  return () => {
    stopped = true;
    stop();
  };
}
