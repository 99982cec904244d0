import { useCallback } from "react";
import { useParams } from "react-router";
import { ErrorAlert } from "../frame/ErrorAlert";
import { Loading } from "../frame/Loading";
import { Shell } from "../frame/Shell";
import { now } from "../player/clock";
import { useScore } from "../player/useScore";
import type { Adjusted } from "../wire/contract";
import { press } from "../wire/press";
import type { Press } from "./adjustments";
import { Leading } from "./Leading";

/** LeadView leads a class: it follows its score, and sends what is pressed. */
export function LeadView() {
  const id = Number(useParams().id);
  const { score, error, retry, connected, take } = useScore(id);
  const send = useCallback(
    async (pressed: Press, onSlow: (words: string) => void) => {
      const keep = pressed.do === "note";
      const done = await press<Adjusted>(
        `/classes/${id}/adjustments`,
        { ...pressed, pressed_ms: now() },
        { onSlow, keep },
      );
      take(done.score);
    },
    [id, take],
  );
  if (score) return <Leading key={id} score={score} connected={connected} take={take} send={send} live />;
  return (
    <Shell view="lead-wait">
      {error ? <ErrorAlert error={error} retry={() => void retry()} /> : <Loading what="Joining the class" />}
    </Shell>
  );
}
