import type { Microphone } from "../ear/microphone";
import { NoMicrophone } from "../ear/trouble";

/** openMicrophone says that the page to try listens to nobody: it is one file, and a microphone is heard by another. */
export function openMicrophone(): Promise<Microphone> {
  return Promise.reject(new NoMicrophone("try-out"));
}
