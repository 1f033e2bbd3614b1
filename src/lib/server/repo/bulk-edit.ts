import { eq } from 'drizzle-orm';
import type { PatternCredit, PatternKeeping } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { collectionPattern, pattern, patternTag } from '../db/schema';
import {
  addTags,
  addToCollections,
  removeFromCollections,
  removeTags,
  setCollections,
  setTags,
} from './collections';
import { among, note, writing } from './context';
import { indexWords } from './search-index';

/** What to do to many patterns at once. */
export type BulkEdit = {
  ids: readonly string[];
  addTags?: readonly string[];
  removeTags?: readonly string[];
  addCollections?: readonly string[];
  removeCollections?: readonly string[];
  credit?: PatternCredit;
  archived?: boolean;
};

type Edited = { patterns: number; before: PatternKeeping[] };

/** Edits many patterns in one transaction, all or none; answers what they were, so that it can be put back. */
export function editPatterns(db: Db, edit: BulkEdit): Outcome<Edited> {
  return writing(db, { what: 'pattern', name: '' }, (tx): Outcome<Edited> => {
    const rows = rowsOf(tx, edit.ids);
    if (rows.length < new Set(edit.ids).size)
      return fail('not_found', 'One of the chosen patterns is gone; choose again.', 'ids');
    const refused = stockRefusal(rows, edit.credit !== undefined || edit.archived !== undefined);
    if (refused) return refused;
    const before = rows.map((row) => keepingOf(tx, row));
    for (const { id } of rows) {
      addTags(tx, id, edit.addTags ?? []);
      removeTags(tx, id, edit.removeTags ?? []);
      const missing = addToCollections(tx, id, edit.addCollections ?? []);
      if (missing) return missing;
      removeFromCollections(tx, id, edit.removeCollections ?? []);
      touch(tx, id, {
        ...edit.credit,
        ...(edit.archived === undefined ? {} : { archivedAt: edit.archived ? Date.now() : null }),
      });
    }
    note(tx, 'pattern.edited', rows[0]?.id ?? '', { patterns: rows.length });
    return done({ patterns: rows.length, before });
  });
}

/** Puts back what patterns were before an edit. */
export function putBack(db: Db, keepings: readonly PatternKeeping[]): Outcome<Edited> {
  return writing(db, { what: 'pattern', name: '' }, (tx): Outcome<Edited> => {
    const ids = keepings.map((keeping) => keeping.id);
    const rows = new Map(rowsOf(tx, ids).map((row) => [row.id, row]));
    const known = keepings.filter((keeping) => rows.has(keeping.id));
    const before = known.map((keeping) => keepingOf(tx, rows.get(keeping.id)!));
    for (const { id, tags, collections, credit, archivedAt } of known) {
      setTags(tx, id, tags);
      const missing = setCollections(tx, id, collections);
      if (missing) return missing;
      touch(tx, id, rows.get(id)!.stock ? {} : { ...credit, archivedAt });
    }
    note(tx, 'pattern.edited', known[0]?.id ?? '', { patterns: known.length });
    return done({ patterns: known.length, before });
  });
}

type Row = typeof pattern.$inferSelect;

function touch(tx: Db, id: string, columns: Partial<Row>): void {
  const { version } = tx.select({ version: pattern.version }).from(pattern).where(eq(pattern.id, id)).get()!;
  tx.update(pattern)
    .set({ ...columns, version: version + 1, updatedAt: Date.now() })
    .where(eq(pattern.id, id))
    .run();
  indexWords(tx, id);
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

const rowsOf = (db: Db, ids: readonly string[]): Row[] =>
  db.select().from(pattern).where(among(pattern.id, ids)).all();

function keepingOf(db: Db, row: Row): PatternKeeping {
  const { id, author, source, licence, attribution, archivedAt } = row;
  const tags = db.select({ tag: patternTag.tag }).from(patternTag).where(eq(patternTag.patternId, id)).all();
  const members = db
    .select({ id: collectionPattern.collectionId })
    .from(collectionPattern)
    .where(eq(collectionPattern.patternId, id))
    .all();
  return {
    id,
    tags: tags.map((one) => one.tag),
    collections: members.map((one) => one.id),
    credit: { author, source, licence, attribution },
    archivedAt,
  };
}
