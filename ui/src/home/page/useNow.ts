import { useEffect, useState } from "react";

const every = 20_000; // ms

/** useNow is the time by this device, to the minute: a page that stays open over night knows its day in the morning. */
export function useNow(): Date {
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    const look = () =>
      setNow((old) => {
        const at = new Date();
        return Math.floor(old.getTime() / 60_000) === Math.floor(at.getTime() / 60_000) ? old : at;
      });
    const timer = setInterval(look, every);
    document.addEventListener("visibilitychange", look);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", look);
    };
  }, []);
  return now;
}
