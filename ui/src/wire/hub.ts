/** News is what a page is told of a stream: an event with its data, or what has become of the connection. */
export type News = {
  path: string;
  /** score, room and over as the application sends them; open, lost (it is tried again) or refused (signed out) */
  event: "score" | "room" | "over" | "open" | "lost" | "refused";
  data: string;
};

/** FromPage is what a page tells the worker: what it listens to. It says so now and then too, as it may have been killed. */
export type FromPage = { paths: string[]; again?: boolean };

/** stillHere is how often it does, in ms. */
export const stillHere = 20_000;
/** silence is after how long a page is taken for gone, in ms. Timers of pages behind others come once a minute only. */
export const silence = 200_000;

/** Listener is a page, or a part of one. */
export type Listener = (news: News) => void;

const events = ["score", "room", "over"] as const;

/** Source is what is used of an EventSource. */
export type Source = Pick<EventSource, "addEventListener" | "close" | "readyState">;

const closed = 2; // EventSource.CLOSED

type Line = {
  source: Source | null;
  listeners: Set<Listener>;
  /** the newest of each event, for who comes later */
  last: Map<News["event"], News>;
  retry?: ReturnType<typeof setTimeout>;
};

/**
 * Hub holds one stream for each path, however many listen to it: a browser has only six connections to a host, and each
 * stream takes one for good. It lives in a worker that all pages of a browser share.
 */
export class Hub {
  private lines = new Map<string, Line>();

  constructor(
    private open: (path: string) => Source = (path) => new EventSource(path),
    private retryAfter = 3000, // ms
  ) {}

  listen(path: string, listener: Listener): void {
    let line = this.lines.get(path);
    if (!line) {
      line = { source: null, listeners: new Set(), last: new Map() };
      this.lines.set(path, line);
    }
    if (line.listeners.has(listener)) return;
    line.listeners.add(listener);
    for (const news of line.last.values()) listener(news);
    if (!line.source && !line.retry) this.connect(path, line);
  }

  leave(path: string, listener: Listener): void {
    const line = this.lines.get(path);
    if (!line?.listeners.delete(listener) || line.listeners.size > 0) return;
    this.close(line);
    this.lines.delete(path);
  }

  /** again connects at once what was refused, as after a new sign-in. */
  again(): void {
    for (const [path, line] of this.lines) {
      if (line.retry) this.connect(path, line);
    }
  }

  private connect(path: string, line: Line): void {
    this.close(line);
    const source = this.open(path);
    line.source = source;
    const tell = (event: News["event"], data = "") => {
      if (line.source === source) this.tell(path, line, { path, event, data });
    };
    source.addEventListener("open", () => tell("open"));
    source.addEventListener("error", () => {
      if (line.source !== source) return;
      if (source.readyState !== closed) return tell("lost"); // the browser tries again by itself
      tell("refused");
      line.source = null;
      line.retry = setTimeout(() => this.connect(path, line), this.retryAfter);
    });
    for (const event of events) {
      source.addEventListener(event, (message) => {
        tell(event, (message as MessageEvent<string>).data);
        // A class that is over has no stream: else the browser would ask for it for ever.
        if (event === "over") this.close(line);
      });
    }
  }

  private close(line: Line): void {
    clearTimeout(line.retry);
    line.retry = undefined;
    line.source?.close();
    line.source = null;
  }

  private tell(path: string, line: Line, news: News): void {
    if (news.event === "open" || news.event === "lost" || news.event === "refused") {
      for (const state of ["open", "lost", "refused"] as const) line.last.delete(state);
    }
    line.last.set(news.event, news);
    for (const listener of [...line.listeners]) listener(news);
    if (news.event === "over") this.lines.delete(path); // who comes later asks anew
  }
}
