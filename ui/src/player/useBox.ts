import { type RefObject, useLayoutEffect, useRef, useState } from "react";

export type Box = { width: number; height: number };

/** useBox is how much room an element has, in px; nothing before it is there. */
export function useBox<T extends HTMLElement>(): [RefObject<T | null>, Box | null] {
  const ref = useRef<T>(null);
  const [box, setBox] = useState<Box | null>(null);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const measure = () => {
      const { clientWidth: width, clientHeight: height } = element;
      setBox((old) => (old?.width === width && old.height === height ? old : { width, height }));
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, box];
}
