import "./asking.css";
import "./lanes.css";
import { useRef, useState } from "react";
import { Button } from "react-bootstrap";
import type { Lane } from "../player/lane";
import { post } from "../wire/api";
import type { Asked, RoomAnswer, RoomAnswered } from "../wire/contract";
import { newKey } from "../wire/key";
import { laneTaken, noteAnswered } from "./part";
import { useSay, useTag } from "../player/say";
import { failureText } from "../language/text";

type How = RoomAnswer["how"];

const ways: How[] = ["easy", "right", "too-much"];
const lanes = { main: "asked-main", beside: "asked-beside" } as const;

type State = { is: "asking" | "sending" | "counted" | "full" } | { is: "failed"; why: string };

/** Asking is where one who breathed says how it was: one touch, without a name, once from this phone. */
export function Asking({ code, asked }: { code: string; asked: Asked }) {
  const say = useSay();
  const tag = useTag();
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
      setState({ is: "failed", why: tag === "en" ? failureText(failed) : "" });
    }
  };
  if (state.is === "counted") return <p role="status">{say("answered")}</p>;
  if (state.is === "full") return <p role="status">{say("answered-full")}</p>;
  return (
    <section className="asking" aria-labelledby="asking">
      <h2 id="asking">{say("asked")}</h2>
      {asked.lanes && (
        <div className="lanes" role="radiogroup" aria-label={say("asked-lane")}>
          {(Object.keys(lanes) as Lane[]).map((id) => (
            <button
              type="button"
              key={id}
              role="radio"
              aria-checked={lane === id}
              onClick={() => setLane(id)}
            >
              {say(lanes[id])}
            </button>
          ))}
        </div>
      )}
      {asked.counted !== "" && (
        <label className="amount">
          {say("asked-count", { of: asked.counted })}
          <input
            inputMode="numeric"
            maxLength={4}
            value={amount}
            onChange={(e) => setAmount(e.target.value.replace(/\D/g, ""))}
          />
        </label>
      )}
      <div className="ways">
        {ways.map((how) => (
          <Button
            key={how}
            size="lg"
            variant="outline-primary"
            disabled={state.is === "sending"}
            onClick={() => void send(how)}
          >
            {say(how)}
          </Button>
        ))}
      </div>
      {state.is === "failed" && <p role="alert">{say("answer-failed", { why: state.why }).trim()}</p>}
      <p className="small">{say("only-sums")}</p>
    </section>
  );
}
