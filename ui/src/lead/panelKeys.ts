import { type Keys, letterOf } from "../frame/keys/letters";
import { text } from "../language/text";

/** Panel is what is opened in the place of the keys, if anything; leave, gap and two-classes are questions that open by themselves. */
export type Panel =
  | ""
  | "leave"
  | "gap"
  | "two-classes"
  | "keys"
  | "room"
  | "sound"
  | "cautions"
  | "note"
  | "seen"
  | "tap"
  | "ear"
  | "counts";

/** The panels in the order of their buttons. */
const panels: Panel[] = ["seen", "tap", "ear", "counts", "note", "cautions", "keys"];

/** What needs somebody who answers: not in a try-out. */
const ofAClass: Panel[] = ["seen", "tap", "ear", "room"];

/** What is of no use once the class is over. */
export const whileLed: Panel[] = ["seen", "tap", "ear", "counts", "note", "cautions"];

/** panelsOf is the panels with their keys; the card of keys is always on the question mark. */
export function panelsOf(
  asks: boolean,
  keys: Keys | undefined,
): { key: string; panel: Panel; name: string }[] {
  return panels
    .filter((panel) => asks || !ofAClass.includes(panel))
    .map((panel) => ({
      panel,
      name: text({ id: `control.${panel}` }),
      key: panel === "keys" ? "?" : letterOf(panel, keys),
    }));
}
