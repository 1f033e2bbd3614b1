import { and, asc, eq, isNull } from 'drizzle-orm';
import type { PaletteData } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { STUDIO, type Db } from '../db/open';
import { palette, paletteColour } from '../db/schema';
import { newId, note, stale, writing } from './context';
import { nameKey } from './names';

type PaletteColours = PaletteData['colours'];

/** All palettes by name with their colours in order. */
export function listPalettes(db: Db): PaletteData[] {
  const rows = db
    .select({ id: palette.id, name: palette.name, version: palette.version })
    .from(palette)
    .where(and(eq(palette.studioId, STUDIO), isNull(palette.archivedAt)))
    .orderBy(asc(palette.nameKey))
    .all();
  return rows.map((row) => ({ ...row, colours: coloursOf(db, row.id) }));
}

/** A new palette without colours. */
export function createPalette(db: Db, name: string): Outcome<PaletteData> {
  return writing(db, { what: 'palette', name }, (tx) => {
    const id = newId();
    const now = Date.now();
    tx.insert(palette)
      .values({ id, studioId: STUDIO, name, nameKey: nameKey(name), createdAt: now, updatedAt: now })
      .run();
    note(tx, 'palette.created', id);
    return done({ id, name, version: 1, colours: [] });
  });
}

/** Replaces a palette's name and colours. */
export function savePalette(
  db: Db,
  id: string,
  base: number,
  input: { name: string; colours: PaletteColours },
): Outcome<{ version: number }> {
  return writing(db, { what: 'palette', name: input.name }, (tx): Outcome<{ version: number }> => {
    const row = tx
      .select()
      .from(palette)
      .where(and(eq(palette.id, id), eq(palette.studioId, STUDIO)))
      .get();
    if (!row) return noPalette(id);
    if (row.version !== base) {
      const current = { id, name: row.name, version: row.version, colours: coloursOf(tx, id) };
      return stale(`“${row.name}”`, base, row.version, current);
    }
    const version = row.version + 1;
    tx.update(palette)
      .set({ name: input.name, nameKey: nameKey(input.name), version, updatedAt: Date.now() })
      .where(eq(palette.id, id))
      .run();
    tx.delete(paletteColour).where(eq(paletteColour.paletteId, id)).run();
    input.colours.forEach((colour, position) =>
      tx
        .insert(paletteColour)
        .values({ ...colour, studioId: STUDIO, paletteId: id, position })
        .run(),
    );
    return done({ version });
  });
}

/** Puts a palette into the archive or takes it out. */
export function setPaletteArchived(db: Db, id: string, archived: boolean): Outcome<{ id: string }> {
  const changed = db
    .update(palette)
    .set({ archivedAt: archived ? Date.now() : null })
    .where(and(eq(palette.id, id), eq(palette.studioId, STUDIO)))
    .run();
  if (changed.changes === 0) return noPalette(id);
  note(db, archived ? 'palette.archived' : 'palette.restored', id);
  return done({ id });
}

function coloursOf(db: Db, paletteId: string): PaletteColours {
  return db
    .select({ id: paletteColour.id, name: paletteColour.name, hex: paletteColour.hex })
    .from(paletteColour)
    .where(eq(paletteColour.paletteId, paletteId))
    .orderBy(asc(paletteColour.position))
    .all();
}

function noPalette(id: string): ReturnType<typeof fail> {
  return fail('not_found', `There is no palette with the id “${id}”.`, 'id');
}
