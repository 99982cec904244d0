import { useCallback, useLayoutEffect, useRef } from "react";

/** useStable is one function for as long as a component is there, which does what the newest one given does. */
export function useStable<Args extends unknown[]>(act: (...args: Args) => void): (...args: Args) => void {
  const newest = useRef(act);
  useLayoutEffect(() => {
    newest.current = act;
  });
  return useCallback((...args: Args) => newest.current(...args), []);
}
