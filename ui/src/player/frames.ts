import { flushSync } from "react-dom";

/** How long a frame of this screen lasts, in ms, as seen so far. */
let length = 1000 / 60;

/** When the frame in progress began (performance.now); null outside of its callbacks. */
let began: number | null = null;

// A timer may be early or the clock be set: it looks again at least so often.
const atLeast = 200; // ms
// From here on before a change each frame is asked: a timer can be that late.
const near = 40; // ms
// A page that is covered, or on a machine that is busy, may have no frames though it is not hidden: then a timer draws.
const overdue = 50; // ms

/** half is half a frame: what a frame begins to show so much before or after its time is as true as a screen can be. */
export function half(): number {
  return length / 2;
}

/** frameBegan is when the frame began in which this is drawn, of performance.now; null where it is drawn with the next one. */
export function frameBegan(): number | null {
  return began;
}

/** inThisFrame applies a change of what is shown with the frame in progress, and outside of frames with the next one. */
export function inThisFrame(change: () => void): void {
  if (began === null) change();
  else flushSync(change);
}

/**
 * keepDrawn calls draw whenever what is shown may change, until it is stopped: in the frame that is nearest to the moment, where
 * the page is seen. Draw gets for how many ms from now on it is to show the state of things, and returns after how many ms that
 * changes next.
 */
export function keepDrawn(draw: (ahead: number) => number): () => void {
  let timer: ReturnType<typeof setTimeout>;
  let frame = 0;
  let before = 0;
  let stopped = false;
  const wait = (left: number) => {
    if (stopped) return; // by what was drawn
    if (document.hidden || left > near)
      timer = setTimeout(look, Math.max(1, Math.min(atLeast, document.hidden ? left : left - near)));
    else {
      frame = requestAnimationFrame(inFrame);
      timer = setTimeout(look, overdue);
    }
  };
  const look = () => {
    cancelAnimationFrame(frame);
    before = 0;
    wait(draw(half()));
  };
  const inFrame = (start: number) => {
    clearTimeout(timer);
    const passed = start - before;
    if (passed > 4 && passed < 40) length += (passed - length) / 8; // two in a row; else one was left out
    before = start;
    began = start;
    try {
      wait(draw(start + half() - performance.now()));
    } finally {
      began = null;
    }
  };
  const woken = () => {
    clearTimeout(timer); // a hidden page's timers come late, and it has no frames
    look();
  };
  look();
  document.addEventListener("visibilitychange", woken);
  return () => {
    stopped = true;
    clearTimeout(timer);
    cancelAnimationFrame(frame);
    document.removeEventListener("visibilitychange", woken);
  };
}
