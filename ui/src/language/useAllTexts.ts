import { useEffect, useState } from "react";
import { inUse, readAll } from "./catalogue";

/** useAllTexts loads the texts that Today does without, and tells when they are there, or cannot be had. */
export function useAllTexts(): boolean {
  const [ready, setReady] = useState(() => inUse().whole);
  useEffect(() => {
    const done = () => setReady(true);
    if (!ready) readAll().then(done, done);
  }, [ready]);
  return ready;
}
