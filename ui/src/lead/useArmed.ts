import { useEffect, useState } from "react";

const armedFor = 3000; // ms in which the second press counts

/** useArmed holds the id of the control that was pressed once and must be pressed again; empty for none. */
export function useArmed(): [string, (id: string) => void] {
  const [armed, arm] = useState("");
  useEffect(() => {
    if (armed === "") return;
    const timer = setTimeout(() => arm(""), armedFor);
    return () => clearTimeout(timer);
  }, [armed]);
  return [armed, arm];
}
