import { t } from "../language/text";
import { keyName } from "./adjustments";
import { useLetter } from "./usePadKeys";

/** KeyName is the key that is printed on a button; one without a key has none. */
export function KeyName({ of }: { of: string }) {
  return of === "" ? <span /> : <kbd>{printed(of)}</kbd>;
}

/** AcceptKey is the key that accepts what a pad shows: the one that goes on, or Enter where it was switched off. */
export function AcceptKey() {
  const letter = useLetter("go-on");
  return letter === "" ? <kbd>Enter</kbd> : <KeyName of={letter} />;
}

/** printed is what stands on a key. */
export function printed(key: string): string {
  return key === " " ? t("frame.space") : keyName(key);
}
