import type { LibrarySort } from '$lib/contract/data';

export type Column =
  | 'kind'
  | 'repeat'
  | 'unit'
  | 'colours'
  | 'tags'
  | 'collections'
  | 'uses'
  | 'last-used'
  | 'author'
  | 'licence'
  | 'revision'
  | 'newest'
  | 'changed';

type ColumnSpec = {
  key: Column;
  label: string;
  width: string;
  sort: LibrarySort | null;
  /** Its sort begins with the largest. */
  down: boolean;
  numeric: boolean;
  mono: boolean;
};

const spec = (
  key: Column,
  label: string,
  width: string,
  sort: LibrarySort | null = null,
  more: Partial<ColumnSpec> = {},
): ColumnSpec => ({ key, label, width, sort, down: false, numeric: false, mono: false, ...more });

/** The columns of the library's table beside picture and name. */
export const COLUMNS: readonly ColumnSpec[] = [
  spec('kind', 'Kind', '80px', 'kind'),
  spec('repeat', 'Repeat', '110px', 'repeat'),
  spec('unit', 'Unit', '130px', 'unit', { mono: true }),
  spec('colours', 'Colours', '112px', 'colours'),
  spec('tags', 'Tags', 'minmax(110px, 1fr)'),
  spec('collections', 'Collections', 'minmax(110px, 1fr)'),
  spec('uses', 'Uses', '62px', 'uses', { numeric: true, mono: true, down: true }),
  spec('last-used', 'Last used', '100px', 'last-used', { down: true }),
  spec('author', 'Author', '110px'),
  spec('licence', 'Licence', '110px', 'licence'),
  spec('revision', 'Revision', '66px', null, { numeric: true, mono: true }),
  spec('newest', 'Made', '100px', 'newest', { down: true }),
  spec('changed', 'Changed', '100px', 'changed', { down: true }),
];

export const FIRST_COLUMNS: readonly Column[] = ['kind', 'repeat', 'unit', 'colours', 'tags', 'uses'];

/** Columns as an address names them. Inverse of {@link writeColumns}. */
export function readColumns(text: string | null): readonly Column[] {
  if (text === null) return FIRST_COLUMNS;
  const names = text.split('.');
  return COLUMNS.map((column) => column.key).filter((key) => names.includes(key));
}

/** Columns as text for an address; `null` for the usual ones. */
export function writeColumns(columns: readonly Column[]): string | null {
  const text = columns.join('.');
  return text === FIRST_COLUMNS.join('.') ? null : text;
}
