/** What has steps: a history. */
type Steps = {
  /** How many steps one can go back. */
  readonly depth: number;
  undo: () => void;
  redo: () => void;
};

/** Several histories that are undone as one, the step that was made last first. */
export class StepOrder {
  private readonly known = new Map<Steps, number>();
  private done: Steps[] = [];
  private undone: Steps[] = [];

  /** Notes what was stepped since the last look. Call it whenever a history may have changed. */
  see(all: readonly Steps[]): void {
    for (const one of all) {
      const count = one.depth;
      const before = this.known.get(one) ?? 0;
      this.known.set(one, count);
      for (let at = before; at < count; at += 1) this.done.push(one);
      if (count > before) this.undone = [];
      // Steps that went without an undo are no steps any more.
      for (let at = count; at < before; at += 1) {
        const last = this.done.lastIndexOf(one);
        if (last >= 0) this.done.splice(last, 1);
      }
    }
  }

  undo(): void {
    const last = this.done.pop();
    if (!last) return;
    this.move(last, () => last.undo());
    this.undone.push(last);
  }

  redo(): void {
    const next = this.undone.pop();
    if (!next) return;
    this.move(next, () => next.redo());
    this.done.push(next);
  }

  private move(one: Steps, step: () => void): void {
    step();
    this.known.set(one, one.depth);
  }
}
