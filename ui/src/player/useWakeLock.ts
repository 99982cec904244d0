import { useEffect } from "react";

/** canStayAwake tells whether this page can keep the screen awake. On plain http from another machine no page can. */
export function canStayAwake(): boolean {
  return "wakeLock" in navigator;
}

/** mayGoDark is what to say where it cannot. */
export const mayGoDark =
  "This browser cannot keep the screen awake at this address. Before class, set the display to stay on.";

/** useWakeLock keeps the screen awake. Where the browser cannot, or may not just now, the class runs all the same. */
export function useWakeLock(wanted: boolean) {
  useEffect(() => {
    if (!wanted || !canStayAwake()) return;
    let lock: WakeLockSentinel | undefined;
    const ask = () => {
      if (document.visibilityState !== "visible") return;
      navigator.wakeLock.request("screen").then(
        (granted) => (lock = granted),
        () => undefined,
      );
    };
    ask();
    document.addEventListener("visibilitychange", ask); // a hidden page loses it
    return () => {
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, [wanted]);
}
