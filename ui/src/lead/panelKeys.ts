/** Panel is what is opened in the place of the keys, if anything. */
export type Panel = "" | "keys" | "room" | "sound" | "cautions" | "note" | "seen" | "tap" | "counts";

/** The panels, each with its key and its name, in the order of their buttons. */
const panels: { key: string; panel: Panel; name: string }[] = [
  { key: "1", panel: "seen", name: "Seen" },
  { key: "2", panel: "tap", name: "Tap" },
  { key: "4", panel: "counts", name: "Counts" },
  { key: "b", panel: "note", name: "Note" },
  { key: "t", panel: "cautions", name: "Care" },
  { key: "?", panel: "keys", name: "Keys" },
];

/** What needs a class that is really led. */
const ofAClass: Panel[] = ["seen", "tap", "room"];

export function panelsOf(live: boolean): typeof panels {
  return live ? panels : panels.filter((p) => !ofAClass.includes(p.panel));
}
