import type { Say } from "./say";

const sides = { left: "left", both: "both", right: "right-side" } as const;

type Side = keyof typeof sides;

/** questionText is what is asked. */
export function questionText(question: string, say: Say): string {
  return say(question === "calm" ? "check-calm" : "check-side");
}

/** answerText is an answer for who does not see where on the scale it stands: "5, very calm". */
export function answerText(answer: string, say: Say): string {
  if (answer in sides) return say(sides[answer as Side]);
  if (answer === "1") return `1, ${say("calm-least")}`;
  return answer === "5" ? `5, ${say("calm-most")}` : answer;
}
