import "./remote.css";
import { type PointerEvent, useCallback, useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { useLight } from "../frame/shell/light";
import { Loading } from "../frame/shell/Loading";
import { Shell } from "../frame/shell/Shell";
import { now } from "../player/clock";
import { countShown } from "../player/phases";
import { felt } from "../player/sound/signs";
import { canVibrate } from "../player/sound/useSpoken";
import { useSay } from "../player/say";
import { awakeText, useAwake } from "../player/useAwake";
import { usePlace } from "../player/usePlace";
import { useScore } from "../player/useScore";
import { textOf, useShown } from "../player/useShown";
import type { Adjusted, Score } from "../wire/contract";
import { post } from "../wire/api";
import { press } from "../wire/press";
import { Once } from "./ahead";
import { another, cardsOf, turning } from "./cards";
import { goOn, natural, type Press, usualLater, usualRecall } from "./adjustments";
import { useMessage } from "./useMessage";
import { failureText, t, wordOf } from "../language/text";

/** RemoteView leads a class from a phone in the lap, without a look: two large areas and two ways to swipe. */
export function RemoteView() {
  const id = Number(useParams().id);
  const { score, error, retry, connected, take } = useScore(id);
  if (score) return <Remote key={id} score={score} connected={connected} take={take} />;
  return (
    <Shell view="lead-wait">
      {error ? (
        <ErrorAlert error={error} retry={() => void retry()} />
      ) : (
        <Loading what={t("lead.joining-the-class")} />
      )}
    </Shell>
  );
}

type Props = { score: Score; connected: boolean; take: (score: Score) => void };

const swipe = 48; // px to the side; less is a touch

function Remote({ score, connected, take }: Props) {
  useLight("lead", "night");
  const place = usePlace(score);
  const { phase } = place;
  const shown = useShown(score, place);
  const { message, say } = useMessage(score, phase?.passage ?? 0);
  const awake = useAwake(!place.over);
  const written = useSay();
  const [once] = useState(() => new Once()); // a finger that slips goes on once
  useFelt(score);
  const send = useCallback(
    async (asked: Press) => {
      try {
        const done = await press<Adjusted>(
          `/classes/${score.class_id}/adjustments`,
          { ...asked, pressed_ms: now() },
          { onSlow: () => say(`${wordOf("verb", asked.do)}: ${t("lead.not-sent-yet")}`), keep: false },
        );
        take(done.score);
      } catch (failed) {
        say(failureText(failed));
      }
    },
    [score.class_id, say, take],
  );
  const passage = phase ? score.passages[phase.passage - 1] : undefined;
  if (place.over || !phase || !passage)
    return (
      <main className="remote">
        <p className="h1 m-auto">{t("lead.the-class-has-ended")}</p>
        <Link className="btn btn-primary btn-lg m-4" to={`/taught/${score.class_id}`}>
          {t("lead.read-what-was-taught")}
        </Link>
      </main>
    );
  const cards = cardsOf(score, phase, score.card_up);
  const next = another(cards, 1);
  const on = turning(
    goOn({ phase, passage, slot: 0, later: usualLater, recall: usualRecall, keys: undefined }),
    cards,
  );
  const forward = () => {
    if ((next || phase.open) && !once.counts(performance.now())) return;
    if (next)
      void post<Score>(`/classes/${score.class_id}/card`, next)
        .then(take)
        .catch((failed: unknown) => say(failureText(failed)));
    else void send(on.press);
  };
  const breath = natural(phase);
  const tempo = (to: number) => void send({ do: "tempo", to, carry: true });
  return (
    <main className="remote">
      <Area
        name={on.name}
        says={on.effect}
        off={!on.met}
        onTouch={forward}
        onLeft={() => tempo(passage.slower)}
        onRight={() => tempo(passage.faster)}
      />
      <div className="between">
        <p className="word" data-testid="word">
          {textOf(shown, "now").join("")} <b>{countShown(place)}</b>
        </p>
        <p role="status">
          {message?.words ?? (connected ? awakeText(awake, written) : t("lead.not-connected-still-counting"))}
        </p>
      </div>
      <Area
        name={breath.name}
        says={breath.effect}
        off={!breath.met}
        onTouch={() => void send(breath.press)}
        onLeft={() => tempo(passage.slower)}
        onRight={() => tempo(passage.faster)}
      />
      <footer>
        <span>{t("lead.swipe-left-slower-swipe-right-faster")}</span>
        <Link to={`/lead/${score.class_id}`}>{t("lead.all-keys")}</Link>
      </footer>
    </main>
  );
}

type AreaProps = {
  name: string;
  says: string;
  off: boolean;
  onTouch: () => void;
  onLeft: () => void;
  onRight: () => void;
};

/** Area is half of the screen: a touch anywhere in it, or a swipe to a side. */
function Area({ name, says, off, onTouch, onLeft, onRight }: AreaProps) {
  const from = useRef<{ x: number; y: number; id: number } | null>(null);
  const up = (event: PointerEvent) => {
    const began = from.current;
    from.current = null;
    if (!began || began.id !== event.pointerId) return;
    const across = event.clientX - began.x;
    const along = event.clientY - began.y;
    if (Math.abs(across) < swipe && Math.abs(along) < swipe) onTouch();
    else if (Math.abs(across) > Math.abs(along)) (across < 0 ? onLeft : onRight)();
  };
  return (
    <button
      type="button"
      className="area"
      aria-disabled={off}
      onPointerDown={(e) => {
        from.current = { x: e.clientX, y: e.clientY, id: e.pointerId };
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerUp={up}
      onPointerCancel={() => (from.current = null)}
      onClick={(e) => e.detail === 0 && onTouch()} // by keyboard or screen reader
    >
      <span className="name">{name}</span>
      <span>{says}</span>
    </button>
  );
}

/** useFelt lets the hand feel what became of each adjustment. */
function useFelt(score: Score) {
  const known = useRef(score.revision);
  useEffect(() => {
    if (score.revision === known.current) return;
    known.current = score.revision;
    if (canVibrate) navigator.vibrate(felt[score.answer?.refused ? "refused" : "taken"]);
  }, [score]);
}
