import { useEffect, useState } from "react";
import type { Say } from "./say";

/** Awake is whether the screen is kept on: it is, a touch is needed first (browsers ask for one), or it cannot be. */
export type Awake = "awake" | "touch" | "cannot";

/** awakeText is what to say where the screen may go dark; empty where it stays on. */
export function awakeText(awake: Awake, say: Say): string {
  return awake === "awake" ? "" : say(`awake-${awake}`);
}

/**
 * useAwake keeps the screen on. On plain http from another machine there is no wake lock: a film without a picture or sound,
 * which phones do not go to sleep over, is the way there.
 */
export function useAwake(wanted: boolean): Awake {
  const [awake, setAwake] = useState<Awake>("wakeLock" in navigator ? "awake" : "touch");
  useEffect(() => {
    if (!wanted) return;
    return "wakeLock" in navigator ? keepLock() : keepFilm(setAwake);
  }, [wanted]);
  return awake;
}

function keepLock(): () => void {
  let lock: WakeLockSentinel | undefined;
  const ask = () => {
    if (document.visibilityState !== "visible") return;
    navigator.wakeLock.request("screen").then(
      (granted) => (lock = granted),
      () => undefined, // it may not be given at the moment: the class runs all the same
    );
  };
  ask();
  document.addEventListener("visibilitychange", ask); // a hidden page loses it
  return () => {
    document.removeEventListener("visibilitychange", ask);
    void lock?.release();
  };
}

function keepFilm(found: (awake: Awake) => void): () => void {
  let gone = false;
  let film: { enabled: boolean; enable(): unknown; disable(): void } | undefined;
  const touched = async () => {
    if (!film || film.enabled) return;
    await film.enable(); // within the touch: a browser plays nothing by itself
    if (!gone) found(film.enabled ? "awake" : "touch");
  };
  const shown = () => {
    if (document.visibilityState === "visible" && film?.enabled) void film.enable(); // a hidden page stops it
  };
  const listen = () => void touched();
  import("@zakj/no-sleep").then(
    ({ default: NoSleep }) => {
      if (gone) return;
      film = new NoSleep();
      // It shows nothing: a screen reader must not tell of it.
      document.querySelector(`video[title="No Sleep"]`)?.setAttribute("aria-hidden", "true");
    },
    () => found("cannot"),
  );
  addEventListener("pointerup", listen);
  addEventListener("keydown", listen);
  document.addEventListener("visibilitychange", shown);
  return () => {
    gone = true;
    removeEventListener("pointerup", listen);
    removeEventListener("keydown", listen);
    document.removeEventListener("visibilitychange", shown);
    film?.disable();
  };
}
