import type { Db } from '../db/open';
import { statement } from './rows';
import { forgetWords } from './search-words';
import { noteColours } from './used-colours';

/**
 * The search index and the columns that filters read are written here, after every change of a pattern, its tags,
 * collections or colours, in the same transaction. `recipe` is what the pattern shows now, with its facts.
 */
export type IndexedRecipe = {
  kind: 'drawn' | 'measured' | 'picture';
  repeatKind: string;
  width: number;
  height: number;
  clear: boolean;
  slots: readonly { name: string; colour: string; link?: string }[];
};

/** Writes the columns and colours that filters read. */
export function indexRecipe(db: Db, id: string, recipe: IndexedRecipe): void {
  const { kind, repeatKind, width, height, slots, clear } = recipe;
  statement(
    db,
    `UPDATE pattern SET kind = ?, repeat_kind = ?, unit_width = ?, unit_height = ?, colour_count = ?, clear = ? WHERE id = ?`,
  ).run(kind, repeatKind, width, height, slots.length, clear ? 1 : 0, id);
  statement(db, 'DELETE FROM pattern_colour WHERE pattern_id = ?').run(id);
  const add = statement(
    db,
    'INSERT INTO pattern_colour (pattern_id, position, hex, link) VALUES (?, ?, ?, ?)',
  );
  slots.forEach((slot, position) => add.run(id, position, slot.colour, slot.link ?? null));
  noteColours(
    db,
    slots.map(({ colour }) => colour),
  );
}

/** Writes the words by which a pattern is found. */
export const indexWords = (db: Db, id: string): void => indexWordsOf(db, [id]);

/** Writes the words by which patterns are found. */
export function indexWordsOf(db: Db, ids: readonly string[]): void {
  const list = JSON.stringify(ids);
  statement(
    db,
    'DELETE FROM pattern_search WHERE rowid IN (SELECT seq FROM pattern WHERE id IN (SELECT value FROM json_each(?)))',
  ).run(list);
  statement(db, WORDS).run(list);
  forgetWords(db);
}

/** Patterns that follow palette colours get their new colours and, where they were renamed, their names. */
export function indexPaletteColours(
  db: Db,
  { recoloured, renamed }: { recoloured: readonly string[]; renamed: readonly string[] },
): void {
  const recolour = statement(
    db,
    'UPDATE pattern_colour SET hex = (SELECT hex FROM palette_colour WHERE id = ?) WHERE link = ?',
  );
  for (const colourId of recoloured) recolour.run(colourId, colourId);
  const now = statement(db, 'SELECT hex FROM palette_colour WHERE id IN (SELECT value FROM json_each(?))')
    .pluck()
    .all(JSON.stringify(recoloured)) as string[];
  noteColours(db, now);
  const users = statement(
    db,
    'SELECT DISTINCT pattern_id FROM pattern_colour WHERE link IN (SELECT value FROM json_each(?))',
  )
    .pluck()
    .all(JSON.stringify(renamed)) as string[];
  indexWordsOf(db, users);
}

const joined = (column: string, rest: string): string =>
  `coalesce((SELECT group_concat(${column}, ' · ') ${rest}), '')`;

const WORDS = `
INSERT INTO pattern_search (rowid, name, description, tags, collections, credit, colours)
SELECT p.seq, p.name, p.description,
  ${joined('t.tag', 'FROM pattern_tag t WHERE t.pattern_id = p.id')},
  ${joined('c.name', 'FROM collection_pattern m JOIN collection c ON c.id = m.collection_id WHERE m.pattern_id = p.id')},
  p.author || ' ' || p.source || ' ' || p.licence,
  ${joined('k.name', 'FROM pattern_colour s JOIN palette_colour k ON k.id = s.link WHERE s.pattern_id = p.id')}
FROM pattern p WHERE p.id IN (SELECT value FROM json_each(?))`;
