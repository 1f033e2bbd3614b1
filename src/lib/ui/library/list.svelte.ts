import { untrack } from 'svelte';
import { SvelteMap, SvelteSet } from 'svelte/reactivity';
import type { FoundPatterns, Instead, PatternSummary } from '$lib/contract/data';
import type { PatternQuery } from '$lib/contract/given';
import { call } from '../state/api';
import { PAGE } from './query';
import { toasts } from '../state/toasts.svelte';

/**
 * A long list of patterns of which only what is looked at is fetched, page by page. `restart` begins anew with another
 * query and its first page; pages that arrive late for an older query are dropped.
 */
export class PatternList {
  total = $state(0);
  /** What words that no pattern has were taken for. */
  instead: Instead[] = $state.raw([]);
  /** Counts the queries: a new one shows other patterns. */
  begun = $state(0);
  private readonly pages = new SvelteMap<number, PatternSummary[]>();
  private readonly asked = new Set<number>();
  private query: PatternQuery = {};
  private key = '';
  /** Seen by effects that call `need`, so that they ask anew. */
  private turn = $state(0);

  /**
   * Answers whether that is another query than before. The same one asks anew for what is looked at, and shows what it has
   * until the answer is there.
   */
  restart(query: PatternQuery, first: FoundPatterns): boolean {
    const key = JSON.stringify(query);
    const another = key !== this.key;
    if (another) {
      this.pages.clear();
      this.begun += 1;
    }
    this.key = key;
    this.query = query;
    this.turn += 1;
    this.total = first.total;
    this.instead = first.instead ?? [];
    this.asked.clear();
    this.asked.add(0);
    this.pages.set(0, first.patterns);
    return another;
  }

  /** The pattern at a place of the list, or `undefined` while it is on its way. */
  at(index: number): PatternSummary | undefined {
    return this.pages.get(Math.floor(index / PAGE))?.[index % PAGE];
  }

  /** All that is here already, in order. */
  get loaded(): PatternSummary[] {
    return [...this.pages.entries()].sort(([one], [other]) => one - other).flatMap(([, page]) => page);
  }

  /** Fetches what is missing between two places. */
  async need(from: number, to: number): Promise<void> {
    void this.turn;
    const first = Math.floor(Math.max(0, from) / PAGE);
    const last = Math.floor(Math.max(0, Math.min(to, this.total - 1)) / PAGE);
    const missing: number[] = [];
    for (let page = first; page <= last; page += 1) if (!this.asked.has(page)) missing.push(page);
    await Promise.all(missing.map((page) => this.fetch(page)));
  }

  private async fetch(page: number): Promise<void> {
    const { turn } = this;
    this.asked.add(page);
    const query = { ...this.query, limit: PAGE, offset: page * PAGE };
    const found = await call('GET /patterns', { query });
    if (turn !== this.turn) return;
    if (!found.ok) {
      this.asked.delete(page);
      toasts.problem(found.failure.message);
      return;
    }
    this.total = found.value.total;
    this.pages.set(page, found.value.patterns);
  }

  /** The ids of all patterns of the list, fetched or not. */
  async allIds(): Promise<string[]> {
    const ids: string[] = [];
    for (let offset = 0; offset < this.total; offset += 1000) {
      const found = await call('GET /patterns', { query: { ...this.query, limit: 1000, offset } });
      if (!found.ok) {
        toasts.problem(found.failure.message);
        break;
      }
      ids.push(...found.value.patterns.map((pattern) => pattern.id));
    }
    return ids;
  }
}

/** Runs before a view of the list shows the answer to another query; called while the view is set up. */
export function whenBegun(list: PatternList, run: () => void): void {
  let begun = untrack(() => list.begun);
  $effect.pre(() => {
    if (list.begun === begun) return;
    begun = list.begun;
    untrack(run);
  });
}

/** Which patterns of a list are chosen, and where the keyboard is. */
export class Choosing {
  readonly ids = new SvelteSet<string>();
  /** The place of the list that the keyboard is at; −1 before anything was chosen. */
  at = $state(-1);
  private anchor = 0;

  constructor(private readonly list: PatternList) {}

  get only(): PatternSummary | null {
    const pattern = this.list.at(this.at);
    return this.ids.size === 1 && pattern && this.ids.has(pattern.id) ? pattern : null;
  }

  clear(): void {
    this.ids.clear();
  }

  /** Chooses the pattern at a place: alone, added or taken out with `toggle`, all from the last one with `range`. */
  choose(index: number, { toggle = false, range = false } = {}): void {
    const pattern = this.list.at(index);
    if (!pattern) return;
    this.at = index;
    if (range) {
      this.ids.clear();
      const [from, to] = [Math.min(this.anchor, index), Math.max(this.anchor, index)];
      for (let place = from; place <= to; place += 1) {
        const held = this.list.at(place);
        if (held) this.ids.add(held.id);
      }
      return;
    }
    this.anchor = index;
    if (toggle) {
      if (!this.ids.delete(pattern.id)) this.ids.add(pattern.id);
      return;
    }
    this.ids.clear();
    this.ids.add(pattern.id);
  }
}
