import { useEffect, useState } from "react";

/** Look is how the room's screen looks: lanterns in the dark, paper by day, or plain, with as much contrast as there is. */
export type Look = "lanterns" | "paper" | "plain";

export const looks: Look[] = ["lanterns", "paper", "plain"];

const key = "room:look";

function stored(): Look {
  const kept = localStorage.getItem(key);
  if (looks.includes(kept as Look)) return kept as Look;
  return matchMedia("(prefers-contrast: more)").matches ? "plain" : "lanterns";
}

/** useLook is the look of this screen, which is remembered. */
export function useLook(): [Look, (look: Look) => void] {
  const [look, setLook] = useState(stored);
  useEffect(() => {
    document.documentElement.dataset.bsTheme = look === "paper" ? "light" : "dark";
    document.documentElement.dataset.look = look;
  }, [look]);
  return [
    look,
    (next) => {
      localStorage.setItem(key, next);
      setLook(next);
    },
  ];
}
