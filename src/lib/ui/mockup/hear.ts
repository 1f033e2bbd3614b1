import type { PaletteData } from '$lib/contract/data';
import { call } from '../state/api';
import { linksFrom } from '../state/links';
import { onLive } from '../state/live';
import type { MockupSession } from './session.svelte';

/** What is changed elsewhere shows in an open mock-up: palettes, patterns, layouts, and itself. Called while a view is made. */
export function hearChanges(session: MockupSession, onpalettes: (palettes: PaletteData[]) => void): void {
  onLive(['palette.', 'pattern.', 'layout.', 'mockup.changed'], async (events) => {
    const editors = [...session.editors.values()];
    if (events.some(({ kind }) => kind.startsWith('palette.'))) {
      const fresh = await call('GET /palettes');
      if (fresh.ok) {
        onpalettes(
          fresh.value.filter((held) => held.projectId === null || held.projectId === session.projectId),
        );
        for (const held of editors) held.links = linksFrom(fresh.value, held.links);
      }
    }
    for (const held of editors) {
      const isUsed = ({ kind, subject }: (typeof events)[number]): boolean =>
        (kind.startsWith('pattern.') && (subject === '' || held.patterns.has(subject))) ||
        (kind === 'layout.changed' && held.pages.has(subject));
      if (events.some(isUsed)) await held.refreshPatterns();
      const heard = events.filter(
        ({ kind, subject }) => kind === 'layout.changed' && (subject === '' || subject === held.id),
      );
      if (heard.length > 0) await held.refreshLayout(newest(heard));
    }
    if (events.some(({ kind }) => kind.startsWith('layout.') && kind !== 'layout.changed'))
      await session.refreshList();
    const own = events.filter(
      ({ kind, subject }) => kind === 'mockup.changed' && (subject === session.id || subject === ''),
    );
    if (own.length > 0) await session.refresh(newest(own));
  });
}

const newest = (heard: readonly { version?: number }[]): number | undefined =>
  heard.some(({ version }) => version === undefined)
    ? undefined
    : Math.max(...heard.map(({ version }) => version ?? 0));
