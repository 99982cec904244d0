import "./people.css";
import { useEffect, useRef, useState } from "react";
import { type PageClock, useClock } from "../../player/clock";
import { drawnTime } from "../../player/usePlace";
import type { Score, Watched } from "../../wire/contract";
import { draw, tintsOf } from "./draw";
import { layout } from "./layout";
import { inWords, type Posture, postureAt, toward } from "./posture";
import { t } from "../../language/text";

type Props = { people: Watched[]; score: Score };

const smooth = 90; // ms in which most of a way is gone, in real time
const stepped = 500; // ms between two drawings where motion is unwanted

/** People is the room: each at their place, breathing as they do. */
export function People({ people, score }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const clock = useClock();
  const now = useRef({ people, score, clock });
  useEffect(() => void (now.current = { people, score, clock }), [people, score, clock]);
  useEffect(() => {
    const c = canvas.current?.getContext("2d");
    if (!c) return;
    return animate(c, () => now.current);
  }, []);
  return (
    <section className="people" aria-label={t("lead.the-room")}>
      <canvas
        ref={canvas}
        role="img"
        aria-label={t("lead.people-who-sit-and-breathe", { people: people.length })}
      />
      <InWords people={people} score={score} />
    </section>
  );
}

/** animate draws the room with each frame, until it is stopped. */
function animate(c: CanvasRenderingContext2D, now: () => Props & { clock: PageClock }): () => void {
  const { canvas } = c;
  const calm = matchMedia("(prefers-reduced-motion: reduce)");
  const style = getComputedStyle(canvas);
  const was: Posture[] = [];
  let last = 0;
  let frame = 0;
  const paint = (time: number) => {
    frame = requestAnimationFrame(paint);
    if (calm.matches && time - last < stepped) return;
    const { people, score, clock } = now();
    const dense = devicePixelRatio;
    const width = canvas.clientWidth;
    const height = canvas.clientHeight;
    if (width === 0 || height === 0) return;
    if (canvas.width !== Math.round(width * dense) || canvas.height !== Math.round(height * dense)) {
      canvas.width = Math.round(width * dense);
      canvas.height = Math.round(height * dense);
    }
    const step = calm.matches ? 1 : 1 - Math.exp(-((time - last) * clock.rate()) / smooth);
    last = time;
    const at = drawnTime(score, clock);
    const line = style.getPropertyValue("--figure-line");
    const mat = style.getPropertyValue("--figure-mat");
    const { places } = layout(people.length, width, height);
    c.setTransform(dense, 0, 0, dense, 0, 0);
    c.clearRect(0, 0, width, height);
    for (let i = people.length - 1; i >= 0; i--) {
      const posture = toward(was[i], postureAt(people[i]!, at, i), step);
      was[i] = posture;
      const { x, y, scale } = places[i]!;
      c.setTransform(dense * scale, 0, 0, dense * scale, dense * x, dense * y);
      draw(c, posture, tintsOf(i, line, mat));
    }
  };
  frame = requestAnimationFrame(paint);
  return () => cancelAnimationFrame(frame);
}

const every = 500; // ms

/** InWords tells the room to who does not see it: how people look, not what it is called. */
function InWords({ people, score }: Props) {
  const clock = useClock();
  const [words, setWords] = useState<string[]>([]);
  useEffect(() => {
    const look = () => {
      const at = drawnTime(score, clock);
      setWords(people.map((person, i) => inWords(postureAt(person, at, i))));
    };
    look();
    const timer = setInterval(look, every);
    return () => clearInterval(timer);
  }, [people, score, clock]);
  return (
    <ol className="visually-hidden" aria-label={t("lead.each-at-their-place")}>
      {words.map((text, i) => (
        <li key={i}>{text}</li>
      ))}
    </ol>
  );
}
