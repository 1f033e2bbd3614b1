/** Wrong ones that cost nothing: of one person at one address, and of all at an address, where a whole studio may sit. */
const FREE = 5;
export const FREE_OF_ADDRESS = 40;
/** The longest wait, seconds: nobody is ever locked out. */
const LONGEST_S = 120;
/** What went wrong is forgotten after so long. */
const FORGET_MS = 30 * 60 * 1000;
const MOST_KEPT = 10_000;

type Missed = { count: number; at: number };

/**
 * How long somebody has to wait who got it wrong several times: after five wrong ones a second, then twice as long each time, two minutes at
 * most. It counts by the names that it is given; the clock is the process's own, which never goes back.
 */
export class Patience {
  private readonly missed = new Map<string, Missed>();

  constructor(
    private readonly now: () => number = () => performance.now(),
    private readonly free = FREE,
  ) {}

  /** Seconds until the next try counts; 0 is at once. */
  wait(...names: string[]): number {
    return Math.max(0, ...names.map((name) => this.waitOf(name)));
  }

  private waitOf(name: string): number {
    const held = this.missed.get(name);
    if (!held || held.count < this.free) return 0;
    const wait = Math.min(LONGEST_S, 2 ** (held.count - this.free));
    return Math.max(0, wait - (this.now() - held.at) / 1000);
  }

  wrong(...names: string[]): void {
    for (const name of names) {
      const held = this.missed.get(name);
      const count = held && this.now() - held.at < FORGET_MS ? held.count + 1 : 1;
      this.missed.delete(name);
      this.missed.set(name, { count, at: this.now() });
    }
    for (const [name, { at }] of this.missed) {
      if (this.missed.size <= MOST_KEPT && this.now() - at < FORGET_MS) break;
      this.missed.delete(name);
    }
  }

  right(...names: string[]): void {
    for (const name of names) this.missed.delete(name);
  }
}
