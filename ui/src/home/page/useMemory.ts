import { useCallback, useState } from "react";
import { keep, marked, type Marks, type Memory, recall } from "./memory";

/** useMemory is what this device remembers of a page. Where it keeps nothing, it is remembered as long as the page is open. */
export function useMemory(key: string) {
  const [found] = useState(() => (key === "" ? null : recall(key)));
  const [memory, setMemory] = useState<Memory>(found ?? {});
  const [keeps, setKeeps] = useState(found !== null);
  // A page without a key counts no days and remembers nothing.
  const change = useCallback(
    (next: Memory) => {
      if (key === "") return;
      setMemory(next);
      if (found !== null) setKeeps(keep(key, next));
    },
    [found, key],
  );
  return {
    memory,
    /** whether it is still there when the page is opened again */
    keeps,
    mark: (day: string, marks: Marks) => change(marked(memory, day, marks)),
    forget: () => change({}),
  };
}

export type Remembered = ReturnType<typeof useMemory>;
