/** One ask that waits for its turn. */
export type Turn<T> = { asker: string; value: T };

/**
 * A queue in which everyone who asks has a turn in turn: the next is the oldest ask of whoever has waited longest since
 * their last one. So one who asks for a hundred things does not keep another waiting for all of them.
 */
export class Turns<T> {
  /** Asks by asker; the map's order is the order of turns. */
  private readonly held = new Map<string, Turn<T>[]>();
  size = 0;

  add(turn: Turn<T>): void {
    const own = this.held.get(turn.asker);
    if (own) own.push(turn);
    else this.held.set(turn.asker, [turn]);
    this.size += 1;
  }

  /** Takes the ask out whose turn it is. */
  next(): Turn<T> | null {
    for (const [asker, own] of this.held) {
      const turn = own.shift();
      this.held.delete(asker);
      if (own.length > 0) this.held.set(asker, own);
      if (!turn) continue;
      this.size -= 1;
      return turn;
    }
    return null;
  }

  /** Takes an ask out that is not wanted any more; false where it is not here. */
  remove(turn: Turn<T>): boolean {
    const own = this.held.get(turn.asker);
    const at = own?.indexOf(turn) ?? -1;
    if (!own || at < 0) return false;
    own.splice(at, 1);
    if (own.length === 0) this.held.delete(turn.asker);
    this.size -= 1;
    return true;
  }

  /** How many asks come before this one if nothing else is asked, or `null` where it is not here. */
  ahead(turn: Turn<T>): number | null {
    const rank = this.held.get(turn.asker)?.indexOf(turn) ?? -1;
    if (rank < 0) return null;
    let ahead = 0;
    let before = true;
    for (const [asker, own] of this.held) {
      if (asker === turn.asker) {
        ahead += rank;
        before = false;
      } else ahead += Math.min(own.length, before ? rank + 1 : rank);
    }
    return ahead;
  }
}
