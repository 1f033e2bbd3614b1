import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { SheetData } from '$lib/contract/data';
import { done, fail, type Outcome } from '$lib/contract/failure';
import { freshSheet, SHEET_LIMITS, type ClientSheet, type ShownSheet } from '$lib/core/sheet/client-sheet';
import { toasts } from '../state/toasts.svelte';
import { SheetSession } from './session.svelte';
import { factsOf, offered, usualWidth, type SheetSources } from './sources';

/** What the server keeps of one sheet, and which pictures it was sent. */
const studio = vi.hoisted(() => ({
  data: null as unknown as SheetData,
  shown: null as ShownSheet | null,
  pictures: [] as string[],
  refused: null as string | null,
}));
vi.mock('../state/api', () => ({
  call: (address: string, { body: sent }: { body?: unknown }): Promise<Outcome<unknown>> => {
    if (address.startsWith('GET')) return Promise.resolve(done(structuredClone(studio.data)));
    if (address.endsWith('/shown')) {
      studio.shown = sent as ShownSheet;
      return Promise.resolve(done({ shownAt: 77 }));
    }
    if (address.endsWith('/links')) {
      const link = { ...(sent as { to: string }), token: 't', endsAt: 5, views: 0, answers: 0 };
      studio.data = { ...studio.data, links: [link as never], version: studio.data.version + 1 };
      return Promise.resolve(done({ token: 't', endsAt: 5 }));
    }
    const { name, body } = sent as { name: string; body: ClientSheet };
    studio.data = { ...studio.data, name, body, version: studio.data.version + 1 };
    return Promise.resolve(done({ version: studio.data.version }));
  },
  sendFile: (_address: string, { item }: { item: string }): Promise<Outcome<unknown>> => {
    if (studio.refused) return Promise.resolve(fail('too_heavy', studio.refused));
    studio.pictures.push(item);
    return Promise.resolve(done({}));
  },
}));
// Pictures are drawn by a browser: here each thing has one, and what is gone has none.
vi.mock('./pictures', () => ({
  pictureOf: (_sources: unknown, { of, kind }: { of: string; kind: string }) => {
    if (of === 'broken') return Promise.reject(new Error('no canvas'));
    return Promise.resolve(kind === 'note' || of === 'gone' ? null : {});
  },
}));
vi.mock('../mockup/still', () => ({ blobOf: () => Promise.resolve(new Blob(['x'])) }));

const sources = {
  mockups: [{ id: 'm', name: 'Kiosk set' }],
  layouts: [{ id: 'l', name: 'Poster', width: 960, height: 480, measure: 'px' }],
  patterns: [{ id: 'p', name: 'Gull Flight', facts: null }],
  palettes: [
    {
      ...{ id: 'c', name: 'Lido' },
      colours: [
        { id: '1', name: 'Deep', hex: '#10394d' },
        { id: '2', name: 'Foam', hex: '#e0f0ec' },
      ],
    },
    { id: 'none', name: 'Empty', colours: [] },
  ],
  strikeOffs: [],
} as unknown as SheetSources;

const opened = (): SheetSession => new SheetSession(structuredClone(studio.data));
const ids = (session: SheetSession): string[] => session.body.items.map(({ of }) => of);

beforeEach(() => {
  studio.data = {
    ...{ id: 's', projectId: 'p', projectName: 'P', name: 'For the board', version: 1, updatedAt: 0 },
    ...{ archivedAt: null, shownAt: null, links: [], answers: [], unread: 0 },
    body: freshSheet('For you'),
  } as unknown as SheetData;
  Object.assign(studio, { shown: null, pictures: [], refused: null });
});

describe('a client sheet that is open', () => {
  it('takes things in their order, moves them, changes them and lets them go, each as one step', () => {
    const session = opened();
    for (const of of ['m', 'l', 'p']) session.add(of === 'm' ? 'mock-up' : 'layout', of);
    expect(session.chosen?.of).toBe('p');
    const [first, second] = session.body.items;
    session.move(first!.id, 1);
    expect(ids(session)).toEqual(['l', 'm', 'p']);
    session.move(first!.id, 99);
    expect(ids(session)).toEqual(['l', 'p', 'm']);
    // Where it is at an end already nothing happens, and that is no step.
    const before = session.history.steps.past.length;
    session.move(first!.id, 1);
    session.move('none', -1);
    expect(session.history.steps.past).toHaveLength(before);
    session.changeItem(second!.id, { caption: 'This one', width: 'whole' });
    session.remove(first!.id);
    expect(session.body.items).toMatchObject([{ of: 'l', caption: 'This one', width: 'whole' }, { of: 'p' }]);
    session.history.undo();
    session.history.undo();
    expect(ids(session)).toEqual(['l', 'p', 'm']);
    expect(session.body.items[0]!.caption).toBe('');
  });

  it('holds so many things at most, and says so', () => {
    const session = opened();
    for (let at = 0; at <= SHEET_LIMITS.items; at += 1) session.add('note', '');
    expect(session.body.items).toHaveLength(SHEET_LIMITS.items);
    expect(toasts.list.at(-1)?.message).toContain('at most 60 things');
  });

  it('is shown with a picture of all that has one, with names, sizes and colours as they are then', async () => {
    const session = opened();
    session.add('mock-up', 'm');
    session.add('layout', 'l');
    session.add('layout', 'gone');
    session.add('palette', 'c');
    session.add('note', '');
    session.changeItem(session.body.items[4]!.id, { caption: 'Words' });
    session.saver.want(session.doc);
    const told: number[] = [];
    expect(await session.show(sources, (share) => told.push(share))).toBeNull();
    const items = session.body.items.map(({ id }) => id);
    expect(studio.pictures).toEqual([items[0], items[1], items[3]]);
    expect(told).toEqual([0, 0.2, 0.4, 0.6, 0.8]);
    expect(studio.shown!.items.map(({ title, facts }) => [title, facts])).toEqual([
      ['Kiosk set', ''],
      ['Poster', expect.stringMatching(/960 × 480 px/)],
      ['What was here is gone from the project', ''],
      ['Lido', '2 colours'],
      ['', ''],
    ]);
    expect(studio.shown!.items[3]!.colours).toEqual([
      { name: 'Deep', hex: '#10394d' },
      { name: 'Foam', hex: '#e0f0ec' },
    ]);
    expect(studio.shown!.items[4]!.caption).toBe('Words');
    expect(session.shownAt).toBe(77);
  });

  it('is not shown by halves where a picture cannot be made or kept: a sentence says which', async () => {
    const session = opened();
    session.add('mock-up', 'm');
    session.saver.want(session.doc);
    studio.refused = 'That picture is too large.';
    expect(await session.show(sources, () => undefined)).toBe('That picture is too large.');
    studio.refused = null;
    session.add('layout', 'broken');
    session.saver.want(session.doc);
    expect(await session.show(sources, () => undefined)).toContain('could not be made; try again');
    expect([studio.shown, session.shownAt]).toEqual([null, null]);
  });

  it('knows of its links and of what clients left once it hears of them, whatever is being typed', async () => {
    const session = opened();
    expect((await session.link('The board', 14)).ok).toBe(true);
    expect(session.links).toMatchObject([{ to: 'The board', days: 14 }]);
    const answer = { id: 'a', item: 'i', who: 'Ada', choice: 'this', words: '' };
    studio.data = { ...studio.data, answers: [answer as never], version: studio.data.version + 1 };
    session.change((body) => ({ ...body, line: 'For' }), true);
    await session.hear();
    expect([session.answers.length, session.body.line]).toEqual([1, 'For']);
  });
});

describe('what can be laid on a sheet', () => {
  it('is offered by name, each as wide as it usually is', () => {
    expect(offered(sources, 'layout')).toEqual([{ id: 'l', name: 'Poster' }]);
    expect(offered(sources, 'note')).toEqual([]);
    expect((['mock-up', 'layout', 'palette', 'note'] as const).map(usualWidth)).toEqual([
      'half',
      'third',
      'whole',
      'whole',
    ]);
  });

  it('has a picture of its own form, and none where there is nothing to see', () => {
    const facts = (kind: 'layout' | 'palette', of: string): number | null =>
      factsOf(sources, { id: 'i', kind, of, width: 'half', caption: '' }).aspect;
    expect(facts('layout', 'l')).toBe(2);
    expect(facts('palette', 'none')).toBeNull();
    expect(facts('layout', 'gone')).toBeNull();
  });
});
