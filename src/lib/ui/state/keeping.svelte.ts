import { onMount } from 'svelte';
import { page } from '$app/state';
import type { Me } from '$lib/contract/people';
import type { History } from './history.svelte';
import { dropWork, holdView, keepWork, takeKept } from './kept';
import { line } from './line.svelte';
import type { Saver } from './saver.svelte';
import { toasts } from './toasts.svelte';

/** After so long without being saved, work is kept in the browser, ms. */
const KEEP_MS = 400;

/** Something that is open and saves itself. */
type Keepable<T> = {
  /** What it is, as `layout 7f3`; `null` as long as it is nothing that could be opened again. */
  what: () => string | null;
  saver: Saver<T>;
  history: History<T>;
  /** Whoever may only look now keeps their work until they may change it again. */
  mayChange?: () => boolean;
  /** Takes back a document that was not saved; `base` was saved as `version` when it was changed. */
  bring: (base: T, doc: T, version: number) => void;
};

/**
 * Keeps what is not saved yet in this browser, so that it outlives a reload or a crash, and brings it back when the same is
 * opened again. Called while a view is made.
 */
export function keepUnsaved<T>({ what, saver, history, bring, mayChange = () => true }: Keepable<T>): void {
  const person = (page.data.me as Me | null)?.person.id ?? '';
  let timer: ReturnType<typeof setTimeout> | undefined;
  let kept: string | null = null;
  const keep = (): void => {
    const of = what();
    if (of === null || saver.clean) return;
    kept = of;
    const { saved: base, version } = saver;
    void keepWork<T>(of, { person, base, version, doc: history.settled, at: Date.now() });
  };
  $effect(() => {
    void history.doc;
    clearTimeout(timer);
    if (saver.state.kind !== 'saved') timer = setTimeout(keep, KEEP_MS);
    else if (kept !== null) {
      void dropWork(kept);
      kept = null;
    }
  });
  onMount(() => {
    holdView();
    const of = what();
    if (of !== null && mayChange()) void back(of);
    const away = line.onback(() => void saver.flush());
    return () => {
      clearTimeout(timer);
      away();
    };
  });

  async function back(of: string): Promise<void> {
    for (const { base, doc, version } of await takeKept<T>(of, person)) {
      bring(base, doc, version);
      toasts.show('Work that was not saved when this was closed is back.', {
        action: { label: 'Undo', run: () => history.undo() },
      });
    }
  }
}
