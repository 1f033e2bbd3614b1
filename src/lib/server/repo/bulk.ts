import type { Recolouring, Replacing } from '../../contract/given';
import { isDeepStrictEqual } from 'node:util';
import { and, desc, eq, isNull, type SQL } from 'drizzle-orm';
import type { BulkChange, BulkDone } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Fill } from '../../core/recipe/fill';
import { LIMITS } from '../../core/recipe/limits';
import type { ColourSlot } from '../../core/colour/slots';
import {
  exchangeColours,
  recolourUse,
  replacePattern,
  type PatternColours,
} from '../../core/recipe/recolour';
import type { Db } from '../db/open';
import { migrateFill } from '../../core/recipe/migrate';
import { bulkChange, colourway, fill, layout, pattern, project, shape } from '../db/schema';
import { colourwaysOf } from './colourway-rows';
import { seen } from './access';
import { among, newId, note, writing } from './context';
import { fillOf, fillRows, fillValues, putFillLinks } from './fill-rows';
import { paletteLinks } from './links';
import { findRow } from './pattern-rows';
import { noPattern, recipeAt } from './patterns';
import { touching } from './layout-log';

/** One fill before and after, and likewise one page's background. */
type Change = { shapeId: string; before: Fill; after: Fill };
type PageColour = { background: string | null; backgroundLink: string | null };
type PageChange = { id: string; before: PageColour; after: PageColour };
type Changes = { fills: Change[]; pages: PageChange[] };

/** Changes as they were kept; fills of an older version are brought to the present one. */
function readChanges(json: string): Changes {
  const { fills, pages } = JSON.parse(json) as Changes;
  const present = fills.map(({ shapeId, before, after }) => ({
    shapeId,
    before: migrateFill(before),
    after: migrateFill(after),
  }));
  return { fills: present, pages };
}

/** Fills of layouts that are not archived, by layout: at most one more than are changed in one step. */
function liveFills(db: Db, which: SQL | undefined): { fill: typeof fill.$inferSelect; layoutId: string }[] {
  return db
    .select({ fill, layoutId: layout.id })
    .from(fill)
    .innerJoin(shape, eq(shape.id, fill.shapeId))
    .innerJoin(layout, eq(layout.id, shape.layoutId))
    .innerJoin(project, eq(project.id, layout.projectId))
    .where(and(which, isNull(layout.archivedAt), isNull(project.archivedAt), seen(db, project.id)))
    .limit(LIMITS.bulkFills + 1)
    .all();
}

const tooMany = (what: string, instead: string): ReturnType<typeof fail> =>
  fail(
    'too_large',
    `${what} more than ${LIMITS.bulkFills} fills, which is too many for one step; ${instead}.`,
  );

/**
 * Puts another pattern in the place of one, in all projects or in chosen ones, as one step that can be undone whole.
 * Scale, turn, offset, opacity and ground of every use stay.
 */
export function replaceEverywhere(db: Db, id: string, input: Replacing): Outcome<BulkDone> {
  return writing(db, { what: 'pattern', name: '' }, (tx): Outcome<BulkDone> => {
    const [from, to] = [findRow(tx, id), findRow(tx, input.by)];
    if (!from) return noPattern(id);
    if (!to) return noPattern(input.by);
    if (from.id === to.id)
      return fail('invalid', `“${from.name}” cannot take its own place; choose another pattern.`, 'by');
    if (to.newest === 0)
      return fail('invalid', `“${to.name}” is not published yet; publish it on the bench first.`, 'by');
    if (to.archivedAt !== null)
      return fail('invalid', `“${to.name}” is in the archive; restore it first.`, 'by');
    const after = recipeAt(tx, to.id, to.newest)?.slots ?? [];
    const found = liveFills(
      tx,
      and(eq(fill.patternId, id), input.projects && among(layout.projectId, input.projects)),
    );
    if (found.length > LIMITS.bulkFills)
      return tooMany(`“${from.name}” is used there by`, 'choose some of the projects');
    const slotsAt = new Map<number, ColourSlot[]>();
    const slotsOf = (number: number): ColourSlot[] => {
      const held = slotsAt.get(number) ?? recipeAt(tx, id, number)?.slots ?? [];
      slotsAt.set(number, held);
      return held;
    };
    const fills = found.flatMap(({ fill: row }): Change[] => {
      const before = fillOf(row);
      if (before.kind !== 'pattern') return [];
      const slots = slotsOf(before.held ?? from.newest);
      return [{ shapeId: row.shapeId, before, after: replacePattern(before, to.id, slots, after) }];
    });
    if (fills.length === 0)
      return fail('invalid', `“${from.name}” is not used there; nothing was replaced.`, 'projects');
    tx.update(pattern).set({ lastUsedAt: Date.now() }).where(eq(pattern.id, to.id)).run();
    return apply(tx, 'replaced', `“${from.name}” replaced by “${to.name}”`, { fills, pages: [] });
  });
}

/** Exchanges the colours of one palette for those of another in all fills and pages of some layouts, as one step. */
export function recolourLayouts(db: Db, input: Recolouring): Outcome<BulkDone> {
  return writing(db, { what: 'layout', name: '' }, (tx): Outcome<BulkDone> => {
    const change = exchangeColours(input.exchanges);
    const colours = colourLookup(tx);
    const found = liveFills(tx, among(layout.id, input.layouts));
    if (found.length > LIMITS.bulkFills) return tooMany('These layouts hold', 'choose fewer of them');
    const fills = found.flatMap(({ fill: row }): Change[] => {
      const before = fillOf(row);
      const after = recolourUse(before, colours(before), change);
      return after === before ? [] : [{ shapeId: row.shapeId, before, after }];
    });
    const rows = tx
      .select()
      .from(layout)
      .where(and(among(layout.id, input.layouts), seen(tx, layout.projectId)))
      .all();
    const pages = rows.flatMap((row): PageChange[] => {
      if (row.background === null) return [];
      const { background, backgroundLink } = row;
      const tint = { colour: background, ...(backgroundLink === null ? {} : { link: backgroundLink }) };
      const now = change(tint);
      const after = { background: now.colour, backgroundLink: now.link ?? null };
      return now === tint ? [] : [{ id: row.id, before: { background, backgroundLink }, after }];
    });
    if (fills.length + pages.length === 0)
      return fail('invalid', 'None of these colours is used there; nothing was recoloured.', 'exchanges');
    return apply(tx, 'recoloured', input.summary, { fills, pages });
  });
}

/** The slots and colourways that fills show, each pattern's looked up once. */
function colourLookup(db: Db): (value: Fill) => PatternColours | null {
  const links = paletteLinks(db);
  const held = new Map<string, PatternColours | null>();
  return (value) => {
    if (value.kind !== 'pattern') return null;
    const number = value.held ?? findRow(db, value.pattern)?.newest ?? 0;
    const key = `${value.pattern}@${number}`;
    if (!held.has(key)) {
      const recipe = recipeAt(db, value.pattern, number);
      const colourways = colourwaysOf(db, [value.pattern], links).get(value.pattern) ?? [];
      held.set(key, recipe && { slots: recipe.slots, colourways });
    }
    return held.get(key) ?? null;
  };
}

/** The latest changes that can still be undone, newest first; with `patternId` those that took it out or put it in. */
export function listChanges(db: Db, patternId?: string): BulkChange[] {
  const rows = db
    .select()
    .from(bulkChange)
    .where(and(eq(bulkChange.studioId, db.studio), isNull(bulkChange.undoneAt)))
    .orderBy(desc(bulkChange.createdAt))
    .limit(50)
    .all();
  return rows
    .filter((row) => patternId === undefined || row.fills.includes(`"pattern":"${patternId}"`))
    .map((row) => ({ row, changes: readChanges(row.fills) }))
    .filter(({ changes }) => !leadsToDeleted(db, changes.fills))
    .slice(0, 10)
    .map(({ row: { id, summary, createdAt }, changes }) => ({
      id,
      summary,
      fills: changes.fills.length,
      createdAt,
    }));
}

/** True where undoing would bring back a pattern that was deleted for good since then. */
function leadsToDeleted(db: Db, fills: readonly Change[]): boolean {
  const patterns = new Set(
    fills.flatMap(({ before }) => (before.kind === 'pattern' ? [before.pattern] : [])),
  );
  return [...patterns].some((id) => !findRow(db, id));
}

/** A fill as it was, but for a colourway that was taken away since then. */
function restored(db: Db, before: Fill): Fill {
  if (before.kind !== 'pattern' || before.colourway === null) return before;
  const way = db.select({ id: colourway.id }).from(colourway).where(eq(colourway.id, before.colourway)).get();
  return way ? before : { ...before, colourway: null };
}

/** Undoes a change of many fills and pages. What was changed again since then is left as it is now, and counted. */
export function undoBulk(db: Db, id: string): Outcome<{ fills: number; left: number }> {
  return writing(db, { what: 'change', name: '' }, (tx): Outcome<{ fills: number; left: number }> => {
    const row = tx
      .select()
      .from(bulkChange)
      .where(and(eq(bulkChange.id, id), eq(bulkChange.studioId, tx.studio)))
      .get();
    if (!row) return fail('not_found', `There is no such change “${id}” to undo.`, 'id');
    if (row.undoneAt !== null) return fail('invalid', 'This change is undone already.', 'id');
    const { fills, pages } = readChanges(row.fills);
    if (leadsToDeleted(tx, fills))
      return fail(
        'invalid',
        `${row.summary}: this cannot be undone, since a pattern that it would bring back is deleted for good.`,
        'id',
      );
    const ids = fills.map((one) => one.after.id);
    const rows = tx.select().from(fill).where(among(fill.id, ids)).all();
    const present = new Map(rows.map((held) => [held.id, fillOf(held)]));
    const back = fills.filter((one) => isDeepStrictEqual(present.get(one.after.id), one.after));
    const pagesBack = pages.filter((page) => isDeepStrictEqual(pageColour(tx, page.id), page.after));
    write(tx, {
      fills: back.map(({ shapeId, before, after }) => ({
        shapeId,
        before: after,
        after: restored(tx, before),
      })),
      pages: pagesBack.map(({ id: page, before, after }) => ({ id: page, before: after, after: before })),
    });
    tx.update(bulkChange).set({ undoneAt: Date.now() }).where(eq(bulkChange.id, id)).run();
    note(tx, 'bulk.undone', id);
    const left = fills.length - back.length + pages.length - pagesBack.length;
    return done({ fills: back.length, left });
  });
}

const pageColour = (db: Db, id: string): PageColour | undefined =>
  db
    .select({ background: layout.background, backgroundLink: layout.backgroundLink })
    .from(layout)
    .where(eq(layout.id, id))
    .get();

function apply(tx: Db, kind: string, summary: string, changes: Changes): Outcome<BulkDone> {
  const id = newId();
  const layouts = write(tx, changes);
  tx.insert(bulkChange)
    .values({ id, studioId: tx.studio, kind, summary, fills: JSON.stringify(changes), createdAt: Date.now() })
    .run();
  note(tx, `bulk.${kind}`, id, { summary });
  return done({ id, fills: changes.fills.length, layouts, summary });
}

/** Writes the fills and pages of a change; answers how many layouts it touches. */
function write(tx: Db, { fills, pages }: Changes): number {
  const ids = fills.map(({ after }) => after.id);
  const touched = {
    fills: ids.length > 0 ? among(fill.id, ids) : undefined,
    pages: pages.map(({ id }) => id),
  };
  return touching(tx, touched, () => {
    for (const { shapeId, after } of fills) {
      const held = fillRows.get(tx, after.id);
      if (held && fillRows.put(tx, fillValues(tx, after, shapeId), held)) putFillLinks(tx, after);
    }
    for (const { id, after } of pages) tx.update(layout).set(after).where(eq(layout.id, id)).run();
  }).length;
}
