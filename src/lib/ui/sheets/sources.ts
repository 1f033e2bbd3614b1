import type {
  LayoutSummary,
  MockupSummary,
  PaletteData,
  PatternSummary,
  StrikeOff,
} from '$lib/contract/data';
import type { ItemFacts } from '$lib/core/sheet/arrange';
import type { SheetItem, SheetKind, SheetWidth } from '$lib/core/sheet/client-sheet';
import { sheetPage } from '$lib/core/recipe/strike-off';
import { sayRepeat, saySize, sayUnit } from '../library/say';
import { paletteRows } from './palette-picture';

/** What of a project can be laid on a client sheet. */
export type SheetSources = {
  mockups: readonly MockupSummary[];
  layouts: readonly LayoutSummary[];
  patterns: readonly PatternSummary[];
  palettes: readonly PaletteData[];
  strikeOffs: readonly StrikeOff[];
};

export const KIND_TITLES: Record<SheetKind, string> = {
  'mock-up': 'Mock-ups',
  layout: 'Layouts',
  pattern: 'Patterns',
  palette: 'Palettes',
  'strike-off': 'Strike-offs',
  note: 'Notes',
};

/** Width over height of pictures that can have any. */
export const ASPECTS = { 'mock-up': 1.5, pattern: 1.6 } as const;

/** What there is of each kind, by id and name. */
export function offered(sources: SheetSources, kind: SheetKind): { id: string; name: string }[] {
  switch (kind) {
    case 'mock-up':
      return sources.mockups.map(({ id, name }) => ({ id, name }));
    case 'layout':
      return sources.layouts.map(({ id, name }) => ({ id, name }));
    case 'pattern':
      return sources.patterns.map(({ id, name }) => ({ id, name }));
    case 'palette':
      return sources.palettes.map(({ id, name }) => ({ id, name }));
    case 'strike-off':
      return sources.strikeOffs.map(({ id, name }) => ({ id, name }));
    case 'note':
      return [];
  }
}

export const usualWidth = (kind: SheetKind): SheetWidth =>
  kind === 'mock-up' ? 'half' : kind === 'pattern' || kind === 'layout' ? 'third' : 'whole';

/** What is said of something on a sheet, and the form of its picture. What is gone is said to be. */
export function factsOf(sources: SheetSources, { kind, of }: SheetItem): ItemFacts {
  const gone: ItemFacts = { title: 'What was here is gone from the project', facts: '', aspect: null };
  switch (kind) {
    case 'mock-up': {
      const found = sources.mockups.find(({ id }) => id === of);
      return found ? { title: found.name, facts: '', aspect: ASPECTS['mock-up'] } : gone;
    }
    case 'layout': {
      const found = sources.layouts.find(({ id }) => id === of);
      if (!found) return gone;
      const { name, width, height, measure } = found;
      return { title: name, facts: saySize(found, measure), aspect: width / height };
    }
    case 'pattern': {
      const found = sources.patterns.find(({ id }) => id === of);
      if (!found) return gone;
      const facts = found.facts
        ? `${sayUnit(found.facts)}, ${sayRepeat(found.facts.repeat).toLowerCase()}`
        : '';
      return { title: found.name, facts, aspect: ASPECTS.pattern };
    }
    case 'palette': {
      const found = sources.palettes.find(({ id }) => id === of);
      if (!found) return gone;
      const { columns, rows } = paletteRows(found.colours.length);
      const count = found.colours.length;
      const aspect = count === 0 ? null : (columns * 3) / (rows * 2);
      return { title: found.name, facts: count === 1 ? '1 colour' : `${count} colours`, aspect };
    }
    case 'strike-off': {
      const found = sources.strikeOffs.find(({ id }) => id === of);
      if (!found) return gone;
      const { width, height } = sheetPage(found.sheet, (id) => id).layout;
      return { title: found.name, facts: 'true to size among each other', aspect: width / height };
    }
    case 'note':
      return { title: '', facts: '', aspect: null };
  }
}
