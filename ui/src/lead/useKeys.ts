import { useLayoutEffect, useRef } from "react";
import { isTyping } from "../frame/editing/fields";

/** Whether the space bar presses a button of a pad that somebody went to with the Tab key. */
function pressesButton({ key, target }: KeyboardEvent): boolean {
  return key === " " && target instanceof HTMLButtonElement && target.closest(".pad") !== null;
}

/** useKeys hears the keys of the page, but for what is typed into a field. pressed tells whether it took the key. */
export function useKeys(pressed: (event: KeyboardEvent) => boolean) {
  const latest = useRef(pressed);
  // In the same moment as the drawing: a key pressed on what is seen must mean what is seen.
  useLayoutEffect(() => {
    latest.current = pressed;
  });
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (!isTyping(event.target) && !pressesButton(event) && latest.current(event)) event.preventDefault();
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
}
