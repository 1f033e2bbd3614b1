import type {
  LayoutData,
  LayoutInUse,
  LayoutSince,
  LoggedChange,
  PageForUse,
  PatternForUse,
} from '$lib/contract/data';
import type { Failure } from '$lib/contract/failure';
import { applyChanges } from '$lib/core/recipe/layout-changes';
import { patternFills, layoutsWithin } from '$lib/core/recipe/layout';
import { mergeDocs, sharing, type Clash } from '$lib/core/recipe/merge-layouts';
import { call } from '../state/api';
import type { History } from '../state/history.svelte';
import type { Saver } from '../state/saver.svelte';
import { toasts } from '../state/toasts.svelte';
import { withClash } from './clashes';
import { docOf, type LayoutDoc } from './doc';

/** A clash that waits for somebody to look at it, with whose the other value is. */
export type OpenClash = Clash & { id: number; who: string };

/** A layout that is open, as far as others have to do with it. */
type OpenLayout = {
  readonly id: string;
  readonly history: History<LayoutDoc>;
  readonly saver: Saver<LayoutDoc>;
  readonly patterns: ReadonlyMap<string, PatternForUse>;
  readonly pages: ReadonlyMap<string, PageForUse>;
  refreshPatterns: () => Promise<void>;
  bringInUse: (found: Pick<LayoutInUse, 'patterns' | 'pages'>) => void;
};

/** How often it is looked whether a gesture has ended, ms. */
const LOOK_MS = 100;

/**
 * One's own work on a layout together with that of others. What they saved is taken in as the changes that they made, without reading
 * the layout again; one's own steps stay one's own, with theirs in them.
 */
export class Together {
  /** Fields that others and oneself gave a value at the same time, the last first. */
  clashes: readonly OpenClash[] = $state.raw([]);
  private count = 0;

  constructor(private readonly session: OpenLayout) {}

  /** Brings a refused save together with what was saved meanwhile, once the hand rests; true where it could. */
  async reconcile(failure: Failure): Promise<boolean> {
    const current = failure.current as LayoutSince | LayoutData | undefined;
    if (!current) return false;
    await this.handRests();
    if ('since' in current) this.takeSince(current);
    else this.takeWhole(current);
    return true;
  }

  /** Takes in what was saved elsewhere. A save of one's own is known by its version. */
  async refresh(version?: number): Promise<void> {
    const { saver, id } = this.session;
    await saver.rest();
    if (version !== undefined && version <= saver.version) return;
    const fresh = await call('GET /layouts/{id}/changes', { id, query: { since: saver.version } });
    if (!fresh.ok) return;
    await this.atRest();
    if (fresh.value.since === null) return this.readWhole();
    this.takeSince(fresh.value);
  }

  /** Resolves when no save is under way and nothing is dragged. */
  private async atRest(): Promise<void> {
    const { saver, history } = this.session;
    do {
      await saver.rest();
      await this.handRests();
    } while (history.inGesture || saver.state.kind === 'saving');
  }

  /** Resolves when nothing is dragged: what others did would be pulled from under the hand. */
  private async handRests(): Promise<void> {
    while (this.session.history.inGesture) await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }

  private async readWhole(): Promise<void> {
    const { id } = this.session;
    const whole = await call('GET /layouts/{id}', { id });
    if (!whole.ok) return;
    await this.atRest();
    this.session.bringInUse(whole.value);
    this.takeWhole(whole.value.layout);
  }

  private takeWhole(current: LayoutData): void {
    const { saver } = this.session;
    if (current.version > saver.version) this.take(sharing(saver.saved, docOf(current)), current.version, []);
  }

  private takeSince({ since }: LayoutSince): void {
    const { saver } = this.session;
    const news = (since ?? []).filter(({ version }) => version > saver.version);
    const [first, last] = [news[0], news[news.length - 1]];
    // What is known must go on just where one is; else it was asked for before a save of one's own.
    if (!first || !last || first.version !== saver.version + 1) return;
    const theirs = news.reduce((doc, { changes }) => applyChanges(doc, changes), saver.saved);
    this.take(sharing(saver.saved, theirs), last.version, news);
  }

  private take(theirs: LayoutDoc, version: number, news: readonly LoggedChange[]): void {
    const { history, saver } = this.session;
    const base = saver.saved;
    const { doc, clashes } =
      history.doc === base ? { doc: theirs, clashes: [] } : mergeDocs(base, history.doc, theirs);
    history.adopt(doc);
    saver.rebase(theirs, version);
    saver.want(doc);
    this.tell(clashes, news);
    if (this.lacks(doc)) void this.session.refreshPatterns();
  }

  /** True where somebody filled a shape with what is not at hand yet. */
  private lacks({ shapes }: LayoutDoc): boolean {
    const { patterns, pages } = this.session;
    const held = (id: string, revision: number | null): boolean => {
      const pattern = patterns.get(id);
      return pattern !== undefined && pattern.recipes[revision ?? pattern.newest] !== undefined;
    };
    return shapes.some(
      (shape) =>
        patternFills(shape).some((fill) => !held(fill.pattern, fill.held)) ||
        layoutsWithin(shape).some((id) => !pages.has(id)),
    );
  }

  private tell(clashes: readonly Clash[], news: readonly LoggedChange[]): void {
    if (clashes.length === 0) return;
    const who = (shape: string | null): string => {
      const made = [...news]
        .reverse()
        .find(({ changes }) =>
          changes.some((change) =>
            change.do === 'patch-shape' || change.do === 'remove-shape'
              ? change.id === shape
              : change.do === 'put-shape'
                ? change.shape.id === shape
                : change.do === 'page' && shape === null,
          ),
        );
      return made?.by ?? 'Somebody';
    };
    const open = clashes.map((clash) => ({ ...clash, id: (this.count += 1), who: who(clash.shape) }));
    for (const { kind, name, who: by } of open)
      if (kind === 'gone')
        toasts.problem(`${by} took “${name}” away while you changed it. It stays, as you have it.`);
    this.clashes = [...open.filter(({ kind }) => kind === 'field'), ...this.clashes].slice(0, 100);
  }

  /** Takes back work that was kept in this browser, as one step; where it clashes with what was saved since is asked. */
  bringBack(base: LayoutDoc, doc: LayoutDoc): void {
    const { history } = this.session;
    const merged = mergeDocs(base, doc, history.doc);
    this.tell(merged.clashes, []);
    history.commit(merged.doc);
  }

  /** Settles a clash: theirs stays, or one's own value is put in its place, as a step that can be undone. */
  settle(id: number, takes: 'mine' | 'theirs'): void {
    const clash = this.clashes.find((one) => one.id === id);
    this.clashes = this.clashes.filter((one) => one.id !== id);
    if (!clash || takes === 'theirs') return;
    const { history } = this.session;
    const next = withClash(history.doc, clash);
    if (next) history.commit(next);
    else toasts.problem(`“${clash.name}” is not there any more, so that nothing was changed.`);
  }
}
