import { eq } from 'drizzle-orm';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { collection, collectionPattern } from '../db/schema';
import { newId, note, writing } from './context';
import { nameKey } from './names';
import { statement } from './rows';
import { indexWordsOf } from './search-index';

/** Replaces a pattern's tags; equal ones (without case and accents) are kept once. */
export function setTags(tx: Db, patternId: string, tags: readonly string[]): void {
  statement(tx, 'DELETE FROM pattern_tag WHERE pattern_id = ?').run(patternId);
  addTags(tx, patternId, tags);
}

/** Adds tags to a pattern. */
export function addTags(tx: Db, patternId: string, tags: readonly string[]): void {
  const add = statement(
    tx,
    'INSERT INTO pattern_tag (pattern_id, tag, tag_key) VALUES (?, ?, ?) ON CONFLICT DO NOTHING',
  );
  for (const tag of tags) add.run(patternId, tag.trim(), nameKey(tag));
}

/** Puts a pattern into just these collections; the failure where one of them is not there. */
export function setCollections(
  tx: Db,
  patternId: string,
  ids: readonly string[],
): ReturnType<typeof fail> | null {
  statement(tx, 'DELETE FROM collection_pattern WHERE pattern_id = ?').run(patternId);
  return addToCollections(tx, patternId, ids);
}

/** Puts a pattern into collections too; the failure where one of them is not there. */
export function addToCollections(
  tx: Db,
  patternId: string,
  ids: readonly string[],
): ReturnType<typeof fail> | null {
  for (const id of ids) {
    if (!isCollection(tx, id)) return noCollection(id);
    statement(
      tx,
      'INSERT INTO collection_pattern (collection_id, pattern_id) VALUES (?, ?) ON CONFLICT DO NOTHING',
    ).run(id, patternId);
  }
  return null;
}

/** A new, empty collection. */
export function createCollection(db: Db, name: string): Outcome<{ id: string }> {
  return writing(db, { what: 'collection', name }, (tx) => {
    const id = newId();
    tx.insert(collection)
      .values({ id, studioId: tx.studio, name, nameKey: nameKey(name), createdAt: Date.now() })
      .run();
    note(tx, 'collection.created', id);
    return done({ id });
  });
}

/** The collection of a name, made where it is not there. */
export function collectionNamed(tx: Db, name: string): string {
  const held = statement(tx, 'SELECT id FROM collection WHERE studio_id = ? AND name_key = ?')
    .pluck()
    .get(tx.studio, nameKey(name)) as string | undefined;
  if (held !== undefined) return held;
  const made = createCollection(tx, name);
  return made.ok ? made.value.id : '';
}

/** Renames a collection. */
export function renameCollection(db: Db, id: string, name: string): Outcome<{ id: string }> {
  return writing(db, { what: 'collection', name }, (tx): Outcome<{ id: string }> => {
    if (!isCollection(tx, id)) return noCollection(id);
    tx.update(collection)
      .set({ name, nameKey: nameKey(name) })
      .where(eq(collection.id, id))
      .run();
    indexWordsOf(tx, members(tx, id));
    note(tx, 'collection.renamed', id);
    return done({ id });
  });
}

/** Takes a collection apart; its patterns stay. */
export function removeCollection(db: Db, id: string): Outcome<{ id: string; patterns: string[] }> {
  return writing(db, { what: 'collection', name: '' }, (tx): Outcome<{ id: string; patterns: string[] }> => {
    if (!isCollection(tx, id)) return noCollection(id);
    const patterns = members(tx, id);
    tx.delete(collection).where(eq(collection.id, id)).run();
    indexWordsOf(tx, patterns);
    note(tx, 'collection.removed', id);
    return done({ id, patterns });
  });
}

function members(db: Db, id: string): string[] {
  return db
    .select({ id: collectionPattern.patternId })
    .from(collectionPattern)
    .where(eq(collectionPattern.collectionId, id))
    .all()
    .map((row) => row.id);
}

export const isCollection = (db: Db, id: string): boolean =>
  statement(db, 'SELECT 1 FROM collection WHERE id = ? AND studio_id = ?').get(id, db.studio) !== undefined;

export function noCollection(id: string): ReturnType<typeof fail> {
  return fail('not_found', `There is no collection with the id “${id}”.`, 'collections');
}
