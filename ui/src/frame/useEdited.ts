import { useEffect, useState } from "react";

const same = <Shape>(a: Shape, b: Shape) => JSON.stringify(a) === JSON.stringify(b);

/** Typed is a draft, and what it was typed over. */
type Typed<Shape> = { draft: Shape; from: Shape };

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
  /** whether another screen has saved something else meanwhile */
  changedElsewhere: boolean;
  /** whether the draft is of an earlier visit */
  typedBefore: boolean;
  takeStored: () => void;
  /** saved notes that what was sent is stored now; what was typed since stays. */
  saved: (sent: Shape, now: Shape) => void;
  /** leave lets the draft go with the page. */
  leave: () => void;
};

/**
 * useEdited is what is being typed over something that is stored, and outlives the page: who goes elsewhere and comes back finds
 * it. The name tells what is typed. The same read once more, or something newer where nothing was typed, changes nothing for who
 * types; where it was changed elsewhere meanwhile the draft stays, and that is told.
 */
export function useEdited<Shape>(stored: Shape, name: string): Edited<Shape> {
  const [before] = useState(() => typedAt<Shape>(name));
  const [draft, setDraft] = useState(before?.draft ?? stored);
  const [from, setFrom] = useState(before?.from ?? stored);
  const [typedBefore, setTypedBefore] = useState(before !== null);
  const take = (theirs: Shape) => {
    setFrom(theirs);
    setDraft(theirs);
    setTypedBefore(false);
  };
  const newer = !same(stored, from);
  if (newer && (same(draft, from) || same(draft, stored))) take(stored);
  const changed = !same(draft, stored);
  useEffect(() => {
    if (changed) keep(name, { draft, from });
    else forget(name);
  }, [changed, name, draft, from]);
  return {
    draft,
    setDraft,
    changed,
    changedElsewhere: newer && !same(draft, from) && !same(draft, stored),
    typedBefore: typedBefore && changed,
    takeStored: () => take(stored),
    saved: (sent: Shape, now: Shape) => {
      setFrom(now);
      setDraft((typed) => (same(typed, sent) ? now : typed));
      setTypedBefore(false);
    },
    leave: () => forget(name),
  };
}
