import type { Answer, Preview } from "../wire/contract";
import { clock, number, plural } from "./format";

const moments: { [when: string]: string } = {
  now: "now",
  "next count": "from the next count",
  "after this hold": "after this hold",
  "next round": "from the next round",
};

const plain: { [verb: string]: string } = {
  release: "hold released",
  again: "the round starts over",
  enough: "enough: the round ends with this stroke",
  pause: "natural breath for all",
  resume: "resumed",
  advance: "going on",
  close: "to the closing",
  next: "next passage",
  end: "the class has ended",
  "drop-holds": "no holds from here on",
  "restore-holds": "holds are back from the next round",
  signal: "noted",
};

/** inWords tells what an adjustment did, and when: "slower: 48 from the next count". */
export function inWords(answer: Answer): string {
  if (answer.refused) return `${verbName(answer.do)}: not now, ${answer.refused}`;
  const { before, after } = answer;
  const moment = moments[answer.when] ?? "";
  switch (answer.do) {
    case "tempo":
      if (answer.when === "no change") return `tempo is ${number(after.tempo)} already`;
      return `${after.tempo < before.tempo ? "slower" : "faster"}: ${number(after.tempo)} ${moment}${carried(answer)}`;
    case "rounds":
      return `${plural(after.rounds, "round")} instead of ${before.rounds}`;
    case "last-round":
      return `last round: ${after.rounds} in all`;
    case "counts":
      return `counts ${before.counts} to ${after.counts} ${moment}`;
    case "strokes":
      return `${after.strokes} strokes instead of ${before.strokes} ${moment}`;
    case "beside":
      return after.beside === "none"
        ? "nothing beside from here on"
        : `beside: ${besideWord(after.beside)} ${moment}`;
    case "finish-by":
      return refitted(answer);
    case "undo":
      return `undone: ${verbName(answer.undone)}`;
    case "signal":
      return `seen: ${answer.see}`;
    case "note":
      return `noted: ${answer.text}`;
  }
  return plain[answer.do] ?? answer.do;
}

function carried({ carried }: Answer): string {
  return carried > 0 ? `, and in ${plural(carried, "later passage")}` : "";
}

function refitted({ fewer, late_ms }: Answer): string {
  const taken = fewer > 0 ? `${plural(fewer, "round")} fewer` : "";
  if (late_ms > 0) return [taken, `${clock(late_ms)} late all the same`].filter(Boolean).join(", ");
  return taken === "" ? "on time already: nothing to do" : `on time: ${taken}`;
}

/** besideWord is what stands beside in words. */
export function besideWord(beside: string): string {
  return beside === "breathe" ? "breathe through the holds" : `a breath of ${beside}`;
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
  counts: "counts",
  strokes: "strokes",
  enough: "enough",
  beside: "beside",
  "drop-holds": "no holds",
  "restore-holds": "holds back",
  "finish-by": "finish on time",
  undo: "undo",
};

export function verbName(verb: string): string {
  return names[verb] ?? verb;
}

// A pause lasts until it is taken up again, and that an end ends the class needs no figure.
const unforeseen = ["pause", "end"];

/** moves tells by how much later or earlier the class would end: "+0:24"; nothing where it would not. */
export function moves(preview: Preview | undefined): string {
  if (!preview || preview.answer.refused || unforeseen.includes(preview.answer.do)) return "";
  if (preview.answer.late_ms > 0) return `${clock(preview.answer.late_ms)} late`;
  const seconds = Math.round(preview.change_ms / 1000);
  return seconds === 0 ? "" : `${seconds > 0 ? "+" : "−"}${clock(Math.abs(seconds) * 1000)}`;
}
