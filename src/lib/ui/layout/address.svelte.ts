import { replaceState } from '$app/navigation';
import { page } from '$app/state';
import { rememberLayout } from '../state/last-layout';
import type { LayoutEditor } from './editor.svelte';

/** Keeps the one shape that is chosen in the address of its layout, and remembers what was worked on last. Called while a view is made. */
export function keepInAddress(editor: LayoutEditor): void {
  $effect(() => {
    const only = editor.single?.id ?? null;
    if (page.url.searchParams.get('shape') === only && !page.url.searchParams.has('fill')) return;
    const url = new URL(page.url);
    url.searchParams.delete('fill');
    if (only === null) url.searchParams.delete('shape');
    else url.searchParams.set('shape', only);
    try {
      replaceState(url, page.state);
    } catch {
      // The router is not ready before the first navigation has ended; the next selection is noted.
    }
  });
  const chosenIds = $derived(editor.chosen.map(({ id }) => id).join(' '));
  const chosenName = $derived(editor.chosen.length === 1 ? (editor.chosen[0]?.name ?? '') : '');
  $effect(() => {
    if (chosenIds === '') return;
    const shapes = chosenIds.split(' ');
    const what = shapes.length === 1 ? `“${chosenName}”` : `${shapes.length} shapes`;
    rememberLayout({ path: page.url.pathname, shapes, what });
  });
}
