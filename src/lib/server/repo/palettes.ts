import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import type { ColourUses, PaletteData, PaletteEntry } from '../../contract/data';
import { inkFault, type InkUse } from '../../core/colour/inks';
import type { Links } from '../../core/colour/tint';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { palette, paletteColour, project } from '../db/schema';
import { seen } from './access';
import { among, newId, note, stale, writing } from './context';
import { paletteLinks } from './links';
import { nameKey } from './names';
import { Rows, statement } from './rows';
import { indexPaletteColours } from './search-index';

/** All palettes by name with their colours in order; with `projectId` those of the project and the shared ones. */
export function listPalettes(db: Db, projectId?: string): PaletteData[] {
  const rows = db
    .select({ id: palette.id, name: palette.name, version: palette.version, projectId: palette.projectId })
    .from(palette)
    .where(and(eq(palette.studioId, db.studio), isNull(palette.archivedAt), seen(db, palette.projectId)))
    .orderBy(asc(palette.nameKey))
    .all();
  const entries = entriesByPalette(
    db,
    rows.map((row) => row.id),
  );
  return rows
    .filter((row) => projectId === undefined || row.projectId === null || row.projectId === projectId)
    .sort((one, other) => {
      const shared = Number(one.projectId === null) - Number(other.projectId === null);
      return projectId === undefined ? -shared : shared;
    })
    .map((row) => ({ ...row, colours: entries.get(row.id) ?? [] }));
}

/** One palette. */
export function getPalette(db: Db, id: string): Outcome<PaletteData> {
  const row = findRow(db, id);
  return row ? done(dataOf(db, row)) : noPalette(id);
}

/** A new palette, empty or with colours. */
export function createPalette(
  db: Db,
  name: string,
  more: { colours?: readonly PaletteEntry[]; projectId?: string | null; id?: string } = {},
): Outcome<PaletteData> {
  return writing(db, { what: 'palette', name }, (tx): Outcome<PaletteData> => {
    const { colours = [], projectId = null, id = newId() } = more;
    const now = Date.now();
    if (projectId !== null && !tx.select().from(project).where(eq(project.id, projectId)).get())
      return fail('not_found', `There is no project with the id “${projectId}”.`, 'projectId');
    tx.insert(palette)
      .values({
        id,
        studioId: tx.studio,
        name,
        nameKey: nameKey(name),
        projectId,
        createdAt: now,
        updatedAt: now,
      })
      .run();
    const refused = writeEntries(tx, id, colours);
    if (refused) return refused;
    note(tx, 'palette.created', id);
    return done({ id, name, version: 1, projectId, colours: entriesOf(tx, id) });
  });
}

/**
 * Replaces a palette's name and colours. Whatever follows one of its colours shows the new one at once, since documents
 * keep the colour's id. A colour that is left out stays known while something follows it, and keeps its last look.
 */
export function savePalette(
  db: Db,
  id: string,
  base: number,
  input: { name: string; colours: readonly PaletteEntry[]; projectId?: string | null },
): Outcome<{ version: number }> {
  return writing(db, { what: 'palette', name: input.name }, (tx): Outcome<{ version: number }> => {
    const row = findRow(tx, id);
    if (!row) return noPalette(id);
    if (row.version !== base) return stale(`“${row.name}”`, base, row.version, dataOf(tx, row));
    const version = row.version + 1;
    tx.update(palette)
      .set({
        name: input.name,
        nameKey: nameKey(input.name),
        ...(input.projectId === undefined ? {} : { projectId: input.projectId }),
        version,
        updatedAt: Date.now(),
      })
      .where(eq(palette.id, id))
      .run();
    const refused = writeEntries(tx, id, input.colours);
    if (refused) return refused;
    note(tx, 'palette.changed', id);
    return done({ version });
  });
}

/** Puts a palette into the archive or takes it out; what follows its colours keeps showing them. */
export function setPaletteArchived(db: Db, id: string, archived: boolean): Outcome<{ id: string }> {
  return writing(db, { what: 'palette', name: '' }, (tx): Outcome<{ id: string }> => {
    const changed = tx
      .update(palette)
      .set({ archivedAt: archived ? Date.now() : null })
      .where(and(eq(palette.id, id), eq(palette.studioId, tx.studio)))
      .run();
    if (changed.changes === 0) return noPalette(id);
    note(tx, archived ? 'palette.archived' : 'palette.restored', id);
    return done({ id });
  });
}

/** Where the colours of a palette are followed, by colour; colours that nothing follows are left out. */
export function colourUses(db: Db, paletteId: string): ColourUses {
  const uses: ColourUses = {};
  const count = (key: keyof ColourUses[string], sql: string): void => {
    const rows = statement(db, sql).all(paletteId) as { id: string; n: number }[];
    for (const { id, n } of rows) {
      uses[id] ??= { patterns: 0, colourways: 0, fills: 0, pages: 0 };
      uses[id][key] = n;
    }
  };
  const mine = '(SELECT id FROM palette_colour WHERE palette_id = ?)';
  count(
    'patterns',
    `SELECT link AS id, count(DISTINCT pattern_id) AS n FROM pattern_colour WHERE link IN ${mine} GROUP BY link`,
  );
  count(
    'fills',
    `SELECT colour_id AS id, count(*) AS n FROM fill_link WHERE colour_id IN ${mine} GROUP BY colour_id`,
  );
  count(
    'pages',
    `SELECT background_link AS id, count(*) AS n FROM layout WHERE background_link IN ${mine} GROUP BY background_link`,
  );
  count(
    'colourways',
    `SELECT json_extract(t.value, '$.link') AS id, count(DISTINCT c.id) AS n FROM colourway c, json_each(c.colours) t
      WHERE json_extract(t.value, '$.link') IN ${mine} GROUP BY 1`,
  );
  return uses;
}

const colourRows = new Rows(paletteColour);

/** Writes a palette's entries: known ids are changed in place, new ones added, others taken out of sight. */
function writeEntries(
  tx: Db,
  paletteId: string,
  entries: readonly PaletteEntry[],
): ReturnType<typeof fail> | null {
  const held = tx.select().from(paletteColour).where(eq(paletteColour.paletteId, paletteId)).all();
  const rows = new Map(held.map((row) => [row.id, row]));
  if (new Set(entries.map(({ id }) => id)).size < entries.length)
    return fail('invalid', 'Two colours have the same id; each needs its own.', 'colours');
  const fault = inkFault(entries);
  if (fault) return fail('invalid', fault.message, `colours.${fault.index}.ink`);
  const kept = new Set(entries.map((entry) => entry.id));
  const recoloured: string[] = [];
  const renamed: string[] = [];
  for (const [position, entry] of entries.entries()) {
    const { id, name, hex, css = null } = entry;
    const before = rows.get(id);
    const row = colourRows.get(tx, id);
    if (row && !before)
      return fail(
        'invalid',
        'The colour’s id belongs to another palette; give it a new one.',
        `colours.${position}.id`,
      );
    if (before && before.hex !== hex) recoloured.push(id);
    if (before && before.name !== name) renamed.push(id);
    const gradient = entry.gradient ? JSON.stringify(entry.gradient) : null;
    const ink = entry.ink ? JSON.stringify(entry.ink) : null;
    const look = { position, name, hex, css, gradient, ink, removedAt: null };
    colourRows.put(tx, { id, studioId: tx.studio, paletteId, ...look }, row);
  }
  const gone = held.filter((row) => !kept.has(row.id) && row.removedAt === null).map((row) => row.id);
  if (gone.length > 0) {
    const followed = colourUses(tx, paletteId);
    const unused = gone.filter((id) => followed[id] === undefined);
    tx.update(paletteColour).set({ removedAt: Date.now() }).where(inArray(paletteColour.id, gone)).run();
    tx.delete(paletteColour).where(inArray(paletteColour.id, unused)).run();
  }
  indexPaletteColours(tx, { recoloured, renamed });
  return null;
}

const entriesOf = (db: Db, paletteId: string): PaletteEntry[] =>
  entriesByPalette(db, [paletteId]).get(paletteId) ?? [];

/** The entries of palettes in order, by palette. */
function entriesByPalette(db: Db, ids: readonly string[]): Map<string, PaletteEntry[]> {
  const rows = db
    .select()
    .from(paletteColour)
    .where(and(among(paletteColour.paletteId, ids), isNull(paletteColour.removedAt)))
    .orderBy(asc(paletteColour.position))
    .all();
  const links = paletteLinks(db);
  const found = new Map<string, PaletteEntry[]>();
  for (const { paletteId, id, name, hex, css, gradient, ink } of rows) {
    const entry: PaletteEntry = {
      ...{ id, name, hex },
      ...(css === null ? {} : { css }),
      ...(gradient === null ? {} : { gradient: stopsOf(gradient, links) }),
      ...(ink === null ? {} : { ink: JSON.parse(ink) as InkUse }),
    };
    const held = found.get(paletteId);
    if (held) held.push(entry);
    else found.set(paletteId, [entry]);
  }
  return found;
}

function stopsOf(json: string, links: Links): NonNullable<PaletteEntry['gradient']> {
  const stops = JSON.parse(json) as NonNullable<PaletteEntry['gradient']>;
  return stops.map((stop) => ({ ...stop, hex: (stop.link && links.get(stop.link)) || stop.hex }));
}

const dataOf = (db: Db, row: typeof palette.$inferSelect): PaletteData => ({
  id: row.id,
  name: row.name,
  version: row.version,
  projectId: row.projectId,
  colours: entriesOf(db, row.id),
});

function findRow(db: Db, id: string): typeof palette.$inferSelect | undefined {
  return db
    .select()
    .from(palette)
    .where(and(eq(palette.id, id), eq(palette.studioId, db.studio)))
    .get();
}

function noPalette(id: string): ReturnType<typeof fail> {
  return fail('not_found', `There is no palette with the id “${id}”.`, 'id');
}
