import { useState } from "react";

const same = <Shape>(a: Shape, b: Shape) => JSON.stringify(a) === JSON.stringify(b);

/**
 * useEdited is what is being typed over something that is stored. The same read once more, or something newer where nothing was
 * typed, changes nothing for who types; where it was changed elsewhere meanwhile the draft stays, and that is told.
 */
export function useEdited<Shape>(stored: Shape) {
  const [draft, setDraft] = useState(stored);
  const [from, setFrom] = useState(stored);
  const take = (theirs: Shape) => {
    setFrom(theirs);
    setDraft(theirs);
  };
  const newer = !same(stored, from);
  if (newer && (same(draft, from) || same(draft, stored))) take(stored);
  return {
    draft,
    setDraft,
    changed: !same(draft, stored),
    changedElsewhere: newer && !same(draft, from) && !same(draft, stored),
    takeTheirs: () => take(stored),
    /** saved notes that what was sent is stored now; what was typed since stays. */
    saved: (sent: Shape, now: Shape) => {
      setFrom(now);
      setDraft((typed) => (same(typed, sent) ? now : typed));
    },
  };
}
