import { LIBRARY_SORTS, type LibrarySort } from '$lib/contract/data';
import type { PatternQuery } from '$lib/contract/given';
import { isHex } from '$lib/core/colour/parse';

/** Patterns asked for at once. */
export const PAGE = 60;

/** The query for the first page of a list. */
export const firstPage = (query: PatternQuery): PatternQuery => ({ ...query, limit: PAGE, offset: 0 });

/** What the library shows, as it stands in the address. Empty text means: not narrowed by it. */
export type LibraryView = {
  search: string;
  show: 'all' | 'drafts' | 'archived';
  kind: '' | 'drawn' | 'measured' | 'picture';
  collection: string;
  tag: string;
  repeat: '' | 'straight' | 'brick' | 'half-drop' | 'mirror' | 'group';
  ground: '' | 'clear' | 'own';
  stock: '' | 'stock' | 'own';
  project: string;
  /** Sides of the unit's longer side in px; `null` for no limit. */
  least: number | null;
  most: number | null;
  coloursLeast: number | null;
  coloursMost: number | null;
  colour: string;
  near: number;
  sort: LibrarySort;
  backwards: boolean;
  as: 'wall' | 'list';
};

export const PLAIN_VIEW: LibraryView = {
  search: '',
  show: 'all',
  kind: '',
  collection: '',
  tag: '',
  repeat: '',
  ground: '',
  stock: '',
  project: '',
  least: null,
  most: null,
  coloursLeast: null,
  coloursMost: null,
  colour: '',
  near: 12,
  sort: 'match',
  backwards: false,
  as: 'wall',
};

const CHOICES: { [key in keyof LibraryView]?: readonly string[] } = {
  show: ['all', 'drafts', 'archived'],
  kind: ['', 'drawn', 'measured', 'picture'],
  repeat: ['', 'straight', 'brick', 'half-drop', 'mirror', 'group'],
  ground: ['', 'clear', 'own'],
  stock: ['', 'stock', 'own'],
  sort: LIBRARY_SORTS,
  as: ['wall', 'list'],
};

/** The view that an address asks for; what it says wrongly is passed over. Inverse of {@link writeView}. */
export function readView(params: URLSearchParams): LibraryView {
  const view: Record<string, unknown> = { ...PLAIN_VIEW };
  for (const [key, plain] of Object.entries(PLAIN_VIEW)) {
    const text = params.get(key);
    if (text === null) continue;
    const choices = CHOICES[key as keyof LibraryView];
    if (choices) {
      if (choices.includes(text)) view[key] = text;
    } else if (typeof plain === 'boolean') view[key] = text === 'yes';
    else if (typeof plain === 'string') view[key] = text.slice(0, 200);
    else {
      const value = Number(text);
      if (text !== '' && Number.isFinite(value) && value >= 0) view[key] = value;
    }
  }
  if (!isHex(view.colour)) view.colour = '';
  return view as LibraryView;
}

/** The view as the query of an address, "" for the plain one; other things in the address stay. */
export function writeView(view: LibraryView, params: URLSearchParams): string {
  const next = new URLSearchParams(params);
  for (const [key, value] of Object.entries(view)) {
    if (value === PLAIN_VIEW[key as keyof LibraryView] || value === null) next.delete(key);
    else next.set(key, value === true ? 'yes' : String(value));
  }
  return next.toString();
}

/** The view as a query of the API, without its page. */
export function apiQuery(view: LibraryView): PatternQuery {
  const { show, as: _as, colour, near, backwards, ...rest } = view;
  const asked = Object.entries(rest).filter(([, value]) => value !== '' && value !== null);
  return {
    ...(Object.fromEntries(asked) as Pick<PatternQuery, keyof typeof rest>),
    ...(colour && { colour, near }),
    ...(backwards && { backwards }),
    ...(show === 'archived' && { archived: true }),
    ...(show === 'drafts' ? { unpublished: true } : { drafts: true }),
  };
}

/** True where something narrows the library beside its kind of list. */
export function isNarrowed(view: LibraryView): boolean {
  const { show: _show, sort: _sort, backwards: _back, as: _as, near: _near, ...narrowing } = view;
  return Object.entries(narrowing).some(([key, value]) => value !== PLAIN_VIEW[key as keyof LibraryView]);
}
