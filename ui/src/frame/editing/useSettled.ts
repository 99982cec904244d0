import { useEffect, useState } from "react";

/** useSettled is the value as it was when nothing had changed for the pause, in ms: what is worth asking about. */
export function useSettled<Value>(value: Value, pause: number): Value {
  const [settled, settle] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => settle(value), pause);
    return () => clearTimeout(timer);
  }, [value, pause]);
  return settled;
}
