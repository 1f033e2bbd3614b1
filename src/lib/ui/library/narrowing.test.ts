import { describe, expect, it } from 'vitest';
import type { LibraryFacets } from '$lib/contract/data';
import { toPx } from '$lib/core/num/length';
import { narrowings, type NarrowingKey } from './narrowing';
import { PLAIN_VIEW, readView, writeView, type LibraryView } from './query';

const facets: LibraryFacets = {
  counts: { live: 4, stock: 12, unpublished: 0, archived: 0 },
  tags: [{ tag: 'shore', patterns: 3 }],
  collections: [{ id: 'c1', name: 'Season tickets', patterns: 2 }],
  latest: [],
  filled: true,
  projects: [{ id: 'p1', name: 'Lido' }],
};
const said = (change: Partial<LibraryView>, key: NarrowingKey): string | null =>
  narrowings({ ...PLAIN_VIEW, ...change }, facets)[key].value;

describe('what narrows the library', () => {
  it('says nothing while nothing narrows, and offers to stay so first', () => {
    for (const { value, choices } of Object.values(narrowings(PLAIN_VIEW, facets))) {
      expect(value).toBeNull();
      expect(choices.filter(({ holds }) => holds)).toEqual([choices[0]]);
    }
  });

  it('says sizes and counts as a designer would', () => {
    expect(said({ least: toPx(10, 'mm'), most: toPx(40, 'mm') }, 'unit')).toBe('10 to 40 mm');
    expect(said({ least: toPx(100, 'mm') }, 'unit')).toBe('from 100 mm');
    expect(said({ coloursLeast: 3, coloursMost: 4 }, 'colours')).toBe('3 to 4 colours');
    expect(said({ coloursLeast: 2, coloursMost: 2 }, 'colours')).toBe('2 colours');
    expect(said({ coloursLeast: 1, coloursMost: 1 }, 'colours')).toBe('1 colour');
    expect(said({ coloursMost: 4 }, 'colours')).toBe('to 4 colours');
  });

  it('names what was chosen, and says when it is gone', () => {
    expect(said({ collection: 'c1' }, 'collection')).toBe('Season tickets');
    expect(said({ project: 'p9' }, 'project')).toBe('gone');
  });

  it('marks each choice once it is taken, also after a way through the address', () => {
    for (const [key, { choices }] of Object.entries(narrowings(PLAIN_VIEW, facets)))
      for (const { label, change } of choices) {
        const view = readView(
          new URLSearchParams(writeView({ ...PLAIN_VIEW, ...change }, new URLSearchParams())),
        );
        const now = narrowings(view, facets)[key as NarrowingKey];
        expect(now.choices.filter(({ holds }) => holds).map((one) => one.label)).toEqual([label]);
      }
  });
});
