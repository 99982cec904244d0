import { useEffect } from "react";

/** useWakeLock keeps the screen awake. Where the browser cannot, or may not just now, the class runs all the same. */
export function useWakeLock(wanted: boolean) {
  useEffect(() => {
    if (!wanted || !("wakeLock" in navigator)) return;
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
