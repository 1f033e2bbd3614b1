import type { Failure, Outcome } from '../../contract/failure';

export type SaveState =
  | { kind: 'saved' }
  | { kind: 'pending' }
  | { kind: 'saving' }
  | { kind: 'failed'; message: string }
  | { kind: 'stale'; failure: Failure };

/** Saves `next`, knowing what was saved last and its version; answers the new version. */
export type Save<T> = (next: T, last: T, version: number) => Promise<Outcome<{ version: number }>>;

const WAIT_MS = 250;
const RETRY_MS = 4000;
/** What goes by without the document being changed: too much to do, a full disk, a server that is started again. */
const PASSING = new Set<string>(['internal', 'busy', 'stopping', 'no_space', 'too_heavy', 'signed_out']);

/**
 * Saves a document by itself, a moment after each change, one save at a time. A failed save is tried again; a stale
 * one waits for a decision. What the server has acknowledged is `last`.
 */
export class Saver<T> {
  state: SaveState = $state({ kind: 'saved' });
  version: number = $state(0);
  private last: T;
  private wanted: T;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private running: Promise<void> | null = null;

  constructor(
    doc: T,
    version: number,
    private readonly save: Save<T>,
    /** Brings a stale save together with what is stored; `true` where it could, and the save goes on. */
    private readonly reconcile: (failure: Failure, last: T) => boolean | Promise<boolean> = () => false,
  ) {
    this.last = doc;
    this.wanted = doc;
    this.version = version;
  }

  get clean(): boolean {
    return this.state.kind === 'saved';
  }

  /** Notes a new state of the document; called for settled states only. */
  want(doc: T): void {
    if (doc === this.wanted) return;
    this.wanted = doc;
    if (this.state.kind === 'stale') return;
    if (doc === this.last) {
      this.stopTimer();
      if (!this.running) this.state = { kind: 'saved' };
      return;
    }
    if (this.state.kind !== 'failed') this.state = { kind: 'pending' };
    this.later(WAIT_MS);
  }

  /** Saves at once and waits for it; true where all is saved. */
  async flush(): Promise<boolean> {
    this.stopTimer();
    while (this.running) await this.running;
    if (this.wanted !== this.last && this.state.kind !== 'stale') await this.run();
    return this.clean;
  }

  /** What the server has acknowledged last. */
  get saved(): T {
    return this.last;
  }

  /** Resolves once no save is under way. */
  async rest(): Promise<void> {
    while (this.running) await this.running;
  }

  /** Takes `doc` at `version` as saved: what the server has now. */
  rebase(doc: T, version: number): void {
    this.last = doc;
    this.version = version;
    this.state = this.wanted === doc ? { kind: 'saved' } : { kind: 'pending' };
    if (this.wanted !== doc) this.later(0);
  }

  private later(ms: number): void {
    this.stopTimer();
    this.timer = setTimeout(() => {
      this.timer = null;
      void this.run();
    }, ms);
  }

  private stopTimer(): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
  }

  private run(): Promise<void> {
    if (this.running) return this.running;
    this.running = this.attempt().finally(() => (this.running = null));
    return this.running;
  }

  private async attempt(): Promise<void> {
    while (this.wanted !== this.last) {
      const next = this.wanted;
      this.state = { kind: 'saving' };
      const outcome = await this.save(next, this.last, this.version);
      if (outcome.ok) {
        this.last = next;
        this.version = outcome.value.version;
        continue;
      }
      const { failure } = outcome;
      if (failure.code === 'stale') {
        if (await this.reconcile(failure, this.last)) continue;
        this.state = { kind: 'stale', failure };
        return;
      }
      this.state = { kind: 'failed', message: failure.message };
      if (PASSING.has(failure.code)) this.later(RETRY_MS);
      return;
    }
    this.state = { kind: 'saved' };
  }
}
