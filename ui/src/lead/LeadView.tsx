import "./lead.css";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { Button, Modal } from "react-bootstrap";
import { Link, useBlocker, useParams } from "react-router";
import { get } from "../wire/api";
import { now } from "../player/clock";
import { press } from "../wire/press";
import type { Adjusted, Score, Settings } from "../wire/contract";
import { LampSheet } from "../player/LampSheet";
import { useLight } from "../frame/light";
import { Shell } from "../frame/Shell";
import { ErrorAlert } from "../frame/ErrorAlert";
import { Loading } from "../frame/Loading";
import { type Cue, useCue } from "../player/useCue";
import { useScore } from "../player/useScore";
import type { Sign } from "../player/sound/signs";
import { useSound } from "../player/sound/useSound";
import { clock } from "../player/format";
import { Controls } from "./Controls";
import { type Control, controls, goOn, natural, pedalled, type Press } from "./controls";
import { GapCard } from "./GapCard";
import { inWords, verbName } from "../player/answers";
import { type Panel, Panels, panelsOf } from "./Panels";
import { Now } from "./Now";
import { Order } from "./Order";
import { TopBar } from "./TopBar";
import { Unstored } from "./Unstored";
import { forget, useGap } from "./useGap";
import { useWakeLock } from "../player/useWakeLock";
import { useWould } from "./useWould";

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

/** Told is what is said on the screen, until a newer adjustment is answered. */
type Told = { words: string; refused: boolean; revision: number };

type Props = {
  score: Score;
  connected: boolean;
  take: (score: Score) => void;
  /** makes an adjustment, and takes the score after it; onSlow says what to tell while there is no answer */
  send: (press: Press, onSlow: (words: string) => void) => Promise<void>;
  /** whether a class is led, or a plan only tried out */
  live: boolean;
  children?: ReactNode;
};

/** Leading is the lead screen of a class, or of a plan that is tried out. */
export function Leading({ score, connected, take, send, live, children }: Props) {
  const [light, changeLight] = useLight("lead", "night");
  const cue = useCue(score);
  const [notice, setNotice] = useState<Told | null>(null);
  const [came] = useState(score.revision);
  const [armed, setArmed] = useState("");
  const [panel, setPanel] = useState<Panel>("");
  const leaving = useBlocker(
    ({ nextLocation, currentLocation }) =>
      live && !cue.over && nextLocation.pathname !== currentLocation.pathname,
  );
  useWakeLock(!cue.over);
  const sound = useSound("lead", score, cue);
  const gap = useGap(score, cue, live);
  const { data: settings } = useQuery({ queryKey: ["settings"], queryFn: () => get<Settings>("/settings") });
  // What this screen has to say, or else the last answer, whichever device it was given to.
  const answer = notice?.revision === score.revision ? notice : told(score, came);

  const adjust = useCallback(
    async (press: Press) => {
      const say = (words: string) => setNotice({ words, refused: true, revision: score.revision });
      try {
        await send(press, (words) => say(`${verbName(press.do)}: ${words}`));
      } catch (error) {
        say((error as Error).message);
      }
    },
    [score.revision, send],
  );

  const { strand } = cue;
  const passage = strand ? score.passages[strand.passage - 1] : undefined;
  const groups = strand && passage ? controls(strand, passage, score.slot_ms) : [];
  const breath = strand ? natural(strand) : null;
  const on = strand ? goOn(strand) : null;
  const all = [...groups.flatMap((g) => g.controls), ...(on ? [on] : []), ...(breath ? [breath] : [])];
  const would = useWould(score, cue, all, live);
  useSigns(score, cue, sound.give);

  const pressControl = (control: Control) => {
    if (control.twice && armed !== control.id) {
      setArmed(control.id);
      const words = `${control.name}: press again to do it`;
      setNotice({ words, refused: false, revision: score.revision });
      return;
    }
    setArmed("");
    void adjust(control.press);
  };
  useDisarm(armed, () => setArmed(""));

  const pressed = (event: KeyboardEvent) => {
    if (
      event.repeat ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey ||
      (panel !== "" && !(panel === "cautions" && event.key.toLowerCase() === "g")) ||
      leaving.state === "blocked" ||
      gap.from !== null
    )
      return;
    if (isTyping(event.target)) return;
    const key = event.key.toLowerCase();
    const pedal = { PageDown: settings?.pedal_down, PageUp: settings?.pedal_up }[event.key];
    const control = pedal
      ? all.find((c) => c.id === pedalled(pedal, groups))
      : all.find((c) => c.key === key);
    if (control) {
      event.preventDefault();
      setPanel("");
      pressControl(control);
      return;
    }
    const opens = panelsOf(live).find((p) => p.key === key)?.panel;
    if (opens) {
      event.preventDefault(); // the letter would stand in a field
      setPanel(opens);
    }
  };
  useKeys(pressed);

  return (
    <div className="leading">
      <TopBar
        score={score}
        cue={cue}
        connected={connected}
        light={light}
        onLight={changeLight}
        onKeys={() => setPanel("keys")}
        onRoom={live ? () => setPanel("room") : undefined}
        sounds={sound.choice.on}
        onSound={() => setPanel("sound")}
      />
      {score.unstored && <Unstored unstored={score.unstored} />}
      <Order score={score} cue={cue} />
      <main>
        {cue.over ? (
          live ? (
            <Over score={score} />
          ) : (
            <section className="over">
              <h2 className="h1">That was the plan</h2>
            </section>
          )
        ) : (
          <>
            <Now score={score} cue={cue} />
            <LampSheet score={score} cue={cue} />
            <p className={`answer ${answer?.refused ? "refused" : ""}`} role="status">
              {answer?.words}
            </p>
          </>
        )}
        {children}
      </main>
      {!cue.over && breath && on && (
        <Controls
          groups={groups}
          breath={breath}
          on={on}
          armed={armed}
          would={would}
          live={live}
          onPress={pressControl}
          onPanel={setPanel}
        />
      )}
      <Panels
        panel={panel}
        groups={groups}
        passage={passage}
        verbs={strand?.verbs ?? []}
        classId={score.class_id}
        sound={sound}
        take={take}
        onAdjust={adjust}
        onClose={() => setPanel("")}
      />
      {gap.from !== null && <GapCard score={score} from={gap.from} take={take} onClose={gap.settle} />}
      <Modal
        show={leaving.state === "blocked"}
        centered
        onHide={() => leaving.reset?.()}
        aria-labelledby="leaving"
      >
        <Modal.Header>
          <Modal.Title id="leaving">Leave the lead screen?</Modal.Title>
        </Modal.Header>
        <Modal.Body>The class goes on. You can pick it up again from any screen.</Modal.Body>
        <Modal.Footer>
          <Button
            variant="outline-secondary"
            onClick={() => {
              forget();
              leaving.proceed?.();
            }}
          >
            Leave
          </Button>
          <Button autoFocus onClick={() => leaving.reset?.()}>
            Stay
          </Button>
        </Modal.Footer>
      </Modal>
    </div>
  );
}

/** told is the last answer in words, with the device where it was another's; nothing of what was before this screen came. */
function told(score: Score, came: number): Told | null {
  const { answer } = score;
  if (!answer || answer.number <= came) return null;
  const from = answer.origin ? ` · ${answer.origin}` : "";
  return { words: inWords(answer) + from, refused: answer.refused !== "", revision: score.revision };
}

/** useSigns lets the teacher hear what became of each adjustment, and that the last round has begun. */
function useSigns(score: Score, cue: Cue, give: (sign: Sign) => void) {
  const latest = useRef(give);
  useEffect(() => {
    latest.current = give;
  });
  const heard = useRef(score.revision);
  useEffect(() => {
    if (score.revision === heard.current) return;
    heard.current = score.revision;
    latest.current(score.answer?.refused ? "refused" : "taken");
  }, [score]);
  const { strand } = cue;
  const rounds = strand ? score.passages[strand.passage - 1]?.rounds : 0;
  const last = strand?.stage === "round" && strand.round === rounds;
  useEffect(() => {
    if (last) latest.current("last");
  }, [last]);
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName))
  );
}

function useKeys(pressed: (event: KeyboardEvent) => void) {
  const latest = useRef(pressed);
  // In the same moment as the drawing: a key pressed on what is seen must mean what is seen.
  useLayoutEffect(() => {
    latest.current = pressed;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => latest.current(event);
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
}

const armedFor = 3000; // ms in which the second press counts

function useDisarm(armed: string, disarm: () => void) {
  const latest = useRef(disarm);
  useEffect(() => {
    latest.current = disarm;
  });
  useEffect(() => {
    if (armed === "") return;
    const timer = setTimeout(() => latest.current(), armedFor);
    return () => clearTimeout(timer);
  }, [armed]);
}

/** focus is for a link, which autoFocus does not reach. */
function focus(link: HTMLAnchorElement | null) {
  link?.focus();
}

function Over({ score }: { score: Score }) {
  return (
    <section className="over">
      <h2 className="h1">The class has ended</h2>
      <p>{clock(score.end_ms)} were taught. The record is kept.</p>
      <Link className="btn btn-primary btn-lg" to={`/taught/${score.class_id}`} ref={focus}>
        Read what was taught
      </Link>{" "}
      <Link className="btn btn-outline-secondary btn-lg" to="/">
        Today
      </Link>
    </section>
  );
}
