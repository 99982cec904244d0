import { post } from "../wire/api";
import type { Adjusted, CardUp, Preview, Proposed, Score, Tapped, Taps } from "../wire/contract";
import { press } from "../wire/press";
import { now } from "../player/clock";
import type { Press } from "./adjustments";

/** Desk is where what is pressed is carried out, and what can be asked there. A try-out answers presses only. */
export type Desk = {
  /** makes an adjustment and takes the score after it; onSlow is called while there is no answer */
  send: (press: Press, onSlow: () => void) => Promise<void>;
  /** turns a card of the teacher's words on every lead screen; missing where there is only this one */
  turn?: (to: CardUp) => Promise<void>;
  asks?: Asks;
};

/** Asks is what can be asked of a class, or a rehearsal, as it stands. */
export type Asks = {
  /** what each adjustment would do now */
  would: (presses: Press[]) => Promise<Preview[]>;
  /** notes what was seen, and what to do about it */
  saw: (see: string, onSlow: () => void) => Promise<Proposed>;
  tapped: (taps: Taps, signal: AbortSignal) => Promise<Tapped>;
};

/** deskOf is the desk of a class that is really led. */
export function deskOf(id: number, take: (score: Score) => void): Desk {
  const path = `/classes/${id}`;
  return {
    send: async (pressed, onSlow) => {
      const keep = pressed.do === "note";
      const timed = { ...pressed, pressed_ms: now() };
      take((await press<Adjusted>(`${path}/adjustments`, timed, { onSlow, keep })).score);
    },
    turn: async (to) => take(await post<Score>(`${path}/card`, to)),
    asks: {
      would: (presses) => post<Preview[]>(`${path}/would`, presses),
      saw: async (see, onSlow) => {
        const answer = await press<Proposed>(
          `${path}/seen`,
          { see, pressed_ms: now() },
          { onSlow, keep: true },
        );
        take(answer.score);
        return answer;
      },
      tapped: (taps, signal) => post<Tapped>(`${path}/taps`, taps, signal),
    },
  };
}
