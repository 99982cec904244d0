import "./asking.css";
import { useEffect, useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { now } from "../player/clock";
import { post } from "../wire/api";
import type { CheckInAnswer, CheckInAsked, RoomAnswered } from "../wire/contract";
import { newKey } from "../wire/key";
import { failureText, wordOf } from "../language/text";
import { noteChecked, wasChecked } from "./part";

type State = { is: "asking" | "sending" | "counted" | "full" | "left-out" } | { is: "failed"; why: string };

/** CheckIn is one question before or after a class, answered in one touch, without a name. It goes when its time is over. */
export function CheckIn({ code, asked }: { code: string; asked: CheckInAsked }) {
  const [state, setState] = useState<State>({
    is: wasChecked(asked.id, asked.after) ? "left-out" : "asking",
  });
  const open = useOpen(asked.until_ms);
  const ballot = useRef(newKey()); // the same where it is sent again
  const send = async (answer: string) => {
    setState({ is: "sending" });
    const body: CheckInAnswer = { id: asked.id, after: asked.after, answer, ballot: ballot.current };
    try {
      const { counted } = await post<RoomAnswered>(`/rooms/${encodeURIComponent(code)}/check-in`, body);
      noteChecked(asked.id, asked.after);
      setState({ is: counted ? "counted" : "full" });
    } catch (failed) {
      setState({ is: "failed", why: failureText(failed) });
    }
  };
  if (state.is === "left-out" || (!open && state.is !== "counted")) return null;
  if (state.is === "counted") return <p role="status">Thank you, your answer was received.</p>;
  if (state.is === "full")
    return <p role="status">Every phone that is here has answered already, so this answer is not counted.</p>;
  return (
    <section className={`asking checkin ${asked.question}`} aria-labelledby="checkin">
      <p className="part">{asked.after ? "After class" : "Before class"}</p>
      <h2 id="checkin">{wordOf("check-in.question", asked.question)}</h2>
      <div className="ways">
        {asked.answers.map((answer) => (
          <Button
            key={answer}
            size="lg"
            variant="outline-primary"
            disabled={state.is === "sending"}
            aria-label={wordOf(`check-in.${asked.question}`, answer)}
            onClick={() => void send(answer)}
          >
            {asked.question === "calm" ? answer : wordOf("check-in.side", answer)}
          </Button>
        ))}
      </div>
      {asked.question === "calm" && (
        <p className="ends" aria-hidden>
          <span>{wordOf("check-in", "calm-least")}</span>
          <span>{wordOf("check-in", "calm-most")}</span>
        </p>
      )}
      {state.is === "failed" && <p role="alert">{state.why} It was not counted: touch again.</p>}
      <p className="small">
        Only sums are stored: no name, and nothing about this phone. You do not have to answer.{" "}
        <Button
          variant="link"
          size="sm"
          onClick={() => {
            noteChecked(asked.id, asked.after);
            setState({ is: "left-out" });
          }}
        >
          Not now
        </Button>
      </p>
    </section>
  );
}

/** useOpen tells whether a moment has not come yet. */
function useOpen(until: number): boolean {
  const [passed, setPassed] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setPassed(now() >= until ? until : 0), 500);
    return () => clearInterval(timer);
  }, [until]);
  return passed !== until;
}
