import type { Settings } from "../wire/contract";
import { type Control, type Group, pedalled } from "./adjustments";
import { type Panel, panelsOf } from "./panelKeys";

/** Pressed is what a key event tells. */
export type Pressed = Pick<KeyboardEvent, "key" | "repeat" | "ctrlKey" | "metaKey" | "altKey">;

/** Keyboard is what keys can mean where the class is. */
export type Keyboard = {
  controls: Control[];
  groups: Group[];
  pedals: Pick<Settings, "pedal_down" | "pedal_up"> | undefined;
  panel: Panel; // what is open
  live: boolean;
};

/** Meaning is what a key does: a control that is pressed, or a panel that opens. */
export type Meaning = { control: Control } | { opens: Panel } | null;

/** meaningOf is what a key means; null for nothing, so that the browser has it. */
export function meaningOf(pressed: Pressed, at: Keyboard): Meaning {
  if (pressed.repeat || pressed.ctrlKey || pressed.metaKey || pressed.altKey) return null;
  const key = pressed.key.toLowerCase();
  // An open panel has the keys, but for natural breath, which is always there, and for no holds beside its cautions.
  if (at.panel !== "" && key !== " " && !(at.panel === "cautions" && key === "g")) return null;
  const pedal = { PageDown: at.pedals?.pedal_down, PageUp: at.pedals?.pedal_up }[pressed.key];
  const id = pedal ? pedalled(pedal, at.groups) : undefined;
  const control = at.controls.find((c) => (id ? c.id === id : c.key === key));
  if (control) return { control };
  const opens = panelsOf(at.live).find((p) => p.key === key)?.panel;
  return opens ? { opens } : null;
}
