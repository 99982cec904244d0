import type { Leader } from "../apart/leader";
import { get, post } from "../wire/api";
import type {
  Adjusted,
  CardUp,
  FromHeard,
  Gap,
  Heard,
  HeardKept,
  HeardStrokes,
  Preview,
  Proposed,
  Score,
  Tapped,
  Taps,
} from "../wire/contract";
import { newKey } from "../wire/key";
import { press } from "../wire/press";
import { now } from "../player/clock";
import type { Press } from "./adjustments";

/** Desk is where what is pressed is carried out, and what can be asked there. A try-out answers presses only. */
export type Desk = {
  /** makes an adjustment and takes the score after it; onSlow is called while there is no answer. The same key counts once */
  send: (press: Press, onSlow: () => void, key?: string) => Promise<void>;
  /** turns a card of the teacher's words on every lead screen; missing where there is only this one */
  turn?: (to: CardUp) => Promise<void>;
  asks?: Asks;
  away?: Away;
  ear?: EarDesk;
};

/** EarDesk is where a screen that listens to the room of a class says so. */
export type EarDesk = {
  /** the name of this screen, as the score has it */
  me: string;
  listens: (on: boolean) => Promise<void>;
};

/** keepHeard tells the program what was heard in a class. */
export async function keepHeard(id: number, heard: Heard[]): Promise<void> {
  await post<HeardKept>(`/classes/${id}/heard`, { heard });
}

const me = newKey();

function earOf(id: number, take: (score: Score) => void): EarDesk {
  return {
    me,
    listens: async (on) => take(await post<Score>(`/classes/${id}/ear`, { ear: me, on })),
  };
}

/** Away is what can be done about a stretch in which this screen did not show the count. */
export type Away = {
  /** what was missed from a moment of the class on, in ms */
  gap: (from: number) => Promise<Gap>;
  /** takes it again; the key makes it count once */
  again: (from: number, key: string) => Promise<void>;
};

/** Advised is what to do about what was seen. */
export type Advised = Pick<Proposed, "say" | "do" | "lane">;

/** Asks is what can be asked of a class, or a rehearsal, as it stands. */
export type Asks = {
  /** what each adjustment would do now */
  would: (presses: Press[]) => Promise<Preview[]>;
  /** notes what was seen, and what to do about it */
  saw: (see: string, onSlow: () => void) => Promise<Advised>;
  tapped: (taps: Taps, signal: AbortSignal) => Promise<Tapped>;
  /** what to do about how the room was heard to stroke */
  heard: (strokes: HeardStrokes) => Promise<FromHeard>;
};

/** ownDesk is the desk of a class that this screen leads on its own copy: each press acts at once. */
export function ownDesk(id: number, leader: Leader): Desk {
  return {
    send: (pressed, _, key) => leader.press(pressed, undefined, key),
    turn: async (to) => {
      await leader.turn(to);
      await post<Score>(`/classes/${id}/card`, to).catch(() => undefined); // the other screens, if they can be reached
    },
    asks: {
      would: (presses) => leader.would(presses),
      saw: (see) => leader.saw(see),
      tapped: (taps) => leader.tapped(taps),
      heard: (strokes) => leader.heardStrokes(strokes),
    },
    // The screen listens whether the others can be told or not.
    ear: earOf(id, () => undefined),
    away: { gap: (from) => leader.gap(from), again: (from, key) => leader.again(from, key) },
  };
}

/** deskOf is the desk of a class that is really led, as long as this screen has no copy of it: each press is asked for. */
export function deskOf(id: number, take: (score: Score) => void): Desk {
  const path = `/classes/${id}`;
  return {
    send: async (pressed, onSlow, key) => {
      const keep = pressed.do === "note";
      const timed = { ...pressed, pressed_ms: now() };
      take((await press<Adjusted>(`${path}/adjustments`, timed, { onSlow, keep, key })).score);
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
      heard: (strokes) => post<FromHeard>(`${path}/strokes-heard`, strokes),
    },
    ear: earOf(id, take),
    away: {
      gap: (from) => get<Gap>(`${path}/gap?from_ms=${Math.floor(from)}`),
      again: async (from, key) =>
        take((await post<Adjusted>(`${path}/again`, { key, from_ms: Math.floor(from) })).score),
    },
  };
}
