import { onMount } from 'svelte';
import { SvelteMap } from 'svelte/reactivity';
import type { Presence } from '$lib/contract/live';
import { ask, call, VIEW } from '../state/api';
import { listen } from '../state/live';

/** One says where one is at least so often, and at most so often, ms. */
const ALIVE_MS = 15_000;
const SOONEST_MS = 120;

/** What one tells of oneself beside where one is. */
export type Tells = Pick<Presence, 'selected' | 'sees'>;

/** Who else has a layout or a pattern open, each by their window. */
export class Presences {
  readonly others = new SvelteMap<string, Presence>();
  private waiting: ReturnType<typeof setTimeout> | undefined;
  private told = 0;

  constructor(
    private readonly kind: Presence['kind'],
    /** What is open; `null` while it is nothing that others know. */
    private readonly id: () => string | null,
    private readonly tells: () => Tells = () => ({ selected: [], sees: null }),
  ) {}

  /** Called while a view is made: tells where one is, and hears of the others. */
  follow(): void {
    $effect(() => {
      void [this.id(), this.tells()];
      this.soon();
    });
    onMount(() => {
      const stop = listen(({ kind, subject, here }) => {
        if (kind !== 'here') return;
        if (!here) return void this.say();
        if (subject === this.id()) this.heard(here);
      });
      const alive = setInterval(() => void this.say(), ALIVE_MS);
      const leave = (): void => this.leave();
      addEventListener('pagehide', leave);
      return () => {
        removeEventListener('pagehide', leave);
        stop();
        clearInterval(alive);
        clearTimeout(this.waiting);
        this.leave();
      };
    });
  }

  private heard(here: Presence): void {
    if (here.view === VIEW) return;
    if (here.left) this.others.delete(here.view);
    else this.others.set(here.view, here);
  }

  private soon(): void {
    clearTimeout(this.waiting);
    const wait = Math.max(SOONEST_MS, this.told + SOONEST_MS - Date.now());
    this.waiting = setTimeout(() => void this.say(), wait);
  }

  private async say(): Promise<void> {
    this.told = Date.now();
    const id = this.id();
    if (id === null) return;
    const where = { kind: this.kind, id, ...this.tells() };
    const found = await call('POST /presence', { body: { where } });
    if (!found.ok) return;
    const views = new Set(found.value.map(({ view }) => view));
    for (const view of [...this.others.keys()]) if (!views.has(view)) this.others.delete(view);
    for (const one of found.value) this.heard(one);
  }

  /** Says that one is gone, also while the window is being closed. */
  private leave(): void {
    void ask('POST /presence', { body: { where: null } }, { keepalive: true }).catch(() => undefined);
  }
}
