import { type CSSProperties, useEffect, useState } from "react";
import { type PageClock, useClock } from "../player/clock";
import { classTime } from "../player/usePlace";
import type { Score } from "../wire/contract";

const every = 20_000; // ms in real time; the change between is smooth (room.css)

/** Dusk is the light behind the lamps: that of the evening, which turns to that of the night in the course of a class. */
export function Dusk({ score }: { score: Score | null }) {
  const clock = useClock();
  const [passed, setPassed] = useState(() => share(score, clock));
  useEffect(() => {
    const look = () => setPassed(share(score, clock));
    look();
    const timer = setInterval(look, Math.max(1000, clock.inReal(every)));
    return () => clearInterval(timer);
  }, [score, clock]);
  return (
    <div className="dusk" style={{ "--passed": passed.toFixed(3) } as CSSProperties} aria-hidden>
      <div className="evening" />
      <div className="night" />
    </div>
  );
}

/** share is how much of the class is over, from 0 to 1. */
function share(score: Score | null, clock: PageClock): number {
  return score && score.end_ms > 0 ? Math.min(1, Math.max(0, classTime(score, clock) / score.end_ms)) : 0;
}
