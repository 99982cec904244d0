import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { post } from "../wire/api";
import { now, tryAt } from "../player/clock";
import type { Score, Try } from "../wire/contract";
import { Shell } from "../frame/shell/Shell";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Leading } from "./Leading";
import { Speeds } from "./Speeds";
import type { Desk } from "./desk";

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
      tryAt({ time: 0, rate: usual }); // before anything that is drawn asks what time it is
      return score;
    },
    staleTime: Infinity,
    gcTime: 0,
  });
  useEffect(() => () => tryAt(null), []);
  if (first.data) return <Trying key={run} id={id} first={first.data} onAgain={() => setRun(run + 1)} />;
  return (
    <Shell view="lead-wait">
      {first.error ? <ErrorAlert error={first.error} /> : <Loading what="Preparing the try-out" />}
      {first.error && <Link to={`/plan/${id}`}>Back to the plan</Link>}
    </Shell>
  );
}

function Trying({ id, first, onAgain }: { id: number; first: Score; onAgain: () => void }) {
  const [score, setScore] = useState(first);
  const [speed, setSpeed] = useState(usual);
  const script = useRef<Try["script"]>([]);
  const change = (next: number) => {
    tryAt({ time: now(), rate: next });
    setSpeed(next);
    setScore({ ...score }); // what is drawn runs at the new speed
  };
  const desk = useMemo<Desk>(
    () => ({
      send: async (press) => {
        const at_ms = Math.max(0, Math.floor(now()));
        const next = [...script.current, { at_ms, adjust: { ...press, key: "" } }];
        script.current = next;
        setScore(await post<Score>(`/plans/${id}/try`, { script: next, at_ms }));
      },
    }),
    [id],
  );
  return (
    <Leading score={score} connected take={setScore} desk={desk} live={false}>
      <div className="trying">
        <span>Trying it out: nothing is recorded.</span>
        <Speeds label="Speed" speeds={speeds} speed={speed} onChange={change} />
        <Button size="sm" variant="outline-secondary" onClick={onAgain}>
          From the start
        </Button>
        <Link className="btn btn-sm btn-outline-secondary" to={`/plan/${id}`}>
          Back to the plan
        </Link>
      </div>
    </Leading>
  );
}
