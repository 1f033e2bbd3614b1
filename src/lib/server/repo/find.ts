import type { PatternQuery } from '../../contract/given';
import type { FoundPatterns, Hangers, LibraryFacets, LibrarySort, PatternSummary } from '../../contract/data';
import type { Db } from '../db/open';
import { closedProjects } from './access';
import { nameKey } from './names';
import { statement } from './rows';
import { searchWords, type WordSearch } from './search-words';
import { summariesOf } from './summaries';
import { coloursLike } from './used-colours';

/** ΔE2000 within which colours count as "something like this". */
const NEAR = 12;

/**
 * The patterns that match, one page of them, and how many there are. With search words the best match comes first: whole
 * words before beginnings before insides; among these a word in the name counts most, then tags, collections, description,
 * credit, palette colours.
 */
export function findPatterns(db: Db, query: PatternQuery): FoundPatterns {
  const words = searchWords(db, query.search ?? '');
  const which = conditions(db, query, words);
  const ids = foundIds(db, query, which, words);
  const { limit = MOST_FOUND, offset = 0 } = query;
  const known = offset === 0 && ids.length < limit;
  const total = known ? ids.length : countOf(db, which);
  return { total, patterns: summariesOf(db, ids), ...(words && { instead: words.instead }) };
}

/** The ids of one page of the patterns that match, without what is known of them. */
export function patternIds(db: Db, query: PatternQuery): string[] {
  const words = searchWords(db, query.search ?? '');
  return foundIds(db, query, conditions(db, query, words), words);
}

/** One page of a search where no more is asked for. */
const MOST_FOUND = 500;

function foundIds(
  db: Db,
  query: PatternQuery,
  { from, where, values }: Conditions,
  words: WordSearch | null,
): string[] {
  const order = orderOf(query, words);
  const { limit = MOST_FOUND, offset = 0 } = query;
  return statement(
    db,
    `SELECT p.id ${from} ${order.join} WHERE ${where.join(' AND ')} ORDER BY ${order.by} LIMIT ? OFFSET ?`,
  )
    .pluck()
    .all(...values, ...order.values, limit, offset) as string[];
}

const countOf = (db: Db, { from, where, values }: Conditions): number =>
  statement(db, `SELECT count(*) ${from} WHERE ${where.join(' AND ')}`)
    .pluck()
    .get(...values) as number;

/** The patterns that layouts used last, the latest first. */
export const usedLately = (db: Db, count: number): string[] =>
  statement(
    db,
    'SELECT id FROM pattern WHERE archived_at IS NULL AND newest > 0 AND last_used_at > 0 ORDER BY last_used_at DESC, name_key LIMIT ?',
  )
    .pluck()
    .all(count) as string[];

/** One page of the patterns that match. */
export const listPatterns = (db: Db, query: PatternQuery): PatternSummary[] =>
  findPatterns(db, query).patterns;

/** What is looked in, and what must hold there. */
type Conditions = { from: string; where: string[]; values: unknown[] };

function conditions(db: Db, query: PatternQuery, words: WordSearch | null): Conditions {
  const where = ['p.studio_id = ?'];
  const values: unknown[] = [db.studio];
  const add = (condition: string, ...given: unknown[]): void => {
    where.push(condition);
    values.push(...given);
  };
  add(query.archived ? 'p.archived_at IS NOT NULL' : 'p.archived_at IS NULL');
  if (!query.drafts && !query.unpublished) add('p.newest > 0');
  if (query.unpublished) add('p.draft IS NOT NULL');
  if (words) add('pattern_search MATCH ?', words.match);
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
  if (query.project && closedProjects(db).has(query.project)) add('0');
  else if (query.project)
    add(
      `p.id IN (SELECT f.pattern_id FROM fill f JOIN shape s ON s.id = f.shape_id JOIN layout l ON l.id = s.layout_id
        WHERE l.project_id = ? AND l.archived_at IS NULL AND f.pattern_id IS NOT NULL)`,
      query.project,
    );
  if (query.colour)
    add('p.id IN (SELECT value FROM json_each(?))', patternsLike(db, query.colour, query.near ?? NEAR));
  const sql = words ? 'FROM pattern_search JOIN pattern p ON p.seq = pattern_search.rowid' : 'FROM pattern p';
  return { from: sql, where, values };
}

/** The ids of the patterns that contain something like a colour, as JSON: asked for once, used by the page and by the count. */
function patternsLike(db: Db, hex: string, near: number): string {
  const ids = statement(
    db,
    'SELECT DISTINCT pattern_id FROM pattern_colour WHERE hex IN (SELECT value FROM json_each(?))',
  )
    .pluck()
    .all(JSON.stringify(coloursLike(db, hex, near)));
  return JSON.stringify(ids);
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

const FIRST = '(p.seq IN (SELECT rowid FROM pattern_search WHERE pattern_search MATCH ?)) DESC';

function orderOf(
  query: PatternQuery,
  words: WordSearch | null,
): { join: string; by: string; values: string[] } {
  const sort = query.sort ?? 'match';
  if (sort === 'match') {
    const first = words?.first ?? [];
    const by = words ? [...first.map(() => FIRST), RANK, 'p.name_key'] : ['p.name_key'];
    return { join: '', by: by.join(', '), values: first };
  }
  const { by, down } = ORDERS[sort];
  const direction = down !== Boolean(query.backwards) ? 'DESC' : 'ASC';
  return { join: sort === 'uses' ? USES : '', by: `${by} ${direction}, p.name_key`, values: [] };
}

/** What hangs beside a stage in a project. */
export const hangersFor = (db: Db, project: string): Hangers => ({
  all: listPatterns(db, { limit: 300 }),
  inProject: patternIds(db, { project, limit: 300 }),
  recent: usedLately(db, 12),
  facets: libraryFacets(db),
});

/** What the library can be narrowed by, with how many patterns each has. */
export function libraryFacets(db: Db): LibraryFacets {
  const all = <T>(sql: string): T[] => statement(db, sql).all(db.studio) as T[];
  const live = 'p.archived_at IS NULL';
  const closed = closedProjects(db);
  const [counts] = all<LibraryFacets['counts']>(
    `SELECT coalesce(sum(${live}), 0) AS live, coalesce(sum(${live} AND stock), 0) AS stock,
      coalesce(sum(${live} AND draft IS NOT NULL), 0) AS unpublished, coalesce(sum(NOT (${live})), 0) AS archived FROM pattern p WHERE studio_id = ?`,
  );
  return {
    counts: counts as LibraryFacets['counts'],
    tags: all(
      `SELECT min(t.tag) AS tag, count(*) AS patterns FROM pattern_tag t JOIN pattern p ON p.id = t.pattern_id
        WHERE ${live} AND p.studio_id = ? GROUP BY t.tag_key ORDER BY t.tag_key LIMIT 500`,
    ),
    collections: all(
      `SELECT c.id, c.name, count(p.id) AS patterns FROM collection c LEFT JOIN collection_pattern m ON m.collection_id = c.id
        LEFT JOIN pattern p ON p.id = m.pattern_id AND ${live} WHERE c.studio_id = ? GROUP BY c.id ORDER BY c.name_key`,
    ),
    projects: all<{ id: string; name: string }>(
      'SELECT id, name FROM project WHERE archived_at IS NULL AND studio_id = ? ORDER BY name_key',
    ).filter(({ id }) => !closed.has(id)),
    latest: all<LibraryFacets['latest'][number]>(
      `SELECT l.id, l.name, j.id AS projectId, j.name AS projectName FROM layout l JOIN project j ON j.id = l.project_id
        WHERE l.archived_at IS NULL AND j.archived_at IS NULL AND l.studio_id = ? ORDER BY l.updated_at DESC LIMIT ${6 + (closed.size > 0 ? 100 : 0)}`,
    )
      .filter(({ projectId }) => !closed.has(projectId))
      .slice(0, 6),
    filled: all('SELECT 1 FROM fill WHERE pattern_id IS NOT NULL AND studio_id = ? LIMIT 1').length > 0,
  };
}
