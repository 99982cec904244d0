import { useEffect, useLayoutEffect, useRef } from "react";
import { isTyping } from "../editing/fields";
import { isPlain } from "./plain";
import { Presses, type Way } from "./presses";

type Heard = {
  /** the ways of pressing the key that mean something */
  wants: (key: string) => Way[];
  /** whether a short press of the key is told as it goes down, though it can be pressed in other ways */
  atOnce?: (key: string) => boolean;
  pressed: (key: string, way: Way) => void;
};

/** usePresses hears pedals and remotes, which send keys: short presses, long ones and two. */
export function usePresses(heard: Heard) {
  const latest = useRef(heard);
  useLayoutEffect(() => {
    latest.current = heard;
  });
  useEffect(() => {
    const presses = new Presses(
      (key) => latest.current.wants(key),
      (key, way) => latest.current.pressed(key, way),
      (key) => latest.current.atOnce?.(key) ?? false,
    );
    const down = (event: KeyboardEvent) => {
      if (isTyping(event.target) && event.key.length === 1) return;
      if (latest.current.wants(event.key).length === 0) return;
      event.preventDefault(); // nothing scrolls
      if (isPlain(event)) presses.press(event.key);
    };
    const up = (event: KeyboardEvent) => presses.release(event.key);
    window.addEventListener("keydown", down);
    window.addEventListener("keyup", up);
    return () => {
      presses.stop();
      window.removeEventListener("keydown", down);
      window.removeEventListener("keyup", up);
    };
  }, []);
}
