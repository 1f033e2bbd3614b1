import { onMount } from 'svelte';
import { page } from '$app/state';
import type { Me } from '$lib/contract/people';
import { mergeDocs } from '$lib/core/recipe/merge-layouts';
import { dropWork, holdView, keepWork, takeKept } from '../state/kept';
import { line } from '../state/line.svelte';
import { toasts } from '../state/toasts.svelte';
import type { LayoutDoc } from './doc';
import type { LayoutSession } from './session.svelte';

/** After so long without being saved, work is kept in the browser, ms. */
const KEEP_MS = 400;

/**
 * Keeps what is not saved yet in this browser, so that it outlives a reload or a crash, and brings it back when the layout is
 * opened again. Called while a view is made.
 */
export function keepUnsaved(session: LayoutSession): void {
  const what = `layout ${session.id}`;
  const person = (page.data.me as Me | null)?.person.id ?? '';
  let timer: ReturnType<typeof setTimeout> | undefined;
  let kept = false;
  const keep = (): void => {
    const { saver, history } = session;
    if (saver.clean) return;
    kept = true;
    const { saved: base, version } = saver;
    void keepWork<LayoutDoc>(what, { person, base, version, doc: history.settled, at: Date.now() });
  };
  $effect(() => {
    const { saver, history } = session;
    void history.doc;
    clearTimeout(timer);
    if (saver.state.kind !== 'saved') timer = setTimeout(keep, KEEP_MS);
    else if (kept) {
      kept = false;
      void dropWork(what);
    }
  });
  onMount(() => {
    holdView();
    // Who may only look now keeps it until they may change it again.
    if (session.mayChange) void bringBack(session, what, person);
    const away = line.onback(() => void session.saver.flush());
    return () => {
      clearTimeout(timer);
      away();
    };
  });
}

async function bringBack(session: LayoutSession, what: string, person: string): Promise<void> {
  for (const { base, doc } of await takeKept<LayoutDoc>(what, person)) {
    const merged = mergeDocs(base, doc, session.history.doc);
    session.together.found(merged.clashes);
    session.history.commit(merged.doc);
    toasts.show('Work that was not saved when this was closed is back.');
  }
}
