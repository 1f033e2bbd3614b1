import { runNow } from './run';

/** How many steps back are kept; interface.md asks for at least 200. */
const DEEPEST = 500;
/** Changes of one run that follow each other within this time are one step, ms. */
const RUN_MS = 1000;

/**
 * A document with undo and redo. Documents are never changed in place: every change makes a new one that shares what
 * stayed the same. A gesture (a drag) shows many states with `live` and becomes one step with `commit`; so do the small
 * changes of one run (see `run.ts`).
 */
export class History<T> {
  doc: T = $state.raw() as T;
  private past: T[] = $state.raw([]);
  private future: T[] = $state.raw([]);
  private base: T | null = $state.raw(null);
  /** The run that made the last step, and when. */
  private last: { run: string; at: number } | null = null;

  /** `guard` answers what may become of a wanted state, given the one before: what must not change stays. */
  constructor(
    doc: T,
    private readonly guard: (before: T, wanted: T) => T = (_before, wanted) => wanted,
  ) {
    this.doc = doc;
  }

  get canUndo(): boolean {
    return this.past.length > 0;
  }

  get canRedo(): boolean {
    return this.future.length > 0;
  }

  /** True between the first `live` and `commit` or `cancel`. */
  get inGesture(): boolean {
    return this.base !== null;
  }

  /** The document before the present gesture, or the present one. */
  get settled(): T {
    return this.base ?? this.doc;
  }

  /** The document before the last step. */
  get previous(): T {
    return this.past[this.past.length - 1] ?? this.doc;
  }

  /** The states that one can go back to, the latest last, and those one can go forward to, the nearest first. */
  get steps(): { past: readonly T[]; future: readonly T[] } {
    return { past: this.past, future: this.future };
  }

  restore({ past, future }: { past: T[]; future: T[] }): void {
    [this.past, this.future] = [past, future];
  }

  /** Shows a state of a gesture. */
  live(doc: T): void {
    this.base ??= this.doc;
    this.doc = this.guard(this.base, doc);
  }

  /** Makes `doc` the present state, one step after the last settled one. */
  commit(doc: T = this.doc): void {
    const before = this.settled;
    const next = doc === this.doc ? doc : this.guard(before, doc);
    this.base = null;
    this.doc = next;
    if (next === before) return;
    const run = runNow();
    const at = Date.now();
    const goesOn = run !== null && this.last?.run === run && at - this.last.at < RUN_MS;
    this.last = run === null ? null : { run, at };
    if (!goesOn) this.past = [...this.past.slice(-DEEPEST + 1), before];
    this.future = [];
  }

  /**
   * Takes over what others did: it is no step of this history. `brought` brings it into each state that one can go back
   * or forward to.
   */
  adopt(doc: T, brought: (held: T) => T): void {
    this.cancel();
    this.last = null;
    this.doc = doc;
    this.past = this.past.map(brought);
    this.future = this.future.map(brought);
  }

  /** Ends a gesture as if it had not been. */
  cancel(): void {
    if (this.base === null) return;
    this.doc = this.base;
    this.base = null;
  }

  /** Gives up the gesture that is under way, or takes the last step back. */
  undo(): void {
    this.last = null;
    if (this.inGesture) return this.cancel();
    const before = this.past[this.past.length - 1];
    if (before === undefined) return;
    this.past = this.past.slice(0, -1);
    this.future = [this.doc, ...this.future];
    this.doc = before;
  }

  redo(): void {
    this.cancel();
    this.last = null;
    const [next, ...rest] = this.future;
    if (next === undefined) return;
    this.future = rest;
    this.past = [...this.past, this.doc];
    this.doc = next;
  }
}
