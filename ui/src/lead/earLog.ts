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
    private readonly name: string,
    /** send tells the program; it fails where there is no answer */
    private readonly send: (heard: Heard[]) => Promise<void>,
  ) {
    this.waiting = kept(name);
  }

  add(heard: Heard): void {
    this.waiting.push(heard);
    this.keep();
  }

  /** flush sends what waits. It fails where the program does not take it; then it is told once and not kept. */
  async flush(): Promise<void> {
    if (this.sending || this.waiting.length === 0) return;
    this.sending = true;
    const sent = this.waiting.slice(0, most);
    try {
      await this.send(sent);
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
      if (this.waiting.length === 0) localStorage.removeItem(this.name);
      else localStorage.setItem(this.name, JSON.stringify(this.waiting));
    } catch {
      // a full store: it is sent as long as the page is open
    }
  }
}

function kept(name: string): Heard[] {
  try {
    return JSON.parse(localStorage.getItem(name) ?? "[]") as Heard[];
  } catch {
    return [];
  }
}
