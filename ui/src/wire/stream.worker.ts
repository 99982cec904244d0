import { type FromPage, Hub, type Listener, silence } from "./hub";

/** The worker that all pages of a browser share: it holds their streams. */
const hub = new Hub();

function serve(port: MessagePort): void {
  const listened = new Map<string, Listener>();
  let dropped: ReturnType<typeof setTimeout>;
  const drop = () => {
    for (const [path, listener] of listened) hub.leave(path, listener);
    listened.clear();
  };
  port.onmessage = ({ data }: MessageEvent<FromPage>) => {
    clearTimeout(dropped);
    dropped = setTimeout(drop, silence); // a page that was killed says nothing
    for (const path of [...listened.keys()]) {
      if (data.paths.includes(path)) continue;
      hub.leave(path, listened.get(path)!);
      listened.delete(path);
    }
    for (const path of data.paths) {
      if (listened.has(path)) continue;
      const listener: Listener = (news) => port.postMessage(news);
      listened.set(path, listener);
      hub.listen(path, listener);
    }
    if (data.again) hub.again();
  };
}

addEventListener("connect", (event) => serve((event as MessageEvent).ports[0]!));
