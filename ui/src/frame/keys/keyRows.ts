import type { Settings } from "../../wire/contract";
import { cardText, keyed, letterOf } from "./letters";
import type { Way } from "./presses";
import { t, text } from "../../language/text";

const ways = (): { [way in Way]: string } => ({ short: "", long: t("frame.long"), double: t("frame.twice") });

const names = (): { [key: string]: string } => ({
  PageDown: t("frame.page-down"),
  PageUp: t("frame.page-up"),
  ArrowRight: "→",
  ArrowLeft: "←",
  ArrowUp: "↑",
  ArrowDown: "↓",
  " ": t("frame.space"),
});

/** remoteName is the name of a key of a pedal or a remote, as it is printed on one. */
export function remoteName(key: string): string {
  return names()[key] ?? (key.length === 1 ? key.toUpperCase() : key);
}

/** rowsOf is every key and what it does, as on the card of keys. */
export function rowsOf(settings: Settings | undefined): [string, string][] {
  const means = (id: string) => text(settings?.meanings?.find((way) => way.id === id)?.says);
  const letters = keyed.flatMap(({ id }): [string, string][] => {
    const key = letterOf(id, settings?.keys);
    return key === "" ? [] : [[key.toUpperCase(), cardText(id)]];
  });
  const remote = (settings?.keys.remote ?? []).filter((r) => r.means !== "none");
  return [
    [names()[" "]!, cardText("pause")],
    ...letters,
    ["?", t("frame.the-card-of-keys")],
    ...remote.map((r): [string, string] => [`${remoteName(r.key)}${ways()[r.press]}`, means(r.means)]),
  ];
}
