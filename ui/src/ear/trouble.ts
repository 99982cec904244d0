/**
 * Trouble is why nothing can be heard: a page that the browser does not trust with a microphone, a browser that cannot do it, no
 * microphone, not allowed, used by something else, unplugged while it was heard, or the page to try, which has none.
 */
export type Trouble = "insecure" | "unsupported" | "none" | "denied" | "busy" | "lost" | "try-out";

/** NoMicrophone says why there is no microphone. */
export class NoMicrophone extends Error {
  constructor(readonly trouble: Trouble) {
    super(trouble);
  }
}
