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

/**
 * follow takes what a stream tells, until the function that is returned is called. Each event says all: what came while the one
 * before it was being unpacked is passed over where there is something newer.
 */
export function follow<News>(path: string, { take, onConnected, onOpen }: Following<News>): () => void {
  let newest: string | null = null;
  let unpacking = false;
  let stopped = false;
  const unpackNewest = async () => {
    if (unpacking) return;
    unpacking = true;
    while (newest !== null && !stopped) {
      const data = newest;
      newest = null;
      const news = await unpack<News>(data).catch(() => null); // the next one tells the same and more
      if (news !== null && !stopped) take(news);
    }
    unpacking = false;
  };
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
        newest = data;
        void unpackNewest();
        break;
    }
  });
  return () => {
    stopped = true;
    stop();
  };
}
