import { useCallback, useEffect, useRef, useState } from "react";
import { type Heard, type Microphone, openMicrophone } from "./microphone";
import type { Ask } from "./told";
import { NoMicrophone, type Trouble } from "./trouble";

/** Hearing is whether this screen listens. "elsewhere" is that another screen has begun to. */
export type Hearing =
  | { is: "off" }
  | { is: "asking" }
  | { is: "on"; name: string; late: number; changed: boolean }
  | { is: "trouble"; trouble: Trouble | "elsewhere" };

/** useMicrophone opens the microphone when it is asked to, and closes it with the view. */
export function useMicrophone(onHeard: (heard: Heard) => void, source?: () => MediaStream) {
  const [hearing, setHearing] = useState<Hearing>({ is: "off" });
  const open = useRef<Microphone | null>(null);
  const turn = useRef(0); // of the opening that counts: one that was asked for later, or the end, overtakes it

  const close = useCallback((then: Hearing) => {
    turn.current++;
    open.current?.end();
    open.current = null;
    setHearing(then);
  }, []);

  const listen = useCallback(
    (device: string) => {
      const attempt = async (name: string, changed: boolean): Promise<boolean> => {
        close({ is: "asking" });
        const mine = turn.current;
        // A microphone that is unplugged gives way to the usual one.
        const onLost = () => {
          if (turn.current !== mine) return;
          void attempt("", true).then((found) => {
            if (!found && turn.current === mine + 1) close({ is: "trouble", trouble: "lost" });
          });
        };
        try {
          const microphone = await openMicrophone({ device: name, source, onTold: onHeard, onLost });
          if (turn.current !== mine) {
            microphone.end();
            return false;
          }
          open.current = microphone;
          setHearing({ is: "on", name: microphone.name, late: microphone.late, changed });
          return true;
        } catch (error) {
          if (turn.current === mine)
            setHearing({
              is: "trouble",
              trouble: error instanceof NoMicrophone ? error.trouble : "unsupported",
            });
          return false;
        }
      };
      return attempt(device, false);
    },
    [close, onHeard, source],
  );

  useEffect(
    () => () => {
      turn.current++;
      open.current?.end();
      open.current = null;
    },
    [],
  );

  return {
    hearing,
    /** start opens a microphone, the usual one where the name is empty, and tells whether it could */
    start: listen,
    stop: useCallback(() => close({ is: "off" }), [close]),
    yield: useCallback(() => close({ is: "trouble", trouble: "elsewhere" }), [close]),
    listensFor: useCallback((ask: Ask) => open.current?.listensFor(ask), []),
  };
}
