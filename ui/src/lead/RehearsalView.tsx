import { rehearsingQuery } from "./queries";
import { rehearsalsQuery } from "../wire/queries";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useNavigate, useParams } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Shell } from "../frame/shell/Shell";
import { ClockContext, type PageClock, trialClock, useClock } from "../player/clock";
import { clock as shown } from "../player/format";
import { usePlace } from "../player/usePlace";
import { post } from "../wire/api";
import type {
  FromHeard,
  Preview,
  RehearsalAdjusted,
  RehearsalProposed,
  RehearsalReview,
  Rehearsing,
  Tapped,
} from "../wire/contract";
import { press } from "../wire/press";
import type { Desk } from "./desk";
import { Leading } from "./Leading";
import { People } from "./people/People";
import { useRoomSound } from "./people/useRoomSound";
import { Speeds } from "./Speeds";
import { t, text } from "../language/text";

const paces = [1, 2, 3, 4];

/** RehearsalView leads a plan with a simulated room: the keys, the rules and the screen are those of a class. */
export function RehearsalView() {
  const id = Number(useParams().id);
  const [begun, setBegun] = useState<Rehearsing | null>(null);
  const [clock, setClock] = useState<PageClock | null>(null);
  const first = useQuery(rehearsingQuery(id));
  if (begun && clock)
    return (
      <ClockContext value={clock}>
        <Rehearsal key={id} first={begun} onPace={(rate) => setClock(trialClock(clock.now(), rate))} />
      </ClockContext>
    );
  return (
    <Shell view="lead-wait">
      {first.error && <ErrorAlert error={first.error} retry={() => void first.refetch()} />}
      {first.isPending && <Loading what={t("lead.loading-the-room")} />}
      {first.data && (
        <Before
          room={first.data}
          onBegin={() => {
            setClock(trialClock(first.data.at_ms, 1));
            setBegun(first.data);
          }}
        />
      )}
      {first.error && <Link to="/rehearse">{t("lead.back-to-the-rehearsals")}</Link>}
    </Shell>
  );
}

/** Before is what is to be known before the room begins to breathe. */
function Before({ room, onBegin }: { room: Rehearsing; onBegin: () => void }) {
  const { task, level, score } = room;
  const aims = task?.levels[level - 1]?.aims ?? [];
  if (score.over)
    return (
      <>
        <h1>{score.title}</h1>
        <p>{t("lead.this-rehearsal-is-over")}</p>
        <Link className="btn btn-primary" to={`/rehearse/${room.id}`}>
          {t("lead.read-its-review")}
        </Link>
      </>
    );
  return (
    <section className="beforeroom">
      <h1>{score.title}</h1>
      <p className="lead">
        {t("lead.people", { people: room.people.length, room: room.room.toLowerCase() })}
        {task && `. ${task.levels[level - 1]!.says}`}.
      </p>
      {task && (
        <>
          <p>{task.task}</p>
          {task.away && <p>{t("lead.the-count-is-covered-switch")}</p>}
          <h2 className="h5">{t("lead.goals")}</h2>
          <ul>
            {aims.map((aim) => (
              <li key={text(aim)}>{text(aim)}</li>
            ))}
          </ul>
        </>
      )}
      {!task && <p>{t("lead.look-at-the-room-say")}</p>}
      <Button size="lg" onClick={onBegin} autoFocus>
        {room.at_ms > 0 ? t("lead.go-on", { at: shown(room.at_ms) }) : t("frame.begin")}
      </Button>{" "}
      <Link className="btn btn-lg btn-outline-secondary" to="/rehearse">
        {t("lead.not-now")}
      </Link>
      <p className="text-secondary mt-4">
        {t("lead.rehearsals-are-kept-apart", { limits: text(room.limits) })}
      </p>
    </section>
  );
}

const every = 8000; // ms in real time after which it is noted how far the rehearsal is

function Rehearsal({ first, onPace }: { first: Rehearsing; onPace: (rate: number) => void }) {
  const { id } = first;
  const clock = useClock();
  const [room, setRoom] = useState(first);
  const [uncovered, setUncovered] = useState(false);
  const [heard, setHeard] = useState(false);
  const [error, setError] = useState<Error | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const place = usePlace(room.score);
  const roomStream = useRoomSound(room, heard);
  const listenTo = useCallback(() => {
    setHeard(true);
    return roomStream();
  }, [roomStream]);

  /** take takes a later form of the room; an answer that was overtaken is let go. */
  const take = useCallback((next: Rehearsing) => {
    setRoom((old) => {
      const older =
        next.score.revision < old.score.revision ||
        (next.score.revision === old.score.revision && next.until_ms < old.until_ms);
      if (older) return old;
      const same = next.score.revision === old.score.revision;
      return same ? { ...next, score: old.score } : next; // what is drawn of a score is drawn on
    });
  }, []);
  const desk = useMemo<Desk>(() => deskOf(id, clock, take), [id, clock, take]);

  const end = useCallback(async () => {
    try {
      await post<RehearsalReview>(`/rehearsals/${id}/end`, { at_ms: Math.floor(clock.now()) });
      await queries.invalidateQueries({ queryKey: rehearsalsQuery.queryKey });
      await navigate(`/rehearse/${id}`);
    } catch (failed) {
      setError(failed as Error);
    }
  }, [id, clock, navigate, queries]);
  useEffect(() => {
    const note = () =>
      void post<Rehearsing>(`/rehearsals/${id}/came`, { at_ms: Math.floor(clock.now()) }).then(take, () => {
        // the room breathes on for two minutes; it is asked for again
      });
    const timer = setInterval(note, every);
    return () => clearInterval(timer);
  }, [id, clock, take]);
  const { over } = place;
  useEffect(() => {
    if (over) void Promise.resolve().then(end);
  }, [over, end]);
  const look = () => {
    setUncovered(!uncovered);
    if (!uncovered)
      void post<Rehearsing>(`/rehearsals/${id}/came`, { at_ms: Math.floor(clock.now()), looked: true }).then(
        take,
        () => setUncovered(false), // it would not be counted
      );
  };

  const away = room.task?.away === true && !uncovered;
  return (
    <Leading
      score={room.score}
      connected
      desk={desk}
      live={false}
      listenTo={listenTo}
      covered={away && <Covered onLook={look} />}
      beside={<People people={room.people} score={room.score} />}
    >
      {error && <ErrorAlert error={error} retry={() => void end()} />}
      <div className="trying">
        <span title={text(room.limits)}>{t("lead.a-model-for-training")}</span>
        <Speeds label={t("lead.pace")} speeds={paces} speed={clock.rate()} onChange={onPace} />
        {room.task?.away && uncovered && (
          <Button size="sm" variant="outline-secondary" onClick={look}>
            {t("lead.cover-the-count")}
          </Button>
        )}
        <Button
          size="sm"
          variant={heard ? "secondary" : "outline-secondary"}
          aria-pressed={heard}
          onClick={() => setHeard(!heard)}
        >
          {t("lead.hear-the-room")}
        </Button>
        <Button size="sm" variant="outline-secondary" onClick={() => void end()}>
          {t("lead.end-and-look-back")}
        </Button>
      </div>
    </Leading>
  );
}

/** deskOf is the desk of a rehearsal. */
function deskOf(id: number, clock: PageClock, take: (room: Rehearsing) => void): Desk {
  const path = `/rehearsals/${id}`;
  return {
    send: async (pressed, onSlow) => {
      const timed = { ...pressed, pressed_ms: Math.floor(clock.now()) };
      take((await press<RehearsalAdjusted>(`${path}/adjustments`, timed, { onSlow })).now);
    },
    asks: {
      would: (presses) =>
        post<Preview[]>(`${path}/would`, {
          at_ms: Math.floor(clock.now()),
          do: presses.map((one) => ({ ...one, key: "" })),
        }),
      saw: async (see, onSlow) => {
        const timed = { see, pressed_ms: Math.floor(clock.now()) };
        const answer = await press<RehearsalProposed>(`${path}/seen`, timed, { onSlow, keep: true });
        take(answer.now);
        return answer.proposed;
      },
      tapped: (taps, signal) => post<Tapped>(`${path}/taps`, taps, signal),
      heard: (strokes) =>
        post<FromHeard>(`${path}/strokes-heard`, { ...strokes, at_ms: Math.floor(clock.now()) }),
    },
  };
}

/** Covered is what stands where the count is, when it is to be heard and not read. */
function Covered({ onLook }: { onLook: () => void }) {
  return (
    <section className="coveredcount" aria-label={t("lead.the-count-is-covered")}>
      <p>{t("lead.the-count-is-in-your-ear")}</p>
      <Button variant="outline-secondary" onClick={onLook}>
        {t("lead.look-at-the-count")}
      </Button>
    </section>
  );
}
