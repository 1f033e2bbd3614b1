import type { LibraryFacets } from '$lib/contract/data';
import { toPx } from '$lib/core/num/length';
import type { LibraryView } from './query';
import { REPEAT_NAMES, sayLength } from './say';

/** One thing the library can be narrowed by: what holds now, in words, and what else there is to choose. */
export type Narrowing = {
  label: string;
  /** `null` while it does not narrow. */
  value: string | null;
  choices: readonly NarrowingChoice[];
};
export type NarrowingChoice = {
  label: string;
  change: Partial<LibraryView>;
  holds: boolean;
  /** Beside the label: how many patterns there are. */
  aside?: string;
};

/** All that narrows the library by a choice from a list, in the order of its bar. What there is to choose is listed when it is asked for. */
export const narrowings = (view: LibraryView, facets: LibraryFacets): Record<NarrowingKey, Narrowing> => ({
  collection: {
    label: 'Collection',
    value: named(facets.collections, view.collection),
    get choices() {
      return [
        choice(view, 'Any collection', { collection: '' }),
        ...facets.collections.map(({ id, name, patterns }) =>
          choice(view, name, { collection: id }, patterns),
        ),
      ];
    },
  },
  tag: {
    label: 'Tag',
    value: view.tag || null,
    get choices() {
      return [
        choice(view, 'Any tag', { tag: '' }),
        ...facets.tags.map(({ tag, patterns }) => choice(view, tag, { tag }, patterns)),
      ];
    },
  },
  repeat: {
    label: 'Repeat',
    value: view.repeat === '' ? null : REPEAT_NAMES[view.repeat],
    get choices() {
      return [
        choice(view, 'Any repeat', { repeat: '' }),
        ...(Object.entries(REPEAT_NAMES) as [LibraryView['repeat'], string][]).map(([repeat, name]) =>
          choice(view, name, { repeat }),
        ),
      ];
    },
  },
  unit: {
    label: 'Unit',
    value: between(millimetres(view.least), millimetres(view.most), 'mm'),
    get choices() {
      return SIZES.map(([label, least, most]) => ({
        label,
        change: { least: px(least), most: px(most) },
        // Compared as they are said: an address holds rounded px.
        holds:
          millimetres(view.least) === millimetres(px(least)) &&
          millimetres(view.most) === millimetres(px(most)),
      }));
    },
  },
  colours: {
    label: 'Colours',
    value: between(
      text(view.coloursLeast),
      text(view.coloursMost),
      view.coloursMost === 1 ? 'colour' : 'colours',
    ),
    get choices() {
      return COUNTS.map(([label, coloursLeast, coloursMost]) =>
        choice(view, label, { coloursLeast, coloursMost }),
      );
    },
  },
  ground: {
    label: 'Ground',
    value: view.ground || null,
    get choices() {
      return [
        choice(view, 'Any ground', { ground: '' }),
        choice(view, 'Clear', { ground: 'clear' }),
        choice(view, 'With a ground', { ground: 'own' }),
      ];
    },
  },
  project: {
    label: 'Used in',
    value: named(facets.projects, view.project),
    get choices() {
      return [
        choice(view, 'Any project', { project: '' }),
        ...facets.projects.map(({ id, name }) => choice(view, name, { project: id })),
      ];
    },
  },
  stock: {
    label: 'Whose',
    value: view.stock === 'own' ? 'our own' : view.stock || null,
    get choices() {
      return [
        choice(view, 'Stock and our own', { stock: '' }),
        choice(view, 'Our own', { stock: 'own' }),
        choice(view, 'Stock', { stock: 'stock' }, facets.counts.stock),
      ];
    },
  },
});
export type NarrowingKey =
  'collection' | 'tag' | 'repeat' | 'unit' | 'colours' | 'ground' | 'project' | 'stock';

/** The longer side of the unit, mm. */
const SIZES = [
  ['Any size', null, null],
  ['Up to 10 mm', null, 10],
  ['10 to 40 mm', 10, 40],
  ['40 to 100 mm', 40, 100],
  ['Over 100 mm', 100, null],
] as const;
const COUNTS = [
  ['Any number', null, null],
  ['One colour', 1, 1],
  ['Two', 2, 2],
  ['Three or four', 3, 4],
  ['Five or more', 5, null],
] as const;

function choice(
  view: LibraryView,
  label: string,
  change: Partial<LibraryView>,
  patterns?: number,
): NarrowingChoice {
  const keys = Object.keys(change) as (keyof LibraryView)[];
  return {
    label,
    change,
    holds: keys.every((key) => view[key] === change[key]),
    ...(patterns === undefined ? {} : { aside: String(patterns) }),
  };
}

/** What is chosen by id may have been taken away meanwhile. */
const named = (all: readonly { id: string; name: string }[], id: string): string | null =>
  id === '' ? null : (all.find((one) => one.id === id)?.name ?? 'gone');

function between(least: string | null, most: string | null, unit: string): string | null {
  if (least === null) return most === null ? null : `to ${most} ${unit}`;
  if (most === null) return `from ${least} ${unit}`;
  return least === most ? `${least} ${unit}` : `${least} to ${most} ${unit}`;
}

const text = (count: number | null): string | null => (count === null ? null : String(count));
const px = (mm: number | null): number | null => (mm === null ? null : toPx(mm, 'mm'));
const millimetres = (length: number | null): string | null =>
  length === null ? null : sayLength(length, 'mm');
