import type { FoundPatterns, LibraryFacets, LibrarySort, PatternSummary } from '../../contract/data';
import { deltaE2000Lab, MOST_LIGHTNESS, toLabD65, type Lab } from '../../core/colour/difference';
import { STUDIO, type Db } from '../db/open';
import { nameKey } from './names';
import { statement } from './rows';
import { summariesOf } from './summaries';

/** What to look for in the library; what is left out does not filter. Lengths in px. */
export type PatternQuery = {
  search?: string;
  archived?: boolean;
  /** Count patterns in that have no revision yet. */
  drafts?: boolean;
  /** Only patterns with work that is not published. */
  unpublished?: boolean;
  collection?: string;
  tag?: string;
  kind?: 'drawn' | 'measured' | 'picture';
  repeat?: string;
  least?: number;
  most?: number;
  coloursLeast?: number;
  coloursMost?: number;
  ground?: 'clear' | 'own';
  project?: string;
  /** Contains a colour nearer than `near` (ΔE2000) to this one. */
  colour?: string;
  near?: number;
  stock?: 'stock' | 'own';
  sort?: LibrarySort;
  /** Turns the order round. */
  backwards?: boolean;
  limit?: number;
  offset?: number;
};

/** ΔE2000 within which colours count as "something like this". */
const NEAR = 12;

/**
 * The patterns that match, one page of them, and how many there are. With search words the best match comes first:
 * a word in the name counts most, then tags, collections, description, credit, palette colours.
 */
export function findPatterns(db: Db, query: PatternQuery): FoundPatterns {
  const { from, where, values } = conditions(db, query);
  const order = orderOf(query, from.match);
  const { limit = 500, offset = 0 } = query;
  const which = where.join(' AND ');
  const ids = statement(
    db,
    `SELECT p.id ${from.sql} ${order.join} WHERE ${which} ORDER BY ${order.by} LIMIT ? OFFSET ?`,
  )
    .pluck()
    .all(...values, limit, offset) as string[];
  const known = offset === 0 && ids.length < limit;
  const total = known
    ? ids.length
    : (statement(db, `SELECT count(*) ${from.sql} WHERE ${which}`)
        .pluck()
        .get(...values) as number);
  return { total, patterns: summariesOf(db, ids) };
}

/** One page of the patterns that match. */
export const listPatterns = (db: Db, query: PatternQuery): PatternSummary[] =>
  findPatterns(db, query).patterns;

type Conditions = { from: { sql: string; match: boolean }; where: string[]; values: unknown[] };

function conditions(db: Db, query: PatternQuery): Conditions {
  const match = matchText(query.search ?? '');
  const where = ['p.studio_id = ?'];
  const values: unknown[] = [STUDIO];
  const add = (condition: string, ...given: unknown[]): void => {
    where.push(condition);
    values.push(...given);
  };
  add(query.archived ? 'p.archived_at IS NOT NULL' : 'p.archived_at IS NULL');
  if (!query.drafts && !query.unpublished) add('p.newest > 0');
  if (query.unpublished) add('p.draft IS NOT NULL');
  if (match !== null) add('pattern_search MATCH ?', match);
  if (query.collection)
    add('p.id IN (SELECT pattern_id FROM collection_pattern WHERE collection_id = ?)', query.collection);
  if (query.tag) add('p.id IN (SELECT pattern_id FROM pattern_tag WHERE tag_key = ?)', nameKey(query.tag));
  if (query.kind) add('p.kind = ?', query.kind);
  if (query.repeat) add('p.repeat_kind = ?', query.repeat);
  if (query.least !== undefined) add('max(p.unit_width, p.unit_height) >= ?', query.least);
  if (query.most !== undefined) add('max(p.unit_width, p.unit_height) <= ?', query.most);
  if (query.coloursLeast !== undefined) add('p.colour_count >= ?', query.coloursLeast);
  if (query.coloursMost !== undefined) add('p.colour_count <= ?', query.coloursMost);
  if (query.ground) add('p.clear = ?', query.ground === 'clear' ? 1 : 0);
  if (query.stock) add('p.stock = ?', query.stock === 'stock' ? 1 : 0);
  if (query.project)
    add(
      `p.id IN (SELECT f.pattern_id FROM fill f JOIN shape s ON s.id = f.shape_id JOIN layout l ON l.id = s.layout_id
        WHERE l.project_id = ? AND l.archived_at IS NULL AND f.pattern_id IS NOT NULL)`,
      query.project,
    );
  if (query.colour)
    add(
      'p.id IN (SELECT pattern_id FROM pattern_colour WHERE hex IN (SELECT value FROM json_each(?)))',
      JSON.stringify(coloursLike(db, query.colour, query.near ?? NEAR)),
    );
  const sql =
    match === null ? 'FROM pattern p' : 'FROM pattern_search JOIN pattern p ON p.seq = pattern_search.rowid';
  return { from: { sql, match: match !== null }, where, values };
}

/** The colours in use that are nearer than `near` (ΔE2000) to `hex`. */
function coloursLike(db: Db, hex: string, near: number): string[] {
  const used = statement(db, 'SELECT DISTINCT hex FROM pattern_colour').pluck().all() as string[];
  const wanted = toLabD65(hex);
  return used.filter((other) => {
    const lab = labOf(other);
    return Math.abs(lab.l - wanted.l) <= near * MOST_LIGHTNESS && deltaE2000Lab(wanted, lab) <= near;
  });
}

/** Colours in Lab, kept from one search to the next: a hex value is always the same colour. */
const labs = new Map<string, Lab>();
const MOST_LABS = 200_000;

function labOf(hex: string): Lab {
  const held = labs.get(hex);
  if (held) return held;
  if (labs.size >= MOST_LABS) labs.clear();
  const lab = toLabD65(hex);
  labs.set(hex, lab);
  return lab;
}

/** Weights of the columns: name, description, tags, collections, credit, colours. */
const RANK = 'bm25(pattern_search, 10, 3, 6, 4, 2, 2)';

/** What each order goes by, and whether the largest comes first. */
const ORDERS: Record<Exclude<LibrarySort, 'match'>, { by: string; down: boolean }> = {
  name: { by: 'p.name_key', down: false },
  newest: { by: 'p.created_at', down: true },
  changed: { by: 'p.updated_at', down: true },
  uses: { by: 'coalesce(u.uses, 0)', down: true },
  'last-used': { by: 'coalesce(p.last_used_at, 0)', down: true },
  unit: { by: 'p.unit_width * p.unit_height', down: false },
  colours: { by: 'p.colour_count', down: false },
  kind: { by: 'p.kind', down: false },
  repeat: { by: 'p.repeat_kind', down: false },
  licence: { by: 'p.licence', down: false },
};

const USES = `LEFT JOIN (SELECT f.pattern_id, count(*) AS uses FROM fill f JOIN shape s ON s.id = f.shape_id
  JOIN layout l ON l.id = s.layout_id WHERE l.archived_at IS NULL GROUP BY f.pattern_id) u ON u.pattern_id = p.id`;

function orderOf(query: PatternQuery, match: boolean): { join: string; by: string } {
  const sort = query.sort ?? 'match';
  if (sort === 'match') return { join: '', by: match ? `${RANK}, p.name_key` : 'p.name_key' };
  const { by, down } = ORDERS[sort];
  const direction = down !== Boolean(query.backwards) ? 'DESC' : 'ASC';
  return { join: sort === 'uses' ? USES : '', by: `${by} ${direction}, p.name_key` };
}

/** The words of a search as an FTS5 query: every word must begin a word of the text; `null` for no words. */
export function matchText(search: string): string | null {
  const words = search.match(/[\p{L}\p{M}\p{N}]+/gu) ?? [];
  return words.length === 0
    ? null
    : words
        .slice(0, 20)
        .map((word) => `"${word}"*`)
        .join(' ');
}

/** What the library can be narrowed by, with how many patterns each has. */
export function libraryFacets(db: Db): LibraryFacets {
  const all = <T>(sql: string): T[] => statement(db, sql).all() as T[];
  const live = 'p.archived_at IS NULL';
  const [counts] = all<LibraryFacets['counts']>(
    `SELECT coalesce(sum(${live}), 0) AS live, coalesce(sum(${live} AND stock), 0) AS stock,
      coalesce(sum(${live} AND draft IS NOT NULL), 0) AS unpublished, coalesce(sum(NOT (${live})), 0) AS archived FROM pattern p`,
  );
  return {
    counts: counts as LibraryFacets['counts'],
    tags: all(
      `SELECT min(t.tag) AS tag, count(*) AS patterns FROM pattern_tag t JOIN pattern p ON p.id = t.pattern_id
        WHERE ${live} GROUP BY t.tag_key ORDER BY t.tag_key LIMIT 500`,
    ),
    collections: all(
      `SELECT c.id, c.name, count(p.id) AS patterns FROM collection c LEFT JOIN collection_pattern m ON m.collection_id = c.id
        LEFT JOIN pattern p ON p.id = m.pattern_id AND ${live} GROUP BY c.id ORDER BY c.name_key`,
    ),
    projects: all('SELECT id, name FROM project WHERE archived_at IS NULL ORDER BY name_key'),
  };
}
