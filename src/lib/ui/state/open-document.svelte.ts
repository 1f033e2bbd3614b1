import type { Outcome } from '$lib/contract/failure';
import { sameValue } from '$lib/core/num/same';
import { onlyBy } from './look-on';
import { History } from './history.svelte';
import { Saver } from './saver.svelte';

/** A document as it is edited: its name and what it holds. */
export type Doc<Body> = { name: string; body: Body };
/** A document as the server gives it. */
type Stored<Body> = Doc<Body> & { version: number };

/** How a document is read and saved. */
export type DocumentApi<Body, Data> = {
  fetch: () => Promise<Outcome<Data>>;
  save: (doc: Doc<Body> & { base: number }) => Promise<Outcome<{ version: number }>>;
};

/** A document that is open and saved as a whole: its steps, its saving, and what others make of it. */
export class OpenDocument<Body, Data extends Stored<Body>> {
  /** Whether whoever has it open may change it. */
  mayChange = true;
  readonly history: History<Doc<Body>>;
  readonly saver: Saver<Doc<Body>>;

  /** `api` is how the server has it; `ready` brings at hand what a body needs before it is shown. */
  constructor(
    data: Data,
    private readonly api: DocumentApi<Body, Data>,
    private readonly ready: (body: Body) => Promise<void> = () => Promise.resolve(),
    what = 'document',
  ) {
    const doc = { name: data.name, body: data.body };
    this.history = new History(
      doc,
      onlyBy(() => this.mayChange, what),
      (from, to, now) => brought(to, from, now),
    );
    this.saver = new Saver(
      doc,
      data.version,
      (next, _last, base) => api.save({ base, ...next }),
      (failure, last) => this.mergeWith((failure.current as Data | null) ?? null, last),
    );
  }

  get doc(): Doc<Body> {
    return this.history.doc;
  }

  /** Changes what it holds as one step, or as part of a gesture with `live`. */
  change(change: (body: Body) => Body, live = false): void {
    const from = live ? this.history.settled : this.history.doc;
    const next = { ...from, body: change(from.body) };
    if (live) this.history.live(next);
    else this.history.commit(next);
  }

  rename(name: string): void {
    this.history.commit({ ...this.history.doc, name });
  }

  fetch(): Promise<Outcome<Data>> {
    return this.api.fetch();
  }

  /**
   * Takes over what was saved elsewhere, unless there is work of one's own under way: then the next save sees to it. It is no step
   * of one's own: what they changed is in every state that one can go back to.
   */
  async refresh(version = Infinity): Promise<Data | null> {
    await this.saver.rest();
    if (version <= this.saver.version) return null;
    const found = await this.fetch();
    if (!found.ok) return null;
    const { name, body, version: now } = found.value;
    await this.ready(body);
    if (now <= this.saver.version || !this.saver.clean || this.history.inGesture) return found.value;
    const theirs = { name, body };
    this.history.adopt(theirs);
    this.saver.want(theirs);
    this.saver.rebase(theirs, now);
    return found.value;
  }

  /** Brings a refused save together with what is stored, where they are about different parts; true where they are. */
  private mergeWith(current: Data | null, base: Doc<Body>): boolean {
    if (!current || this.history.inGesture) return false;
    const theirs = { name: current.name, body: current.body };
    const mine = this.history.doc;
    const both = partsOf(base, theirs).filter((part) => partsOf(base, mine).includes(part));
    if (both.length > 0) return false;
    const doc = brought(mine, base, theirs);
    this.history.adopt(doc);
    this.saver.rebase(theirs, current.version);
    this.saver.want(doc);
    void this.ready(doc.body);
    return true;
  }

  /** Takes back what was not saved when it was made of `base`: its parts, put into the document as it is now, as one step. */
  async bringBack(base: Doc<Body>, doc: Doc<Body>): Promise<void> {
    const back = brought(this.history.doc, base, doc);
    await this.ready(back.body);
    this.history.commit(back);
  }

  /** What was saved elsewhere meanwhile, where a save of one's own was refused for it. */
  get stale(): { message: string; current: Data | null } | null {
    const { state } = this.saver;
    if (state.kind !== 'stale') return null;
    return { message: state.failure.message, current: (state.failure.current as Data | null) ?? null };
  }

  /** Saves one's own state over what was saved elsewhere. */
  keepMine(): void {
    const current = this.stale?.current;
    if (current) this.saver.rebase({ name: current.name, body: current.body }, current.version);
  }

  /** Shows what was saved elsewhere; undo brings one's own back. */
  async takeTheirs(): Promise<void> {
    const current = this.stale?.current;
    if (!current) return;
    await this.ready(current.body);
    const doc = { name: current.name, body: current.body };
    this.history.commit(doc);
    this.saver.want(doc);
    this.saver.rebase(doc, current.version);
  }
}

/** The parts of a document that are others than they were: its name, and what its body has by names. */
function partsOf<Body>(base: Doc<Body>, other: Doc<Body>): string[] {
  const [from, to] = [partsIn(base), partsIn(other)];
  return [...new Set([...Object.keys(from), ...Object.keys(to)])].filter(
    (part) => !sameValue(from[part], to[part]),
  );
}

/** A state with the parts that are others in `theirs` than in `base` as they are there. */
function brought<Body>(held: Doc<Body>, base: Doc<Body>, theirs: Doc<Body>): Doc<Body> {
  const changed = partsOf(base, theirs);
  if (changed.length === 0) return held;
  const [all, now] = [partsIn(held), partsIn(theirs)];
  const { [NAME]: name, ...body } = {
    ...all,
    ...Object.fromEntries(changed.map((part) => [part, now[part]])),
  };
  return { name: name as string, body: body as Body };
}

const NAME = ' name';
const partsIn = <Body>({ name, body }: Doc<Body>): Record<string, unknown> => ({ [NAME]: name, ...body });
