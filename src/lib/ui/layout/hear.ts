import type { PaletteData } from '$lib/contract/data';
import type { LayoutProof } from '../proof/layout-proof.svelte';
import type { LayoutPlates } from '../plates/layout-plates.svelte';
import { call } from '../state/api';
import { linksFrom } from '../state/links';
import { onLive } from '../state/live';
import type { LayoutEditor } from './editor.svelte';

/**
 * What is changed elsewhere shows in an open layout: colours of palettes, patterns, layouts that lie in it, the limits of its proof, its press, and
 * the layout itself. Called while a view is made.
 */
export function hearChanges(
  editor: LayoutEditor,
  { proof, plates }: { proof: LayoutProof; plates: LayoutPlates },
  onpalettes: (palettes: PaletteData[]) => void,
): void {
  onLive(
    ['palette.', 'pattern.', 'layout.changed', 'project.proof', 'project.press', 'press.'],
    async (events) => {
      const isAbout = (kind: string, id: string): boolean =>
        events.some((event) => event.kind === kind && (event.subject === '' || event.subject === id));
      if (isAbout('project.proof', editor.projectId)) await proof.refresh();
      if (isAbout('project.press', editor.projectId) || events.some(({ kind }) => kind.startsWith('press.')))
        await plates.refresh();
      if (events.some(({ kind }) => kind.startsWith('palette.'))) {
        plates.stale();
        const fresh = await call('GET /palettes');
        if (fresh.ok) {
          onpalettes(fresh.value);
          editor.links = linksFrom(fresh.value, editor.links);
        }
      }
      const isShown = events.some(
        ({ kind, subject }) =>
          (kind.startsWith('pattern.') && (subject === '' || editor.patterns.has(subject))) ||
          (kind === 'layout.changed' && editor.pages.has(subject)),
      );
      if (isShown) await editor.refreshPatterns();
      const heard = events.filter(
        ({ kind, subject }) => kind === 'layout.changed' && (subject === '' || subject === editor.id),
      );
      if (heard.some(({ version }) => version === undefined)) await editor.refreshLayout();
      else if (heard.length > 0)
        await editor.refreshLayout(Math.max(...heard.map((one) => one.version ?? 0)));
    },
  );
}
