import { useQuery } from "@tanstack/react-query";
import { useMemo, useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { post } from "../wire/api";
import { ClockContext, type PageClock, trialClock } from "../player/clock";
import type { Score, Try } from "../wire/contract";
import { Shell } from "../frame/shell/Shell";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Leading } from "./Leading";
import { Speeds } from "./Speeds";
import type { Desk } from "./desk";
import { t } from "../language/text";

const speeds = [1, 2, 4, 8, 16];
const usual = 4;

/** TryView leads a plan silently, on a clock of its own: every adjustment works, and nothing is recorded. */
export function TryView() {
  const id = Number(useParams().id);
  const [run, setRun] = useState(0);
  const first = useQuery({
    queryKey: ["try", id, run],
    queryFn: async () => {
      const score = await post<Score>(`/plans/${id}/try`, { script: [], at_ms: 0 } satisfies Try);
      return { score, clock: trialClock(0, usual) }; // it runs from when the score is there
    },
    staleTime: Infinity,
    gcTime: 0,
  });
  if (first.data) return <Trying key={run} id={id} {...first.data} onAgain={() => setRun(run + 1)} />;
  return (
    <Shell view="lead-wait">
      {first.error ? <ErrorAlert error={first.error} /> : <Loading what={t("lead.preparing-the-try-out")} />}
      {first.error && <Link to={`/plan/${id}`}>{t("frame.back-to-the-plan")}</Link>}
    </Shell>
  );
}

type Trying = { id: number; score: Score; clock: PageClock; onAgain: () => void };

function Trying({ id, onAgain, ...first }: Trying) {
  const [score, setScore] = useState(first.score);
  const [clock, setClock] = useState(first.clock);
  const script = useRef<Try["script"]>([]);
  const desk = useMemo<Desk>(
    () => ({
      send: async (press) => {
        const at_ms = Math.max(0, Math.floor(clock.now()));
        const next = [...script.current, { at_ms, adjust: { ...press, key: "" } }];
        script.current = next;
        setScore(await post<Score>(`/plans/${id}/try`, { script: next, at_ms }));
      },
    }),
    [id, clock],
  );
  return (
    <ClockContext value={clock}>
      <Leading score={score} connected desk={desk} live={false}>
        <div className="trying">
          <span>{t("lead.trying-it-out-nothing-is-recorded")}</span>
          <Speeds
            label={t("lead.speed")}
            speeds={speeds}
            speed={clock.rate()}
            onChange={(rate) => setClock(trialClock(clock.now(), rate))}
          />
          <Button size="sm" variant="outline-secondary" onClick={onAgain}>
            {t("lead.from-the-start")}
          </Button>
          <Link className="btn btn-sm btn-outline-secondary" to={`/plan/${id}`}>
            {t("frame.back-to-the-plan")}
          </Link>
        </div>
      </Leading>
    </ClockContext>
  );
}
