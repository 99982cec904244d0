import "./asking.css";
import { useEffect, useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { now } from "../player/clock";
import { post } from "../wire/api";
import type { CheckInAnswer, CheckInAsked, RoomAnswered } from "../wire/contract";
import { newKey } from "../wire/key";
import { answerText, questionText } from "../player/checkIn";
import { useSay, useTag } from "../player/say";
import { failureText } from "../language/text";
import { noteChecked, wasChecked } from "./part";

type State = { is: "asking" | "sending" | "counted" | "full" | "left-out" } | { is: "failed"; why: string };

/** CheckIn is one question before or after a class, answered in one touch, without a name. It goes when its time is over. */
export function CheckIn({ code, asked }: { code: string; asked: CheckInAsked }) {
  const [state, setState] = useState<State>({
    is: wasChecked(asked.id, asked.after) ? "left-out" : "asking",
  });
  const open = useOpen(asked.until_ms);
  const say = useSay();
  const tag = useTag();
  const ballot = useRef(newKey()); // the same where it is sent again
  const send = async (answer: string) => {
    setState({ is: "sending" });
    const body: CheckInAnswer = { id: asked.id, after: asked.after, answer, ballot: ballot.current };
    try {
      const { counted } = await post<RoomAnswered>(`/rooms/${encodeURIComponent(code)}/check-in`, body);
      noteChecked(asked.id, asked.after);
      setState({ is: counted ? "counted" : "full" });
    } catch (failed) {
      setState({ is: "failed", why: tag === "en" ? failureText(failed) : "" });
    }
  };
  if (state.is === "left-out" || (!open && state.is !== "counted")) return null;
  if (state.is === "counted") return <p role="status">{say("answered")}</p>;
  if (state.is === "full") return <p role="status">{say("answered-full")}</p>;
  return (
    <section className={`asking checkin ${asked.question}`} aria-labelledby="checkin">
      <p className="part">{say(asked.after ? "after-class" : "before-class")}</p>
      <h2 id="checkin">{questionText(asked.question, say)}</h2>
      <div className="ways">
        {asked.answers.map((answer) => (
          <Button
            key={answer}
            size="lg"
            variant="outline-primary"
            disabled={state.is === "sending"}
            aria-label={answerText(answer, say)}
            onClick={() => void send(answer)}
          >
            {asked.question === "calm" ? answer : answerText(answer, say)}
          </Button>
        ))}
      </div>
      {asked.question === "calm" && (
        <p className="ends" aria-hidden>
          <span>{say("calm-least")}</span>
          <span>{say("calm-most")}</span>
        </p>
      )}
      {state.is === "failed" && <p role="alert">{say("answer-failed", { why: state.why }).trim()}</p>}
      <p className="small">
        {say("only-sums")}{" "}
        <Button
          variant="link"
          size="sm"
          onClick={() => {
            noteChecked(asked.id, asked.after);
            setState({ is: "left-out" });
          }}
        >
          {say("not-now")}
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
