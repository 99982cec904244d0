import { signalsQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import type { Adjust, Signal } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import type { Advised, Asks } from "./desk";
import { Pad } from "./Pad";
import { AcceptKey } from "./KeyName";
import { useAccepts, useLetter, usePadKeys } from "./usePadKeys";
import { t, text } from "../language/text";

/** The keys of the pad, under the left hand, in the order of the signals. */
const keys = ["q", "w", "e", "r", "t", "a", "s", "d", "f", "g", "z", "x", "c", "v", "b"];

/** useSignals is what can be seen. The lead screen asks for it before the pad is opened: then its keys are there at once. */
export function useSignals() {
  return useQuery(signalsQuery);
}

type Props = {
  asks: Asks;
  /** the signals that the passage can show */
  signs: string[];
  /** what is breathed now */
  phase: string;
  onAdjust: (press: Omit<Adjust, "key">) => Promise<void>;
  /** opens the pad that listens: on a phone its key is here */
  onListen: () => void;
  onClose: () => void;
};

/** SeenPad: one key says what was seen, the proposal is shown with its effect, one key more takes it. */
export function SeenPad({ asks, signs, phase, onAdjust, onListen, onClose }: Props) {
  const signals = useSignals();
  const [when] = useState(phase); // the buttons keep their places while the pad is open
  const [all, setAll] = useState(false);
  const listed = (signals.data ?? []).map((signal, i) => ({ signal, key: keys[i] ?? "" }));
  const fitting = listed.filter(({ signal }) => signs.includes(signal.id));
  const now = fitting.filter(({ signal }) => signal.with.includes(when as never));
  const shown = [
    ...now,
    ...fitting.filter((one) => !now.includes(one)),
    ...(all ? listed.filter((one) => !fitting.includes(one)) : []),
  ];
  const hidden = listed.length - fitting.length;
  const [proposed, setProposed] = useState<Advised | null>(null);
  const [error, setError] = useState<Error | null>(null);

  const saw = (signal: Signal) => {
    const onSlow = () => setError(new Error(t("lead.not-sent-yet")));
    asks
      .saw(signal.id, onSlow)
      .then((answer) => {
        setError(null);
        setProposed(answer);
      })
      .catch(setError);
  };
  const accept = () => {
    const all = proposed?.do ?? [];
    onClose();
    void (async () => {
      for (const one of all) await onAdjust(one); // the order is part of the proposal
    })();
  };
  const lane = () => {
    const one = proposed?.lane;
    onClose();
    if (one) void onAdjust(one);
  };
  const accepts = useAccepts();
  const listens = useLetter("ear");
  usePadKeys((key) => {
    if (!proposed) {
      const pressed = shown.find((one) => one.key === key);
      if (pressed) saw(pressed.signal);
      else if (key === listens) onListen();
      else if (key === "1" && hidden > 0 && !all) setAll(true);
      else return false;
      return true;
    }
    if (key === "6" && proposed.lane) lane();
    else if (accepts(key)) accept();
    else if (key === "1" || key === "PageUp") onClose();
    else return false;
    return true;
  });
  return (
    <Pad title={proposed ? t("lead.what-to-do") : t("lead.what-do-you-see")} onClose={onClose}>
      {error && <ErrorAlert error={error} />}
      {!proposed && (
        <Button variant="link" className="p-0 text-start" onClick={onListen}>
          {listens !== "" && <kbd>{listens.toUpperCase()}</kbd>} {t("lead.listen-to-the-room")}
        </Button>
      )}
      {proposed ? (
        <p className="proposal" role="status">
          {text(proposed.say)}
        </p>
      ) : (
        <div className="signals">
          {shown.map(({ signal, key }) => (
            <Button key={signal.id} variant="outline-secondary" onClick={() => saw(signal)}>
              <kbd>{key.toUpperCase()}</kbd> {text(signal.name)}
            </Button>
          ))}
          {hidden > 0 && !all && (
            <Button variant="link" onClick={() => setAll(true)}>
              <kbd>1</kbd> {t("lead.more-2", { hidden })}
            </Button>
          )}
        </div>
      )}
      {proposed && (
        <footer>
          <Button variant="outline-secondary" size="lg" onClick={onClose}>
            <kbd>1</kbd> {proposed.do.length > 0 ? t("frame.cancel") : t("lead.close")}
          </Button>
          {proposed.lane && (
            <Button variant="outline-primary" size="lg" onClick={lane}>
              <kbd>6</kbd> {t("lead.only-some-a-gentler-lane")}
            </Button>
          )}
          {proposed.do.length > 0 && (
            <Button size="lg" onClick={accept}>
              <AcceptKey /> {t("lead.do-it")}
            </Button>
          )}
        </footer>
      )}
    </Pad>
  );
}
