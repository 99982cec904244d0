import { useEffect, useState } from "react";
import { differences, merge, withAt, type Difference, type Path } from "./merge";

const same = <Shape>(a: Shape, b: Shape) => JSON.stringify(a) === JSON.stringify(b);

/** Versions is what was typed here and what another screen saved meanwhile, over what both began with. */
type Versions<Shape> = { base: Shape; mine: Shape; theirs: Shape };

/** Typed is a draft, what it was typed over, and what it has to be compared with. */
type Typed<Shape> = { draft: Shape; from: Shape; versions: Versions<Shape> | null };

// In the tab, and not in the browser: a group's conditions are not for whoever sits down next.
const place = (name: string) => `typed:${name}`;

function typedAt<Shape>(name: string): Typed<Shape> | null {
  try {
    return JSON.parse(sessionStorage.getItem(place(name)) ?? "null") as Typed<Shape> | null;
  } catch {
    return null;
  }
}

function keep<Shape>(name: string, typed: Typed<Shape>): void {
  try {
    sessionStorage.setItem(place(name), JSON.stringify(typed));
  } catch {
    // no room: what is typed is still on the screen and can be saved from there
  }
}

const forget = (name: string) => sessionStorage.removeItem(place(name));

/** wasTyped tells whether something that was typed under the name is not saved yet. */
export const wasTyped = (name: string) => typedAt(name) !== null;

export type Edited<Shape> = {
  draft: Shape;
  setDraft: (draft: Shape) => void;
  changed: boolean;
  /** what another screen changed meanwhile, with what was typed here */
  differences: Difference[];
  /** choose puts one of the two values of a difference into the draft. */
  choose: (path: Path, value: unknown) => void;
  /** whether the draft is of an earlier visit */
  typedBefore: boolean;
  takeStored: () => void;
  /** saved notes that what was sent is stored now; what was typed since stays. */
  saved: (sent: Shape, now: Shape) => void;
  /** leave lets the draft go with the page. */
  leave: () => void;
};

/**
 * useEdited is what is being typed over something that is stored, and survives navigation: who leaves the page and comes back finds
 * it. The name tells what is typed. The same read once more, or something newer where nothing was typed, changes nothing for who
 * types. Where another screen changed it meanwhile the draft takes over what was changed only there; what was typed here stays, and
 * both are told, to choose from.
 */
export function useEdited<Shape>(stored: Shape, name: string): Edited<Shape> {
  const [before] = useState(() => typedAt<Shape>(name));
  const [draft, setDraft] = useState(before?.draft ?? stored);
  const [from, setFrom] = useState(before?.from ?? stored);
  const [versions, setVersions] = useState(before?.versions ?? null);
  const [replaced, setReplaced] = useState<Shape | null>(null); // by what was saved here, though it may be shown for a moment
  const [typedBefore, setTypedBefore] = useState(before !== null);
  const take = (theirs: Shape) => {
    setFrom(theirs);
    setDraft(theirs);
    setVersions(null);
    setTypedBefore(false);
  };
  const newer = !same(stored, from) && !(replaced !== null && same(stored, replaced));
  if (newer && (same(draft, from) || same(draft, stored))) take(stored);
  else if (newer) {
    setVersions({ base: versions?.base ?? from, mine: versions?.mine ?? draft, theirs: stored });
    setDraft(merge(from, draft, stored));
    setFrom(stored);
  }
  const changed = !same(draft, from);
  useEffect(() => {
    if (changed) keep(name, { draft, from, versions });
    else forget(name);
  }, [changed, name, draft, from, versions]);
  return {
    draft,
    setDraft,
    changed,
    differences: versions ? differences(versions.base, versions.mine, versions.theirs) : [],
    choose: (path: Path, value: unknown) => setDraft(withAt(draft, path, value)),
    typedBefore: typedBefore && changed,
    takeStored: () => take(stored),
    saved: (sent: Shape, now: Shape) => {
      setReplaced(stored);
      setFrom(now);
      setDraft((typed) => (same(typed, sent) ? now : merge(sent, typed, now)));
      setVersions(null);
      setTypedBefore(false);
    },
    leave: () => forget(name),
  };
}
