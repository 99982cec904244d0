import { useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { Button, Modal } from "react-bootstrap";
import { Link, useBlocker, useParams } from "react-router";
import { post } from "../shared/api";
import type { Adjusted, Answer, Score } from "../shared/contract";
import { LampSheet } from "../shared/LampSheet";
import { useLight } from "../shared/light";
import { Shell, Trouble, Waiting } from "../shared/Shell";
import { useCue } from "../shared/useCue";
import { useScore } from "../shared/useScore";
import { useSound } from "../sound/useSound";
import { clock } from "../shared/words";
import { Controls } from "./Controls";
import { type Control, controls, goOn, natural, pedals, type Press } from "./controls";
import { inWords } from "./answers";
import { type Panel, panelOf, Panels } from "./Panels";
import { Now } from "./Now";
import { Order } from "./Order";
import { TopBar } from "./TopBar";
import { useWakeLock } from "./useWakeLock";

export function LeadView() {
  const id = Number(useParams().id);
  const { score, error, retry, connected, take } = useScore(id);
  if (score) return <Leading key={id} score={score} connected={connected} take={take} />;
  return (
    <Shell view="lead-wait">
      {error ? <Trouble error={error} retry={() => void retry()} /> : <Waiting what="Joining the class" />}
    </Shell>
  );
}

type Sent = { words: string; refused: boolean };

function Leading({
  score,
  connected,
  take,
}: {
  score: Score;
  connected: boolean;
  take: (score: Score) => void;
}) {
  const [light, changeLight] = useLight("lead", "night");
  const cue = useCue(score);
  const [answer, setAnswer] = useState<Sent | null>(null);
  const [armed, setArmed] = useState("");
  const [panel, setPanel] = useState<Panel>("");
  const leaving = useBlocker(
    ({ nextLocation, currentLocation }) => !cue.over && nextLocation.pathname !== currentLocation.pathname,
  );
  useWakeLock(!cue.over);
  const sound = useSound("lead", score);

  const adjust = useCallback(
    async (press: Press) => {
      try {
        const body = { ...press, key: crypto.randomUUID() };
        const done = await retrying(() => post<Adjusted>(`/classes/${score.class_id}/adjustments`, body));
        take(done.score);
        setAnswer(told(done.answer));
      } catch (error) {
        setAnswer({ words: (error as Error).message, refused: true });
      }
    },
    [score.class_id, take],
  );

  const { strand } = cue;
  const passage = strand ? score.passages[strand.passage - 1] : undefined;
  const groups = strand && passage ? controls(strand, passage, score.slot_ms) : [];
  const breath = strand ? natural(strand) : null;
  const on = strand ? goOn(strand) : null;

  const press = (control: Control) => {
    if (control.twice && armed !== control.id) {
      setArmed(control.id);
      setAnswer({ words: `${control.name}: press again to do it`, refused: false });
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
      leaving.state === "blocked"
    )
      return;
    if (isTyping(event.target)) return;
    const key = event.key.toLowerCase();
    const pedal = pedals[event.key];
    const all = groups.flatMap((g) => g.controls);
    const control =
      pedal === "go-on" ? on : pedal === "pause" ? breath : [...all, on, breath].find((c) => c?.key === key);
    if (control) {
      event.preventDefault();
      setPanel("");
      press(control);
      return;
    }
    const opens = panelOf(event.key);
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
        onRoom={() => setPanel("room")}
        sounds={sound.choice.on}
        onSound={() => setPanel("sound")}
      />
      <Order score={score} cue={cue} />
      <main>
        {cue.over ? (
          <Over score={score} />
        ) : (
          <>
            <Now score={score} cue={cue} />
            <LampSheet score={score} cue={cue} />
            <p className={`answer ${answer?.refused ? "refused" : ""}`} role="status">
              {answer?.words}
            </p>
          </>
        )}
      </main>
      {!cue.over && breath && on && (
        <Controls groups={groups} breath={breath} on={on} armed={armed} onPress={press} onPanel={setPanel} />
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
          <Button variant="outline-secondary" onClick={() => leaving.proceed?.()}>
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

function told(answer: Answer): Sent {
  return { words: inWords(answer), refused: answer.refused !== "" };
}

/** retrying sends once more what the network lost; the key of an adjustment makes it count once. */
async function retrying<T>(send: () => Promise<T>): Promise<T> {
  try {
    return await send();
  } catch (error) {
    if ((error as { status?: number }).status !== 0) throw error;
    await new Promise((wait) => setTimeout(wait, 400));
    return send();
  }
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
      <h1>The class has ended</h1>
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
