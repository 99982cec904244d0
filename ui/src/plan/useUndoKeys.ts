import { useEffect } from "react";
import { isTyping } from "../frame/editing/fields";
import type { Editor } from "./usePlanEditor";

/** useUndoKeys undoes and does again where no field is being typed in, which has its own. */
export function useUndoKeys({ undo, redo }: Editor) {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (isTyping(event.target) || !(event.ctrlKey || event.metaKey)) return;
      const key = event.key.toLowerCase();
      const act = key === "y" || (key === "z" && event.shiftKey) ? redo : key === "z" ? undo : undefined;
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, [undo, redo]);
}
