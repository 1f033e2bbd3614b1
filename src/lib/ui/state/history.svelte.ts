/** How many steps back are kept; interface.md asks for at least 200. */
const DEEPEST = 500;

/**
 * A document with undo and redo. Documents are never changed in place: every change makes a new one that shares what
 * stayed the same. A gesture (a drag) shows many states with `live` and becomes one step with `commit`.
 */
export class History<T> {
  doc: T = $state.raw() as T;
  private past: T[] = $state.raw([]);
  private future: T[] = $state.raw([]);
  private base: T | null = $state.raw(null);

  constructor(doc: T) {
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

  /** Shows a state of a gesture. */
  live(doc: T): void {
    this.base ??= this.doc;
    this.doc = doc;
  }

  /** Makes `doc` the present state, one step after the last settled one. */
  commit(doc: T = this.doc): void {
    const before = this.settled;
    this.base = null;
    this.doc = doc;
    if (doc === before) return;
    this.past = [...this.past.slice(-DEEPEST + 1), before];
    this.future = [];
  }

  /** Ends a gesture as if it had not been. */
  cancel(): void {
    if (this.base === null) return;
    this.doc = this.base;
    this.base = null;
  }

  undo(): void {
    this.cancel();
    const before = this.past[this.past.length - 1];
    if (before === undefined) return;
    this.past = this.past.slice(0, -1);
    this.future = [this.doc, ...this.future];
    this.doc = before;
  }

  redo(): void {
    this.cancel();
    const [next, ...rest] = this.future;
    if (next === undefined) return;
    this.future = rest;
    this.past = [...this.past, this.doc];
    this.doc = next;
  }
}
