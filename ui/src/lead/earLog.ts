import type { Heard } from "../wire/contract";
import { Failed, unanswered } from "../wire/api";

const most = 500; // at once; the others follow

/**
 * EarLog keeps what was heard in a class until the program has it: also where the page is opened again, and where the program does
 * not answer. They are numbers, never sound.
 */
export class EarLog {
  private waiting: Heard[];
  private sending = false;

  constructor(
    private id: number,
    /** send tells the program; it fails where there is no answer */
    private readonly send: (id: number, heard: Heard[]) => Promise<void>,
  ) {
    this.waiting = kept(nameOf(id));
  }

  /** renumber has it be of a class that the program knows now: before it had a number of this device. */
  renumber(id: number): void {
    if (id === this.id) return;
    const { waiting } = this;
    this.waiting = [];
    this.keep(); // nothing under the number before
    this.id = id;
    this.waiting = [...kept(nameOf(id)), ...waiting];
    this.keep();
  }

  add(heard: Heard): void {
    this.waiting.push(heard);
    this.keep();
  }

  /** flush sends what waits, once the program knows the class. It fails where the program does not take it; then it is told once and not kept. */
  async flush(): Promise<void> {
    if (this.sending || this.waiting.length === 0 || this.id < 0) return;
    this.sending = true;
    const sent = this.waiting.slice(0, most);
    try {
      await this.send(this.id, sent);
      this.drop(sent);
    } catch (error) {
      if (!(error instanceof Failed) || unanswered(error) || error.status === 401) return; // it is sent again
      this.drop(sent);
      throw error;
    } finally {
      this.sending = false;
    }
  }

  private drop(sent: Heard[]): void {
    this.waiting = this.waiting.slice(sent.length);
    this.keep();
  }

  private keep(): void {
    try {
      if (this.waiting.length === 0) localStorage.removeItem(nameOf(this.id));
      else localStorage.setItem(nameOf(this.id), JSON.stringify(this.waiting));
    } catch {
      // a full store: it is sent as long as the page is open
    }
  }
}

const nameOf = (id: number) => `heard:${id}`;

/** sendLeftovers sends what was heard in classes before, and could not be sent before their pages were closed. */
export async function sendLeftovers(
  now: number,
  send: (id: number, heard: Heard[]) => Promise<void>,
): Promise<void> {
  const ids = names().flatMap((name) => /^heard:(\d+)$/.exec(name)?.[1] ?? []);
  for (const id of ids.map(Number)) if (id !== now) await new EarLog(id, send).flush().catch(() => undefined); // it was refused: it is not kept
}

function kept(name: string): Heard[] {
  try {
    return JSON.parse(localStorage.getItem(name) ?? "[]") as Heard[];
  } catch {
    return [];
  }
}

function names(): string[] {
  try {
    return Object.keys(localStorage);
  } catch {
    return []; // a browser may not let a page keep anything
  }
}
