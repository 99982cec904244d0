import { beforeEach, describe, expect, test, vi } from "vitest";
import { Hub, type News } from "./hub";

/** Fake is a stream whose events the test sends. */
class Fake {
  readyState = 0;
  private handlers = new Map<string, ((event: unknown) => void)[]>();
  constructor(readonly path: string) {
    opened.push(this);
  }
  addEventListener(event: string, handler: unknown) {
    this.handlers.set(event, [...(this.handlers.get(event) ?? []), handler as (event: unknown) => void]);
  }
  close() {
    this.readyState = 2;
  }
  send(event: string, data = "") {
    for (const handler of this.handlers.get(event) ?? []) handler({ data });
  }
}

let opened: Fake[] = [];
const hub = () => new Hub((path) => new Fake(path), 1000);
const page = () => {
  const heard: string[] = [];
  return { heard, hear: (news: News) => void heard.push(`${news.event} ${news.data}`.trim()) };
};

beforeEach(() => {
  opened = [];
  vi.useFakeTimers();
});

describe("one stream for all pages", () => {
  test("six pages of one class take one connection, and each hears everything", () => {
    const h = hub();
    const pages = Array.from({ length: 6 }, page);
    for (const p of pages) h.listen("/a", p.hear);
    expect(opened).toHaveLength(1);
    opened[0]!.send("open");
    opened[0]!.send("score", "1");
    for (const p of pages) expect(p.heard).toEqual(["open", "score 1"]);
  });

  test("who comes later hears the newest at once", () => {
    const h = hub();
    h.listen("/a", page().hear);
    opened[0]!.send("open");
    opened[0]!.send("score", "1");
    opened[0]!.send("error");
    opened[0]!.send("score", "2");
    const late = page();
    h.listen("/a", late.hear);
    expect(late.heard.toSorted()).toEqual(["lost", "score 2"]);
  });

  test("the connection is closed when the last page leaves, and not before", () => {
    const h = hub();
    const [one, two] = [page(), page()];
    h.listen("/a", one.hear);
    h.listen("/a", two.hear);
    h.leave("/a", one.hear);
    expect(opened[0]!.readyState).toBe(0);
    h.leave("/a", two.hear);
    expect(opened[0]!.readyState).toBe(2);
  });
});

describe("what becomes of a connection", () => {
  test("a refused one is tried again, and at once after a sign-in", () => {
    const h = hub();
    const p = page();
    h.listen("/a", p.hear);
    const refuse = () => {
      opened.at(-1)!.readyState = 2;
      opened.at(-1)!.send("error");
    };
    refuse();
    expect(p.heard).toEqual(["refused"]);
    vi.advanceTimersByTime(999);
    expect(opened).toHaveLength(1);
    vi.advanceTimersByTime(1);
    expect(opened).toHaveLength(2);
    refuse();
    h.again();
    expect(opened).toHaveLength(3);
    vi.advanceTimersByTime(5000);
    expect(opened).toHaveLength(3);
    opened.at(-1)!.send("open");
    expect(p.heard.at(-1)).toBe("open");
  });

  test("of a class that is over there is no stream, until somebody asks anew", () => {
    const h = hub();
    const p = page();
    h.listen("/a", p.hear);
    opened[0]!.send("score", "1");
    opened[0]!.send("over", "-");
    expect(opened[0]!.readyState).toBe(2);
    h.leave("/a", p.hear);
    vi.advanceTimersByTime(60_000);
    expect(opened).toHaveLength(1);
    h.listen("/a", p.hear);
    expect(opened).toHaveLength(2);
  });

  test("a connection that was replaced says nothing any more", () => {
    const h = hub();
    const p = page();
    h.listen("/a", p.hear);
    h.leave("/a", p.hear);
    h.listen("/a", p.hear);
    opened[0]!.send("score", "old");
    expect(p.heard).toEqual([]);
  });
});
