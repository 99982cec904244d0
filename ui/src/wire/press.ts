import { Failed, post } from "./api";
import { newKey } from "./key";

const patience = 3000; // ms until a press that is not answered is sent once more
const meant = 5000; // ms for which a press is meant: later it would surprise the room
const pause = 400; // ms before it is sent once more

const notSent = { say: { id: "web.not-sent" } };

type Sending = {
  /** is told what is to be said while there is no answer */
  onSlow: () => void;
  /** whether it is worth something later too, as a note is, which has the moment of the press */
  keep?: boolean;
  /** its own name, where the same press may come from elsewhere too */
  key?: string;
};

/** Timed is a press with its moment on the application's clock. */
type Timed = { pressed_ms: number; [field: string]: unknown };

/**
 * press sends a press with its moment, and again where it is not answered: its key makes it count once. One that has not
 * arrived while it is meant is given up, and the error says so.
 */
export async function press<Out>(
  path: string,
  body: Timed,
  { onSlow, keep, key = newKey() }: Sending,
): Promise<Out> {
  const made = performance.now();
  const sent = { ...body, key };
  for (;;) {
    const left = keep ? patience : meant - (performance.now() - made);
    if (left <= 0) throw new Failed(notSent, 0);
    try {
      return await post<Out>(path, sent, AbortSignal.timeout(Math.min(patience, left)));
    } catch (error) {
      if (error instanceof Failed && error.status !== 0) throw error; // it was answered
      onSlow();
      await new Promise((wait) => setTimeout(wait, pause));
    }
  }
}
