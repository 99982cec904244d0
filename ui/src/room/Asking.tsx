import "./asking.css";
import "./lanes.css";
import { useRef, useState } from "react";
import { Button } from "react-bootstrap";
import type { Lane } from "../player/lane";
import { post } from "../wire/api";
import type { Asked, RoomAnswer, RoomAnswered } from "../wire/contract";
import { newKey } from "../wire/key";
import { laneTaken, noteAnswered } from "./part";
import { failureText } from "../language/text";

type How = RoomAnswer["how"];

const ways: { [how in How]: string } = { easy: "easy", right: "right", "too-much": "too much" };
const lanes: { [lane in Lane]: string } = { main: "as it was led", beside: "the gentler lane" };

type State = { is: "asking" | "sending" | "counted" | "full" } | { is: "failed"; why: string };

/** Asking is where one who breathed says how it was: one touch, without a name, once from this phone. */
export function Asking({ code, asked }: { code: string; asked: Asked }) {
  const [lane, setLane] = useState(laneTaken);
  const [state, setState] = useState<State>({ is: "asking" });
  const [amount, setAmount] = useState("");
  const ballot = useRef(newKey()); // the same where it is sent again
  const send = async (how: How) => {
    setState({ is: "sending" });
    const answer: RoomAnswer = {
      class_id: asked.class_id,
      how,
      lane: asked.lanes ? lane : "",
      ...(/^\d+$/.test(amount) && Number(amount) > 0 ? { amount: Number(amount) } : {}),
      ballot: ballot.current,
    };
    try {
      const { counted } = await post<RoomAnswered>(`/rooms/${encodeURIComponent(code)}/answers`, answer);
      noteAnswered(asked.class_id);
      setState({ is: counted ? "counted" : "full" });
    } catch (failed) {
      setState({ is: "failed", why: failureText(failed) });
    }
  };
  if (state.is === "counted") return <p role="status">Thank you, your answer was received.</p>;
  if (state.is === "full")
    return (
      <p role="status">Every phone that was here has answered already, so this answer is not counted.</p>
    );
  return (
    <section className="asking" aria-labelledby="asking">
      <h2 id="asking">How was it for you?</h2>
      {asked.lanes && (
        <div className="lanes" role="radiogroup" aria-label="Which breath you took">
          {(Object.keys(lanes) as Lane[]).map((id) => (
            <button
              type="button"
              key={id}
              role="radio"
              aria-checked={lane === id}
              onClick={() => setLane(id)}
            >
              {lanes[id]}
            </button>
          ))}
        </div>
      )}
      {asked.counted !== "" && (
        <label className="amount">
          How many {asked.counted} did you count? (optional)
          <input
            inputMode="numeric"
            maxLength={4}
            value={amount}
            onChange={(e) => setAmount(e.target.value.replace(/\D/g, ""))}
          />
        </label>
      )}
      <div className="ways">
        {(Object.keys(ways) as How[]).map((how) => (
          <Button
            key={how}
            size="lg"
            variant="outline-primary"
            disabled={state.is === "sending"}
            onClick={() => void send(how)}
          >
            {ways[how]}
          </Button>
        ))}
      </div>
      {state.is === "failed" && <p role="alert">{state.why} It was not counted: touch again.</p>}
      <p className="small">
        Only sums are stored: no name, and nothing about this phone. You do not have to answer.
      </p>
    </section>
  );
}
