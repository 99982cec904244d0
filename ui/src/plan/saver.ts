import { Failed } from "../wire/api";
import type { Plan } from "../wire/contract";
import type { Version } from "./version";

/** Saving is how far the saving of a plan is. */
export type Saving = "saved" | "saving" | { failed: string; conflict: boolean; unanswered: boolean };

/** Store stores a version in the place of a revision. */
export type Store = (revision: number, version: Version) => Promise<Plan>;

const pause = 500; // ms without a keystroke before it is saved
const retry = 3000; // ms before it is tried again by itself where the application did not answer

/**
 * Saver saves the versions of a plan by itself, one after the other, each in the place of the revision before. What could
 * not be saved is kept, and told.
 */
export class Saver {
  private waiting: Version | null = null; // the newest that is to be saved
  private unanswered: Version | null = null; // it was sent, but no answer came: it may be stored or not
  private storing: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private conflict = false;

  constructor(
    private revision: number,
    private readonly store: Store,
    private readonly tell: (saving: Saving) => void,
    private readonly stored: (plan: Plan, all: boolean) => void,
  ) {}

  /** The revision that what is typed was made from. */
  get from(): number {
    return this.revision;
  }

  /** keep has a version saved, once nothing is typed for a moment. */
  keep(version: Version): void {
    this.waiting = version;
    if (!this.conflict) this.tell("saving");
    this.later(pause);
  }

  /** save saves what is not saved yet, at once. */
  async save(): Promise<void> {
    clearTimeout(this.timer);
    if (!this.waiting && !this.storing) return;
    this.storing ??= this.storeAll().finally(() => (this.storing = null));
    await this.storing;
  }

  /** overwrite saves in the place of the revision that another window has saved. */
  async overwrite(newest: number): Promise<void> {
    this.revision = newest;
    this.conflict = false;
    this.tell("saving");
    await this.save();
  }

  private later(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), ms);
  }

  private async storeAll(): Promise<void> {
    while (this.unanswered ?? this.waiting) {
      // What may be stored goes once more, as it was: it is stored once, and then it is known from which revision to go on.
      const version = (this.unanswered ?? this.waiting)!;
      if (this.waiting === version) this.waiting = null;
      try {
        const plan = await this.store(this.revision, version);
        this.revision = plan.revision;
        this.unanswered = null;
        this.stored(plan, this.waiting === null);
      } catch (error) {
        this.waiting ??= version; // what was typed stays, to be saved later
        const { status, message } = error instanceof Failed ? error : { status: 0, message: String(error) };
        this.unanswered = status === 0 ? version : null;
        this.conflict = status === 409;
        this.tell({ failed: message, conflict: this.conflict, unanswered: status === 0 });
        if (status === 0) this.later(retry);
        return;
      }
    }
    this.tell("saved");
  }
}
