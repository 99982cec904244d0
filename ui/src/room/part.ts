import type { Lane } from "../player/lane";

/**
 * What this browser had of the last class that it showed, so that it is asked once about it, also where the page was closed
 * in between. It stays in the browser; of it only the lane is sent, and only with the answer.
 */
const kept = {
  shown: "room:shown",
  lane: "room:lane-taken",
  answered: "room:answered",
  checked: "room:checked",
};

const is = (key: string, classID: number) => localStorage.getItem(key) === String(classID);

export const wasShown = (classID: number) => is(kept.shown, classID);
export const wasAnswered = (classID: number) => is(kept.answered, classID);

export function noteShown(classID: number): void {
  if (wasShown(classID)) return;
  localStorage.setItem(kept.shown, String(classID));
  localStorage.removeItem(kept.lane);
}

export function noteAnswered(classID: number): void {
  localStorage.setItem(kept.answered, String(classID));
}

/** noteLane notes which lane was played where there were two: who was in the gentler one at any time took it. */
export function noteLane(lane: Lane): void {
  if (localStorage.getItem(kept.lane) !== "beside") localStorage.setItem(kept.lane, lane);
}

/** laneTaken is which lane was played in the class that was shown last; empty where there was one only, or both stood there. */
export function laneTaken(): Lane | "" {
  const lane = localStorage.getItem(kept.lane);
  return lane === "main" || lane === "beside" ? lane : "";
}

const checked = (id: number, after: boolean) => `${id} ${after ? "after" : "before"}`;

/** wasChecked tells whether this browser has answered a check-in, or left it out. */
export const wasChecked = (id: number, after: boolean) =>
  (localStorage.getItem(kept.checked) ?? "").split(",").includes(checked(id, after));

/** noteChecked notes it, beside the one before: that before a class and that after it. */
export function noteChecked(id: number, after: boolean): void {
  const last = (localStorage.getItem(kept.checked) ?? "").split(",").filter(Boolean).slice(-3);
  localStorage.setItem(kept.checked, [...last, checked(id, after)].join(","));
}
