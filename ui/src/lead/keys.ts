import { isPlain, type Pressed } from "../frame/keys/plain";
import type { Control } from "./adjustments";
import { type Keys, letterOf } from "../frame/keys/letters";
import { type Panel, panelsOf } from "./panelKeys";
import type { Way } from "../frame/keys/presses";

/** Keyboard is what keys can mean where the class is. */
export type Keyboard = {
  controls: Control[];
  keys: Keys | undefined;
  panel: Panel; // what is open
  asks: boolean; // whether what is seen and tapped can be said
};

/** Meaning is what a key does: a control that is pressed, a panel that opens, or where a change of tempo reaches. */
export type Meaning = { control: Control } | { opens: Panel } | "reach" | "few" | null;

/** meaningOf is what a key of the keyboard means; null for nothing, so that the browser has it. */
export function meaningOf(pressed: Pressed, at: Keyboard): Meaning {
  if (!isPlain(pressed)) return null;
  const key = pressed.key.toLowerCase();
  if (hasTheKeys(at.panel, key, at.keys)) return null;
  const control = at.controls.find((c) => c.key !== "" && c.key === key);
  if (control) return { control };
  if (key === letterOf("here", at.keys)) return "reach";
  if (key === letterOf("few", at.keys)) return "few";
  const opens = panelsOf(at.asks, at.keys).find((p) => p.key === key)?.panel;
  return opens ? { opens } : null;
}

/** remoteMeaning is what a pedal, or a key of a remote, means when it is pressed in that way. */
export function remoteMeaning(key: string, way: Way, at: Keyboard): Meaning {
  const means = at.keys?.remote.find((r) => r.key === key && r.press === way)?.means;
  if (!means || (at.panel !== "" && means !== "pause")) return null;
  const control = at.controls.find((c) => c.id === means);
  return control ? { control } : null;
}

/** waysOf is how a key of a pedal or a remote can be pressed and mean something. */
export function waysOf(key: string, keys: Keys | undefined): Way[] {
  return (keys?.remote ?? []).filter((r) => r.key === key && r.means !== "none").map((r) => r.press);
}

/** An open panel has the keys, but for natural breath, which is always there, and for no holds beside its cautions. */
function hasTheKeys(panel: Panel, key: string, keys: Keys | undefined): boolean {
  if (panel === "" || key === " ") return false;
  return !(panel === "cautions" && key === letterOf("holds", keys));
}
