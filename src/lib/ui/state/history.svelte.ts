import { runNow } from './run';

/** How many steps back are kept; interface.md asks for at least 200. */
const DEEPEST = 500;
/** Changes of one run that follow each other within this time are one step, ms. */
const RUN_MS = 1000;

/** One's own step: the document before and after it. */
export type Step<T> = { before: T; after: T };

/**
 * A document with undo and redo. Documents are never changed in place: every change makes a new one that shares what
 * stayed the same. A gesture (a drag) shows many states with `live` and becomes one step with `commit`; so do the small
 * changes of one run (see `run.ts`). Steps are one's own: what others did meanwhile is in the document and in no step, and to
 * go back undoes what one's step changed in it, nothing else.
 */
export class History<T> {
  doc: T = $state.raw() as T;
  private past: readonly Step<T>[] = $state.raw([]);
  private future: readonly Step<T>[] = $state.raw([]);
  private base: T | null = $state.raw(null);
  /** The run that made the last step, and when. */
  private last: { run: string; at: number } | null = null;

  /**
   * `guard` answers what may become of a wanted state, given the one before: what must not change stays. `carry` does to a document
   * what leads from one state to another, where it is not that state any more.
   */
  constructor(
    doc: T,
    private readonly guard: (before: T, wanted: T) => T = (_before, wanted) => wanted,
    private readonly carry: (from: T, to: T, doc: T) => T = (_from, to) => to,
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

  /** The document without the last step. */
  get previous(): T {
    const step = this.past[this.past.length - 1];
    return step ? this.from(this.doc, step.after, step.before) : this.doc;
  }

  /** The states that one can go back to, the latest last, and those one can go forward to, the nearest first. */
  get steps(): { past: readonly T[]; future: readonly T[] } {
    const past: T[] = [];
    let doc = this.settled;
    for (const { before, after } of [...this.past].reverse())
      past.unshift((doc = this.from(doc, after, before)));
    doc = this.settled;
    return { past, future: this.future.map(({ before, after }) => (doc = this.from(doc, before, after))) };
  }

  /** How many steps one can go back. */
  get depth(): number {
    return this.past.length;
  }

  /** Gives a document that was just opened the states before and after it. */
  restore({ past, future }: { past: readonly T[]; future: readonly T[] }): void {
    const pairs = (states: readonly T[]): Step<T>[] =>
      states.slice(1).map((after, index) => ({ before: states[index] as T, after }));
    this.past = pairs([...past, this.doc]);
    this.future = pairs([this.doc, ...future]);
  }

  /** Shows a state of a gesture. */
  live(doc: T): void {
    this.base ??= this.doc;
    this.doc = this.guard(this.base, doc);
  }

  /** Makes `doc` the present state, one step after the last settled one. */
  commit(doc: T = this.doc): void {
    const before = this.settled;
    const after = doc === this.doc ? doc : this.guard(before, doc);
    this.base = null;
    this.doc = after;
    if (after === before) return;
    const run = runNow();
    const at = Date.now();
    const goesOn = run !== null && this.last?.run === run && at - this.last.at < RUN_MS;
    this.last = run === null ? null : { run, at };
    const step = this.past[this.past.length - 1];
    this.past =
      goesOn && step
        ? [...this.past.slice(0, -1), { before: step.before, after }]
        : [...this.past.slice(-DEEPEST + 1), { before, after }];
    this.future = [];
  }

  /** Takes over what others did, or what is no step: the steps stay what one did oneself. */
  adopt(doc: T): void {
    this.cancel();
    this.last = null;
    this.doc = doc;
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
    const step = this.past[this.past.length - 1];
    if (!step) return;
    this.past = this.past.slice(0, -1);
    this.future = [step, ...this.future];
    this.doc = this.from(this.doc, step.after, step.before);
  }

  redo(): void {
    this.cancel();
    this.last = null;
    const [step, ...rest] = this.future;
    if (!step) return;
    this.future = rest;
    this.past = [...this.past, step];
    this.doc = this.from(this.doc, step.before, step.after);
  }

  private from(doc: T, from: T, to: T): T {
    return doc === from ? to : this.carry(from, to, doc);
  }
}
