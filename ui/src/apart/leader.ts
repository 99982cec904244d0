import { now } from "../player/clock";
import { Failed, get, post } from "../wire/api";
import type {
  Adjust,
  Answer,
  CardUp,
  CoreQuestion,
  Gap,
  Kit,
  Preview,
  PressedHere,
  Presses,
  Proposed,
  Score,
  Taken,
  Tapped,
  Taps,
  UnsentHere,
} from "../wire/contract";
import { newKey } from "../wire/key";
import { type Core, startCore } from "./core";
import * as kept from "./kept";
import { sendKept } from "./sendKept";

type Choice = Presses["choose"];

/** Press is an adjustment without its key. */
type Press = Omit<Adjust, "key">;

const patience = 3000; // ms until presses that are not answered are sent once more
const pause = 1000; // ms before they are
const alone = 1000; // ms without an answer, after which the screen says that it goes on by itself

/** Alone is how a lead screen does without the program. */
export type Alone = {
  /** the score of this screen's own copy; null where the program has everything */
  score: Score | null;
  /** whether this screen can go on without the program */
  ready: boolean;
  /** how many presses the program does not have yet */
  unsent: number;
  /** whether a press has had no answer for a second */
  apart: boolean;
  /** whether this device could not keep a press: it is lost if the page is closed */
  unkept: boolean;
  /** what was done here and on other screens, where the teacher has to choose; null elsewhere */
  asked: { here: Answer[]; there: Answer[] } | null;
  /** why the program did not take the presses, if it refused them */
  refused: Error | null;
};

const together: Alone = {
  score: null,
  ready: false,
  unsent: 0,
  apart: false,
  unkept: false,
  asked: null,
  refused: null,
};

/**
 * Leader leads a class on this screen's own copy of it, in a worker, and sends what was pressed to the program
 * (docs/rules/apart.md). Each press acts on the copy at once; the answer of the program confirms it.
 */
export class Leader {
  private core: Core | null = null;
  private kit: Kit | null = null;
  private state = together;
  private listeners = new Set<() => void>();
  private known = 0; // adjustments that the copy has from the program
  private waiting: number | null = null; // since when the oldest unsent press waits
  private sending = false;
  private late: ReturnType<typeof setTimeout> | undefined;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private ended = false;
  private newest = 0; // revision of the program that this screen heard of

  constructor(
    private id: number,
    /** take shows a score of the program */
    private take: (score: Score) => void,
  ) {}

  readonly current = (): Alone => this.state;

  readonly listen = (changed: () => void): (() => void) => {
    this.listeners.add(changed);
    return () => this.listeners.delete(changed);
  };

  private set(part: Partial<Alone>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }

  /** begin loads the core and the class, with what this device kept of it. Without them the program is asked for each press. */
  async begin(over: boolean): Promise<void> {
    this.ended = false;
    try {
      const device = await kept.keptClass(this.id).catch(() => null);
      if (over && !device?.unsent.length) return await kept.forgetClass(this.id); // there is nothing to lead, and nothing to send
      if (this.ended) return;
      this.core = startCore();
      const kit = await get<Kit>(`/classes/${this.id}/kit`).catch(() => null);
      const of = kit ?? device?.kit;
      if (!of || this.ended) return;
      const mine = device?.presses ?? [];
      this.kit = of;
      const score = await this.ask<Score>({ ask: "open", kit: of, mine, at_ms: this.moment() });
      this.known = of.pressed.length;
      if (this.newest > this.known) await this.catchUp(); // pressed while the core was being loaded
      const { presses } = await this.unsent();
      this.set({ ready: true, unsent: presses.presses.length });
      if (presses.presses.length > 0) {
        this.waiting = performance.now() - alone; // since before this page was opened
        this.set({ score, apart: true });
        void this.send();
      }
      if (kit) await this.keepKit(kit);
    } catch {
      this.end(); // the program is asked for each press, as before
    }
  }

  end(): void {
    this.ended = true;
    if (this.state.unsent > 0) void sendKept();
    clearTimeout(this.late);
    clearTimeout(this.retry);
    this.core?.end();
    this.core = null;
    if (this.state.ready) this.set(together);
  }

  private async ask<Result>(question: CoreQuestion): Promise<Result> {
    if (!this.core) throw new Failed({ say: { id: "apart.no-core" } }, 0);
    try {
      return await this.core.ask<Result>(question);
    } catch (error) {
      const answered = error instanceof Failed && error.status !== 0;
      if (!answered) this.end(); // the core is gone: the program is asked from now on
      throw error;
    }
  }

  private unsent(): Promise<UnsentHere> {
    return this.ask<UnsentHere>({ ask: "unsent" });
  }

  /** moment is how far the class is now, in whole ms. */
  private moment(): number {
    return Math.floor(now() - (this.kit?.started_ms ?? 0));
  }

  /** press makes an adjustment on this screen's copy, and sends it. */
  async press(press: Press, at = this.moment(), key = newKey()): Promise<void> {
    const adjust = { ...press, key };
    const made = await this.ask<PressedHere>({ ask: "press", at_ms: at, presses: [adjust] });
    this.waiting ??= performance.now();
    this.set({ score: made.score, unsent: this.state.unsent + 1 });
    kept.keepPress(this.id, made.pressed).catch(() => this.set({ unkept: true }));
    this.watch();
    void this.send();
  }

  /** watch notices when a press has had no answer for too long. */
  private watch(): void {
    clearTimeout(this.late);
    if (this.waiting === null) return;
    const left = this.waiting + alone - performance.now();
    this.late = setTimeout(() => this.set({ apart: true }), left);
  }

  /** send sends what the program does not have, until it has everything or the teacher has to choose. */
  private async send(choose: Choice = ""): Promise<void> {
    if (this.sending || this.ended || (this.state.asked && choose === "")) return;
    this.sending = true;
    clearTimeout(this.retry);
    try {
      while (!this.ended) {
        const { presses, keys, copy, done } = await this.unsent();
        if (presses.presses.length === 0) break;
        const apart = this.waiting !== null && performance.now() - this.waiting >= alone;
        const taken = await post<Taken>(
          `/classes/${this.id}/presses`,
          {
            ...presses,
            presses: choose === "screen" ? presses.presses : presses.presses.slice(0, kept.atOnce),
            apart,
            choose,
            keys: apart ? keys : undefined,
            copy: choose === "screen" ? copy : undefined,
          },
          AbortSignal.timeout(patience),
        );
        if (taken.asked) {
          this.set({ asked: { here: done, there: taken.asked }, apart: true });
          return;
        }
        choose = "";
        await this.sync(taken);
      }
    } catch (error) {
      if (error instanceof Failed && error.status !== 0 && error.status !== 401) this.set({ refused: error });
      this.retry = setTimeout(() => void this.send(choose), pause);
    } finally {
      this.sending = false;
    }
  }

  /** sync takes the adjustments of the program into the copy. */
  private async sync(taken: Taken): Promise<void> {
    const at = this.moment();
    const score = await this.ask<Score>({ ask: "sync", from: taken.from, mine: taken.pressed, at_ms: at });
    this.known = taken.from + taken.pressed.length;
    const { presses } = await this.unsent();
    const unsent = presses.presses.length;
    this.waiting = unsent === 0 ? null : performance.now();
    clearTimeout(this.late);
    if (unsent === 0) {
      this.take(taken.score);
      this.set({ score: null, unsent, apart: false, asked: null, refused: null });
      const others = taken.pressed.some((pressed) => pressed.origin !== this.kit?.origin);
      if (others || this.state.unkept || taken.score.over) void this.renewKit();
      else {
        const keys = taken.pressed.map((pressed) => pressed.key);
        void kept.noteSent(this.id, keys).catch(() => undefined); // they are sent again, which changes nothing
      }
    } else {
      this.set({ score, unsent, asked: null, refused: null });
      this.watch();
    }
  }

  /** heard follows what the program tells: where others adjusted the class, the copy takes that. */
  heard(score: Score): void {
    this.newest = score.revision;
    if (!this.state.ready || this.state.unsent > 0 || this.sending || score.revision === this.known) return;
    void this.catchUp();
  }

  private async catchUp(): Promise<void> {
    this.sending = true;
    try {
      const { presses } = await this.unsent();
      await this.sync(
        await post<Taken>(
          `/classes/${this.id}/presses`,
          { ...presses, presses: [], apart: false, choose: "" },
          AbortSignal.timeout(patience),
        ),
      );
    } catch {
      // the next score, or the next press, does it
    } finally {
      this.sending = false;
    }
    if (this.state.unsent > 0) void this.send();
  }

  /** connected has what is unsent sent at once. */
  connected(): void {
    if (this.state.unsent > 0) void this.send();
  }

  /** choose says which class goes on where it was adjusted here and on other screens. */
  choose(which: Exclude<Choice, "">): Promise<void> {
    return this.send(which);
  }

  private async renewKit(): Promise<void> {
    const kit = await get<Kit>(`/classes/${this.id}/kit`).catch(() => null);
    if (kit) await this.keepKit(kit);
  }

  private async keepKit(kit: Kit): Promise<void> {
    this.kit = kit;
    const keep = kit.ended_ms === null ? kept.keepClass(kit) : kept.forgetClass(this.id);
    await keep.then(() => this.set({ unkept: false })).catch(() => undefined); // a press says so
  }

  would(presses: Press[]): Promise<Preview[]> {
    return this.ask<Preview[]>({
      ask: "would",
      at_ms: this.moment(),
      presses: presses.map((press) => ({ ...press, key: "" })),
    });
  }

  /** saw notes what was seen, and returns what to do about it. */
  async saw(see: string): Promise<Proposed> {
    const proposed = await this.ask<Proposed>({ ask: "propose", at_ms: this.moment(), see });
    await this.press({ do: "signal", see });
    return proposed;
  }

  tapped(taps: Taps): Promise<Tapped> {
    return this.ask<Tapped>({ ask: "tapped", at_ms: this.moment(), taps });
  }

  gap(from: number): Promise<Gap> {
    return this.ask<Gap>({ ask: "gap", from_ms: Math.floor(from), at_ms: this.moment() });
  }

  /** again takes a gap again: what was not shown becomes a pause, and the round starts over. */
  async again(from: number, key: string): Promise<void> {
    await this.press({ do: "pause" }, Math.floor(from), `${key}-lost`);
    await this.press({ do: "resume" }, this.moment(), key);
  }

  /** turn turns a card of the teacher's own words on this screen. */
  async turn(to: CardUp): Promise<void> {
    const score = await this.ask<Score>({ ask: "turn", card_up: to, at_ms: this.moment() });
    if (this.state.score) this.set({ score });
  }
}
