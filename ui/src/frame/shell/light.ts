import { useEffect, useState } from "react";

export type Light = "day" | "night";

/** useLight is the light of a view: its own until the person chooses the other, which is remembered for it. */
export function useLight(view: string, own: Light): [Light, () => void] {
  const key = `light:${view}`;
  const [light, setLight] = useState<Light>(() => (localStorage.getItem(key) as Light | null) ?? own);
  useEffect(() => {
    document.documentElement.dataset.bsTheme = light === "day" ? "light" : "dark";
  }, [light]);
  const change = () => {
    const other = light === "day" ? "night" : "day";
    localStorage.setItem(key, other);
    setLight(other);
  };
  return [light, change];
}
