import type { Adjust, ScorePassage, ScorePhase } from "../wire/contract";
import { number } from "../player/format";
import { hasLane } from "../player/lane";
import { type Keys, letterOf } from "../frame/keys/letters";
import { text } from "../language/text";

/** Press is what an adjustment asks for, without its key. */
export type Press = Omit<Adjust, "key">;

/** Control is one live control: its key, what it says and what it would do now. */
export type Control = {
  id: string;
  key: string; // as pressed, lower case; empty where it has none
  name: string;
  effect: string; // what it would do, in words; empty where the name says it
  press: Press;
  met: boolean; // whether it would be accepted where the class is now
  twice: boolean; // must be pressed twice, since it cannot be taken back
};

/** met tells whether the adjustment would be accepted in the phase. */
function met(phase: ScorePhase, verb: Adjust["do"]): boolean {
  return phase.verbs?.includes(verb) ?? false;
}

export type Group = { name: string; controls: Control[] };

export type Where = {
  phase: ScorePhase;
  passage: ScorePassage;
  slot: number; // ms from the start of the class; 0 where none is set
  keys: Keys | undefined;
};

/**
 * controls are the live controls where the class is: every key lies under the left hand. Whether one is met there is
 * the application's word (phase.verbs), and so are the tempos.
 */
export function controls({ phase, passage, slot, keys }: Where): Group[] {
  const total = passage.rounds;
  const make = (id: string, name: string, press: Press, effect = "", twice = false): Control => ({
    id,
    key: letterOf(id === "enough" ? "release" : id, keys),
    name,
    effect,
    press,
    twice,
    met:
      met(phase, press.do) &&
      !(press.do === "tempo" && passage.tempo === 0) &&
      !(id === "fewer" && total <= Math.max(1, phase.round)) &&
      !(press.do === "finish-by" && slot === 0),
  });
  const tempo = (to: number) => (passage.tempo > 0 ? `${number(passage.tempo)} → ${number(to)}` : "");
  return [
    {
      name: "Tempo",
      controls: [
        make("slower", "Slower", { do: "tempo", to: passage.slower }, tempo(passage.slower)),
        make("faster", "Faster", { do: "tempo", to: passage.faster }, tempo(passage.faster)),
      ],
    },
    {
      name: "Hold",
      controls: [
        met(phase, "enough")
          ? make("enough", "Enough", { do: "enough" }, "round ends")
          : make("release", "Release", { do: "release" }, "the hold ends"),
        met(phase, "restore-holds")
          ? make("holds", "Holds back", { do: "restore-holds" }, "from the next round")
          : make("holds", "No holds", { do: "drop-holds" }, "from here on"),
        make("again", "Again", { do: "again" }, "this round"),
      ],
    },
    {
      name: "Rounds",
      controls: [
        make(
          "fewer",
          "One fewer",
          { do: "rounds", by: -1 },
          total > Math.max(1, phase.round) ? `${total} → ${total - 1}` : "",
        ),
        make("more", "One more", { do: "rounds", by: 1 }, total > 0 ? `${total} → ${total + 1}` : ""),
        make("last", "Last round", { do: "last-round" }, total > 0 ? lastRound(phase, total) : ""),
      ],
    },
    {
      name: "Class",
      controls: [
        make("undo", "Undo", { do: "undo" }),
        make("close", "Close", { do: "close" }, phase.stage === "round" ? "drops this round" : ""),
        make("next", "Next", { do: "next" }, "passage", true),
        make("finish", "On time", { do: "finish-by", to_ms: slot }, slot > 0 ? "" : "no slot is set"),
        make("end", "End", { do: "end" }, "", true),
      ],
    },
  ];
}

function lastRound(phase: ScorePhase, total: number): string {
  const last = phase.stage === "rest" ? phase.round + 1 : phase.round;
  return last > 0 && total > last ? `${total - last} left out` : "";
}

/** laneOf opens the gentler lane as the core offers it first, or closes the one that is there. */
export function laneOf({ phase, passage, keys }: Where): Control {
  const open = hasLane(passage);
  const [gentlest] = passage.lanes;
  return {
    id: "lane",
    key: letterOf("lane", keys),
    name: open ? "Close lane" : "Gentler lane",
    effect: open ? "all breathe the same" : text(gentlest?.says),
    press: { do: "beside", to: open ? "none" : (gentlest?.beside ?? "breathe") },
    met: met(phase, "beside") && (open || gentlest !== undefined),
    twice: false,
  };
}

/** The two that are always in the same place. */
export function natural(phase: ScorePhase): Control {
  return {
    id: "pause",
    key: " ",
    name: "Natural breath",
    effect: phase.stage === "pause" ? "everybody breathes freely" : "for everybody, at once",
    press: { do: "pause" },
    met: met(phase, "pause"),
    twice: false,
  };
}

export function goOn(phase: ScorePhase, keys: Keys | undefined): Control {
  const resume = met(phase, "resume");
  return {
    id: "go-on",
    key: letterOf("go-on", keys),
    name: resume ? "Resume" : "Go on",
    effect: resume ? "lead-in, then the same again" : "ends what is not counted",
    press: { do: resume ? "resume" : "advance" },
    met: resume || met(phase, "advance"),
    twice: false,
  };
}

/** The id of the control that a meaning stands for, where the class is. */
export function controlFor(meaning: string, groups: Group[]): string {
  const there = (id: string) => groups.some((g) => g.controls.some((c) => c.id === id));
  return meaning === "release" && there("enough") ? "enough" : meaning;
}

export function keyName(key: string): string {
  return key === " " ? "Space" : key.toUpperCase();
}
