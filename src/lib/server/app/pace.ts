import { Turns } from '../processes/turns';

/** More requests than this do not wait for their beginning. */
const MOST_WAITING = 5000;

/**
 * Begins requests one to a turn of the event loop, everyone who asks in turn: between two of them the loop hears what has
 * come in, so that a light request waits for the one that is being answered and not for a thousand that came before it.
 */
export class Pace {
  private readonly turns = new Turns<() => void>();
  private going = false;

  /** Resolves when the request may begin, at once where nothing else does; `false` where too many wait. */
  async begin(asker: string): Promise<boolean> {
    if (!this.going) {
      this.going = true;
      setImmediate(this.next);
      return true;
    }
    if (this.turns.size >= MOST_WAITING) return false;
    await new Promise<void>((resolve) => this.turns.add({ asker, value: resolve }));
    return true;
  }

  private readonly next = (): void => {
    const turn = this.turns.next();
    if (!turn) {
      this.going = false;
      return;
    }
    turn.value();
    setImmediate(this.next);
  };
}
