import type { PatternsEdited } from '../../contract/answers';
import type { PatternsEdit } from '../../contract/given';
import type { PatternCredit, PatternKeeping } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { LIMITS } from '../../core/recipe/limits';
import type { Db } from '../db/open';
import { isCollection, noCollection, setCollections, setTags } from './collections';
import { note, writing } from './context';
import { nameKey } from './names';
import { statement } from './rows';
import { indexWordsOf } from './search-index';

/** What to do to many patterns at once. */
/** Edits many patterns in one transaction, all or none; answers what they were, so that it can be put back. */
export function editPatterns(db: Db, edit: PatternsEdit): Outcome<PatternsEdited> {
  const { ids, addTags = [], removeTags = [], addCollections = [], removeCollections = [] } = edit;
  const changes = ids.length * (addTags.length + addCollections.length);
  if (changes > LIMITS.bulkRows)
    return fail(
      'too_large',
      `${ids.length} patterns with ${addTags.length + addCollections.length} tags and collections each are too many at once; choose fewer patterns, or add some tags first.`,
      'ids',
    );
  return writing(db, { what: 'pattern', name: '' }, (tx): Outcome<PatternsEdited> => {
    const rows = rowsOf(tx, ids);
    if (rows.length < new Set(ids).size)
      return fail('not_found', 'One of the chosen patterns is gone; choose again.', 'ids');
    const refused = stockRefusal(rows, edit.credit !== undefined || edit.archived !== undefined);
    if (refused) return refused;
    const missing = addCollections.find((id) => !isCollection(tx, id));
    if (missing !== undefined) return noCollection(missing);
    const before = keepingsOf(tx, rows);
    const list = JSON.stringify(ids);
    for (const tag of addTags) statement(tx, SQL.addTag).run(tag.trim(), nameKey(tag), list);
    for (const tag of removeTags) statement(tx, SQL.removeTag).run(nameKey(tag), list);
    for (const id of addCollections) statement(tx, SQL.addTo).run(id, list);
    for (const id of removeCollections) statement(tx, SQL.removeFrom).run(id, list);
    const now = Date.now();
    statement(tx, SQL.touch).run(now, list);
    if (edit.credit) statement(tx, SQL.credit).run(...creditColumns(edit.credit), list);
    if (edit.archived !== undefined) statement(tx, SQL.archive).run(edit.archived ? now : null, list);
    indexWordsOf(tx, ids);
    note(tx, 'pattern.edited', rows[0]?.id ?? '', { patterns: rows.length });
    return done({ patterns: rows.length, before });
  });
}

/** Puts back what patterns were before an edit. */
export function putBack(db: Db, keepings: readonly PatternKeeping[]): Outcome<PatternsEdited> {
  return writing(db, { what: 'pattern', name: '' }, (tx): Outcome<PatternsEdited> => {
    const rows = new Map(
      rowsOf(
        tx,
        keepings.map((keeping) => keeping.id),
      ).map((row) => [row.id, row]),
    );
    const known = keepings.filter((keeping) => rows.has(keeping.id));
    const before = keepingsOf(tx, [...rows.values()]);
    for (const { id, tags, collections, credit, archivedAt } of known) {
      setTags(tx, id, tags);
      const missing = setCollections(tx, id, collections);
      if (missing) return missing;
      if (rows.get(id)?.stock) continue;
      const list = JSON.stringify([id]);
      statement(tx, SQL.credit).run(...creditColumns(credit), list);
      statement(tx, SQL.archive).run(archivedAt, list);
    }
    const ids = [...rows.keys()];
    statement(tx, SQL.touch).run(Date.now(), JSON.stringify(ids));
    indexWordsOf(tx, ids);
    note(tx, 'pattern.edited', known[0]?.id ?? '', { patterns: known.length });
    return done({ patterns: known.length, before });
  });
}

const CHOSEN = '(SELECT value FROM json_each(?))';

/** Each goes over all chosen patterns at once: a statement for each of thousands would hold the server up. */
const SQL = {
  rows: `SELECT id, name, stock, author, source, licence, attribution, archived_at AS archivedAt FROM pattern WHERE id IN ${CHOSEN}`,
  tags: `SELECT pattern_id AS id, tag AS one FROM pattern_tag WHERE pattern_id IN ${CHOSEN}`,
  collections: `SELECT pattern_id AS id, collection_id AS one FROM collection_pattern WHERE pattern_id IN ${CHOSEN}`,
  addTag: `INSERT INTO pattern_tag (pattern_id, tag, tag_key) SELECT value, ?, ? FROM json_each(?) WHERE true ON CONFLICT DO NOTHING`,
  removeTag: `DELETE FROM pattern_tag WHERE tag_key = ? AND pattern_id IN ${CHOSEN}`,
  addTo: `INSERT INTO collection_pattern (collection_id, pattern_id) SELECT ?, value FROM json_each(?) WHERE true ON CONFLICT DO NOTHING`,
  removeFrom: `DELETE FROM collection_pattern WHERE collection_id = ? AND pattern_id IN ${CHOSEN}`,
  touch: `UPDATE pattern SET version = version + 1, updated_at = ? WHERE id IN ${CHOSEN}`,
  credit: `UPDATE pattern SET author = ?, source = ?, licence = ?, attribution = ? WHERE id IN ${CHOSEN}`,
  archive: `UPDATE pattern SET archived_at = ? WHERE id IN ${CHOSEN}`,
};

type Row = {
  id: string;
  name: string;
  stock: number;
  author: string;
  source: string;
  licence: string;
  attribution: number;
  archivedAt: number | null;
};

const rowsOf = (db: Db, ids: readonly string[]): Row[] =>
  statement(db, SQL.rows).all(JSON.stringify(ids)) as Row[];

const creditColumns = ({ author, source, licence, attribution }: PatternCredit): unknown[] => [
  author,
  source,
  licence,
  attribution ? 1 : 0,
];

function keepingsOf(db: Db, rows: readonly Row[]): PatternKeeping[] {
  const list = JSON.stringify(rows.map((row) => row.id));
  const grouped = (sql: string): Map<string, string[]> => {
    const found = new Map<string, string[]>(rows.map((row) => [row.id, []]));
    for (const { id, one } of statement(db, sql).all(list) as { id: string; one: string }[])
      found.get(id)?.push(one);
    return found;
  };
  const [tags, collections] = [grouped(SQL.tags), grouped(SQL.collections)];
  return rows.map(({ id, author, source, licence, attribution, archivedAt }) => ({
    id,
    tags: tags.get(id) ?? [],
    collections: collections.get(id) ?? [],
    credit: { author, source, licence, attribution: attribution === 1 },
    archivedAt,
  }));
}

function stockRefusal(rows: readonly Row[], changesStock: boolean): ReturnType<typeof fail> | null {
  const stock = rows.filter((row) => row.stock);
  const [first] = stock;
  if (!changesStock || !first) return null;
  const which =
    stock.length === 1 ? `“${first.name}” is stock and stays` : `${stock.length} of them are stock and stay`;
  return fail(
    'protected',
    `${which} as shipped; take stock out of the choice. Tags and collections may be changed.`,
    'ids',
  );
}
