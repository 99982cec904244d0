import { now, onMoved, synchronize } from "../player/clock";
import { Failed, get, post, unanswered } from "../wire/api";
import type {
  Adjust,
  Answer,
  CardUp,
  CoreQuestion,
  FromHeard,
  Gap,
  HeardStrokes,
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
import { begun } from "./tellBegun";

type Choice = Presses["choose"];

/** Press is an adjustment without its key. */
type Press = Omit<Adjust, "key">;

const patience = 3000; // ms until presses that are not answered are sent once more
const pause = 1000; // ms before they are
const longest = 12 * 3600_000; // ms that a class lasts at most: one that waits for the teacher has no end yet
const soonLasts = 100; // ms after a press until the whole class is asked for, where the program has not told it
const alone = 1000; // ms without an answer, after which the screen says that it goes on by itself

/** Alone is how a lead screen does without the program. */
export type Alone = {
  /** the number of the class: negative as long as it was begun here and the program does not know it */
  number: number;
  /** whether the class is being opened, from what this device keeps */
  opening: boolean;
  /** the score of this screen's own copy; null where the program has everything */
  score: Score | null;
  /** whether this screen can go on without the program */
  ready: boolean;
  /** how many changes the program does not have yet: presses, and the begin of a class that was begun here */
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

const together: Omit<Alone, "number"> = {
  opening: false,
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
  private kit: kept.KeptKit | null = null;
  private state: Alone;
  private listeners = new Set<() => void>();
  private known = 0; // adjustments that the copy has from the program
  private waiting: number | null = null; // since when the oldest unsent press waits
  private sending = false;
  private catching: Promise<void> | null = null; // up with what other devices did
  private late: ReturnType<typeof setTimeout> | undefined;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private rest: ReturnType<typeof setTimeout> | undefined;
  private ended = false;
  private newest = 0; // revision of the program that this screen heard of
  private unmoved: (() => void) | undefined;
  private followed: boolean; // whether the page shows scores of the program

  constructor(
    /** the number under which this screen opened the class */
    readonly opened: number,
    /** take shows a score of the program */
    private take: (score: Score) => void,
  ) {
    this.state = { ...together, number: opened, opening: opened < 0 };
    this.followed = opened > 0;
  }

  private get id(): number {
    return this.state.number;
  }

  /** goOn shows scores of the program in another place from now on. */
  goOn(take: (score: Score) => void): void {
    this.take = take;
  }

  readonly current = (): Alone => this.state;

  readonly listen = (changed: () => void): (() => void) => {
    this.listeners.add(changed);
    return () => this.listeners.delete(changed);
  };

  private set(part: Partial<Alone>): void {
    this.state = { ...this.state, ...part };
    const { score } = this.state;
    const began = this.kit?.started_ms;
    if (score && began !== undefined && score.started_ms !== began)
      this.state.score = { ...score, started_ms: began }; // the clock may have been set since the core was told
    for (const listener of this.listeners) listener();
  }

  /** begin loads the core and the class, with what this device kept of it. Without them the program is asked for each press. */
  async begin(over: boolean): Promise<void> {
    this.ended = false;
    this.set({ opening: true });
    this.unmoved ??= onMoved((by) => void this.moved(by));
    try {
      const device = await kept.keptClass(this.id).catch(() => null);
      if (over && !device?.unsent.length) {
        this.set({ opening: false }); // there is nothing to lead, and nothing to send
        return await kept.forgetClass(this.id);
      }
      if (this.ended) return;
      this.core = startCore();
      const kit = this.id > 0 ? await this.programs() : null;
      const of = kit ?? device?.kit;
      if (!of) return this.end();
      if (this.ended) return;
      const mine = device?.presses ?? [];
      this.kit = of;
      const score = await this.ask<Score>({ ask: "open", kit: of, mine, at_ms: this.moment() });
      this.known = of.pressed.length;
      if (this.newest > this.known) await this.catchUp(); // pressed while the core was being loaded
      const unsent = this.owed(await this.unsent());
      this.set({ ready: true, opening: false, unsent });
      if (unsent > 0 || !kit) {
        this.waiting = performance.now() - alone; // since before this page was opened
        this.set({ score, apart: true });
      }
      if (unsent > 0) void this.send();
      if (kit) await this.keepKit(kit);
      else await this.noteEnd(score);
    } catch {
      this.end(); // the program is asked for each press, as before
    }
  }

  end(): void {
    this.ended = true;
    if (this.state.unsent > 0) void sendKept();
    clearTimeout(this.late);
    clearTimeout(this.retry);
    clearTimeout(this.rest);
    this.unmoved?.();
    this.unmoved = undefined;
    this.core?.end();
    this.core = null;
    if (this.state.ready || this.state.opening) this.set(together);
  }

  /** moved has a class that was begun here go on where it is, when the first answer of the program sets the clock. */
  private async moved(by: number): Promise<void> {
    if (this.id > 0 || !this.kit) return;
    this.kit = { ...this.kit, started_ms: this.kit.started_ms + Math.round(by) };
    this.set({});
    await kept.keepClass(this.kit).catch(() => undefined);
  }

  /** noteEnd notes until when a class that was begun here goes on, so that other pages lead back to it. */
  private async noteEnd(score: Score): Promise<void> {
    if (this.id > 0 || !this.kit) return;
    const ends = this.kit.started_ms + (score.wait && !score.over ? longest : score.end_ms);
    if (this.kit.ends_ms === ends) return;
    this.kit = { ...this.kit, ends_ms: ends };
    await kept.keepClass(this.kit).catch(() => undefined);
  }

  /** owed is how many changes the program does not have. */
  private owed({ presses }: UnsentHere): number {
    return presses.presses.length + (this.id < 0 ? 1 : 0);
  }

  /** tell tells the program of a class that was begun here: from then on it has the number that the program gives it. */
  private async tell(): Promise<void> {
    await synchronize(); // its start is told by the program's clock
    const kit = this.kit!;
    const known = await post<Kit>("/classes/apart", begun(kit, this.moment()), AbortSignal.timeout(patience));
    const here = this.id;
    this.kit = { ...known, pressed: [] };
    this.set({ number: known.class_id, unsent: this.state.unsent - 1 });
    await this.ask<Score>({ ask: "adopt", kit: this.kit, at_ms: this.moment() });
    await kept.renumber(here, this.kit).catch(() => undefined); // a press says so
  }

  /** programs is the class as the program has it, null where it does not answer. */
  private programs(): Promise<Kit | null> {
    return get<Kit>(`/classes/${this.id}/kit`, AbortSignal.timeout(patience)).catch(() => null);
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
    // The page may show what another device did already: the copy must know of it first. Without an answer it goes on.
    if (this.catching) await Promise.race([this.catching, new Promise((late) => setTimeout(late, alone))]);
    const made = await this.ask<PressedHere>({ ask: "press", at_ms: at, presses: [adjust] });
    this.waiting ??= performance.now();
    this.set({ score: made.score, unsent: this.state.unsent + 1 });
    kept.keepPress(this.id, made.pressed).catch(() => this.set({ unkept: true }));
    clearTimeout(this.rest);
    if (made.soon) this.rest = setTimeout(() => void this.complete().catch(() => undefined), soonLasts);
    else void this.noteEnd(made.score);
    this.watch();
    void this.send();
  }

  /** complete shows the whole class, of which the next minute is shown already, unless the program has told it. */
  private async complete(): Promise<void> {
    if (!this.state.score) return;
    const score = await this.ask<Score>({ ask: "score", at_ms: this.moment() });
    void this.noteEnd(score);
    if (this.state.score?.revision === score.revision) this.set({ score }); // else it was overtaken
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
        if (this.id < 0) await this.tell();
        const { presses, keys, copy, done } = await this.unsent();
        if (presses.presses.length === 0 && !(this.state.score && this.state.apart)) break;
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
      if (error instanceof Failed && !unanswered(error) && error.status !== 401) this.set({ refused: error });
      this.retry = setTimeout(() => void this.send(choose), pause);
    } finally {
      this.sending = false;
    }
    if (this.newest > this.known) this.follow(); // others did something meanwhile
  }

  /** sync takes the adjustments of the program into the copy. */
  private async sync(taken: Taken): Promise<void> {
    const at = this.moment();
    const score = await this.ask<Score | null>({
      ask: "sync",
      from: taken.from,
      mine: taken.pressed,
      at_ms: at,
    });
    this.known = taken.from + taken.pressed.length;
    const unsent = this.owed(await this.unsent());
    this.waiting = unsent === 0 ? null : performance.now();
    clearTimeout(this.late);
    if (unsent === 0) {
      clearTimeout(this.rest);
      if (this.followed) this.take(taken.score);
      this.set({
        score: this.followed ? null : taken.score,
        unsent,
        apart: false,
        asked: null,
        refused: null,
      });
      const others = taken.pressed.some((pressed) => pressed.origin !== this.kit?.origin);
      if (others || this.state.unkept || taken.score.over) void this.renewKit();
      else {
        const keys = taken.pressed.map((pressed) => pressed.key);
        void kept.noteSent(this.id, keys).catch(() => undefined); // they are sent again, which changes nothing
      }
    } else {
      // Without a score a press came since, which has its own.
      this.set({ ...(score && { score }), unsent, asked: null, refused: null });
      this.watch();
    }
  }

  /** heard follows what the program tells: where others adjusted the class, the copy takes that. */
  heard(score: Score): void {
    this.newest = score.revision;
    this.followed = true;
    if (score.revision !== this.known || this.state.score) this.follow();
  }

  /** follow has the copy take what other devices did. */
  private follow(): void {
    if (!this.state.ready || this.state.unsent > 0 || this.sending || this.ended) return;
    this.catching = this.catchUp().finally(() => (this.catching = null));
  }

  private async catchUp(): Promise<void> {
    const before = this.known;
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
      return; // the next score, or the next press, does it
    } finally {
      this.sending = false;
    }
    if (this.state.unsent > 0) void this.send();
    else if (this.newest > this.known && this.known > before) await this.catchUp(); // more was done meanwhile
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
    const kit = await this.programs();
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

  heardStrokes(heard: HeardStrokes): Promise<FromHeard> {
    return this.ask<FromHeard>({ ask: "heard", at_ms: this.moment(), heard });
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
