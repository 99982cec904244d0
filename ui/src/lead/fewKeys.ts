import { useState } from "react";
import type { Control, Group } from "./adjustments";

const stored = "lead:few";

/** useFewKeys is whether this device shows few keys, and how to change that. It is off until somebody chooses it. */
export function useFewKeys(): [boolean, () => void] {
  const [few, setFew] = useState(() => localStorage.getItem(stored) === "yes");
  const change = () => {
    localStorage.setItem(stored, few ? "no" : "yes");
    setFew(!few);
  };
  return [few, change];
}

/** fewOf is what a hand needs of the keys: undo, and what ends or calls back where the class is. */
export function fewOf(groups: Group[]): Control[] {
  return groups.flatMap((group) => group.controls).filter(isNeeded);
}

function isNeeded({ id, met, press }: Control): boolean {
  return id === "undo" || (met && (id === "release" || id === "breathed" || press.do === "recall"));
}
