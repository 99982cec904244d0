import type { Answer } from "../shared/contract";
import { number, plural } from "../shared/words";

const moments: { [when: string]: string } = {
  now: "now",
  "next count": "from the next count",
  "after this hold": "after this hold",
  "next round": "from the next round",
};

const plain: { [verb: string]: string } = {
  release: "hold released",
  again: "the round starts over",
  pause: "natural breath for all",
  resume: "the round is taken up again",
  advance: "going on",
  close: "to the closing",
  next: "next passage",
  end: "the class has ended",
  note: "noted",
  signal: "noted",
};

/** inWords tells what an adjustment did, and when: "slower: 48 from the next count". */
export function inWords(answer: Answer): string {
  if (answer.refused) return `${verbName(answer.do)}: not now, ${answer.refused}`;
  const moment = moments[answer.when] ?? "";
  switch (answer.do) {
    case "tempo":
      if (answer.when === "no change") return `tempo is ${number(answer.after)} already`;
      return `${answer.after < answer.before ? "slower" : "faster"}: ${number(answer.after)} ${moment}`;
    case "rounds":
    case "last-round":
      if (answer.do === "last-round") return `last round: ${number(answer.after)} in all`;
      return `${plural(answer.after, "round")} instead of ${answer.before}`;
    case "note":
      return `noted: ${answer.text}`;
  }
  return plain[answer.do] ?? answer.do;
}

const names: { [verb: string]: string } = {
  tempo: "tempo",
  release: "release",
  rounds: "rounds",
  "last-round": "last round",
  again: "again",
  pause: "natural breath",
  resume: "resume",
  advance: "go on",
  close: "close",
  next: "next passage",
  end: "end",
};

export function verbName(verb: string): string {
  return names[verb] ?? verb;
}
