import { Turns } from '../processes/turns';

/** More requests than this do not wait for their beginning. */
const MOST_WAITING = 5000;
/** So many are answered at a time … */
const MOST_BEGUN = 3;
/** … but for those that take longer than this, which wait for child processes and hold nobody up. */
const PATIENCE_MS = 40;

/**
 * The loop takes one new connection to a turn: as long as more come in, so many turns go by for one request that begins.
 */
const MOST_TURNS = 100;

/**
 * Begins requests one to a turn of the event loop and a few at a time, everyone who asks in turn: between two of them the loop
 * hears what has come in. Otherwise it answers all that came before a light request, however many, before it hears of that one.
 */
export class Pace {
  private readonly turns = new Turns<() => void>();
  private begun = 0;
  /** Whether the loop still hears what came in while the last one was answered. */
  private taken = false;
  private heard = 0;

  /**
   * Resolves when the request may begin, at once where few others do, with what is to be called when it has its answer;
   * `null` where too many wait.
   */
  async begin(asker: string): Promise<(() => void) | null> {
    this.heard += 1;
    if (!this.mayBegin || this.turns.size > 0) {
      if (this.turns.size >= MOST_WAITING) return null;
      return new Promise((resolve) => this.turns.add({ asker, value: () => resolve(this.hold()) }));
    }
    return this.hold();
  }

  private get mayBegin(): boolean {
    return !this.taken && this.begun < MOST_BEGUN;
  }

  private hold(): () => void {
    this.begun += 1;
    this.taken = true;
    this.hear(MOST_TURNS);
    let held = true;
    const free = (): void => {
      if (!held) return;
      held = false;
      clearTimeout(patience);
      this.begun -= 1;
      this.next();
    };
    const patience = setTimeout(free, PATIENCE_MS);
    return free;
  }

  private hear(turns: number): void {
    const before = this.heard;
    setImmediate(() => {
      if (this.heard > before && turns > 1) return this.hear(turns - 1);
      this.taken = false;
      this.next();
    });
  }

  private next(): void {
    if (this.mayBegin) this.turns.next()?.value();
  }
}
