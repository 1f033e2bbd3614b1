import { and, asc, count, eq, inArray, max, ne } from 'drizzle-orm';
import type { LayoutChange, LayoutData, PatternForUse } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { ShapeForm } from '../../core/geom/shapes';
import type { LengthUnit } from '../../core/num/length';
import type { Fill } from '../../core/recipe/fill';
import { LIMITS } from '../../core/recipe/limits';
import { fillLinks, followLayout } from '../../core/recipe/links';
import type { Shape } from '../../core/recipe/layout';
import { STUDIO, type Db } from '../db/open';
import { colourway, fill, fillLink, layout, pattern, project, shape } from '../db/schema';
import { newId, note, stale, writing } from './context';
import { fillOf, fillValues } from './fill-rows';
import { paletteLinks } from './links';
import { nameKey } from './names';
import { patternsForUse } from './patterns';

export type NewLayout = {
  name: string;
  width: number;
  height: number;
  measure: LengthUnit;
  ppi?: number;
  background?: string | null;
};

type LayoutRow = typeof layout.$inferSelect;

/** A new, empty layout in a project; its page is white unless said otherwise. */
export function createLayout(
  db: Db,
  projectId: string,
  input: NewLayout,
): Outcome<{ id: string; version: number }> {
  return writing(db, { what: 'layout', name: input.name }, (tx): Outcome<{ id: string; version: number }> => {
    const owner = tx.select({ id: project.id }).from(project).where(eq(project.id, projectId)).get();
    if (!owner) return fail('not_found', `There is no project with the id “${projectId}”.`, 'id');
    const id = newId();
    const now = Date.now();
    tx.insert(layout)
      .values({
        id,
        studioId: STUDIO,
        projectId,
        name: input.name,
        nameKey: nameKey(input.name),
        width: input.width,
        height: input.height,
        measure: input.measure,
        ppi: input.ppi ?? (input.measure === 'px' ? 96 : 300),
        background: input.background === undefined ? '#ffffff' : input.background,
        createdAt: now,
        updatedAt: now,
      })
      .run();
    note(tx, 'layout.created', id);
    return done({ id, version: 1 });
  });
}

/** A layout with all its shapes and fills. */
export function getLayout(db: Db, id: string): Outcome<LayoutData> {
  const found = db
    .select({ row: layout, projectName: project.name })
    .from(layout)
    .innerJoin(project, eq(project.id, layout.projectId))
    .where(and(eq(layout.id, id), eq(layout.studioId, STUDIO)))
    .get();
  if (!found) return noLayout(id);
  const { row, projectName } = found;
  const data: LayoutData = {
    id: row.id,
    projectId: row.projectId,
    projectName,
    name: row.name,
    version: row.version,
    archivedAt: row.archivedAt,
    width: row.width,
    height: row.height,
    measure: row.measure,
    ppi: row.ppi,
    background: row.background,
    backgroundLink: row.backgroundLink,
    shapes: shapesOf(db, id),
  };
  return done(followLayout(data, paletteLinks(db)));
}

/** The patterns that a layout's fills use, each with the recipes they show. */
export function layoutPatterns(db: Db, shapes: readonly Shape[]): PatternForUse[] {
  const held = new Map<string, Set<number>>();
  for (const { fill: value } of shapes) {
    if (value?.kind !== 'pattern') continue;
    const numbers = held.get(value.pattern) ?? new Set<number>();
    if (value.held !== null) numbers.add(value.held);
    held.set(value.pattern, numbers);
  }
  return patternsForUse(db, [...held.keys()], held);
}

/** Applies changes in one transaction and answers the new version; refused whole when stale or when one of them fails. */
export function applyChanges(
  db: Db,
  id: string,
  base: number,
  changes: readonly LayoutChange[],
): Outcome<{ version: number }> {
  const renamed = changes.find((change) => change.do === 'page' && change.name !== undefined);
  const name = renamed?.do === 'page' ? (renamed.name ?? '') : '';
  const outcome = writing(db, { what: 'layout', name }, (tx): Outcome<{ version: number }> => {
    const row = tx
      .select()
      .from(layout)
      .where(and(eq(layout.id, id), eq(layout.studioId, STUDIO)))
      .get();
    if (!row) return noLayout(id);
    if (row.version !== base) return stale(`“${row.name}”`, base, row.version, undefined);
    const missing = missingPattern(tx, changes);
    if (missing) return missing;
    for (const [index, change] of changes.entries()) {
      const refused = applyChange(tx, row, change, `changes.${index}`);
      if (refused) return refused;
    }
    const version = row.version + 1;
    tx.update(layout).set({ version, updatedAt: Date.now() }).where(eq(layout.id, id)).run();
    note(tx, 'layout.changed', id, { version });
    return done({ version });
  });
  if (outcome.ok || outcome.failure.code !== 'stale') return outcome;
  const current = getLayout(db, id);
  return { ok: false, failure: { ...outcome.failure, current: current.ok ? current.value : undefined } };
}

/** Puts a layout into the archive or takes it out. */
export function setLayoutArchived(db: Db, id: string, archived: boolean): Outcome<{ id: string }> {
  const row = db.select({ id: layout.id }).from(layout).where(eq(layout.id, id)).get();
  if (!row) return noLayout(id);
  db.update(layout)
    .set({ archivedAt: archived ? Date.now() : null })
    .where(eq(layout.id, id))
    .run();
  note(db, archived ? 'layout.archived' : 'layout.restored', id);
  return done({ id });
}

function applyChange(
  tx: Db,
  row: LayoutRow,
  change: LayoutChange,
  path: string,
): ReturnType<typeof fail> | null {
  switch (change.do) {
    case 'put-shape':
      return putShape(tx, row.id, change.shape, `${path}.shape`);
    case 'remove-shape':
      tx.delete(shape)
        .where(and(eq(shape.id, change.id), eq(shape.layoutId, row.id)))
        .run();
      return null;
    case 'order':
      return orderShapes(tx, row.id, change.ids, `${path}.ids`);
    case 'page': {
      const { do: _do, ...page } = change;
      const named = page.name === undefined ? {} : { nameKey: nameKey(page.name) };
      if (Object.keys(page).length > 0)
        tx.update(layout)
          .set({ ...page, ...named })
          .where(eq(layout.id, row.id))
          .run();
      return null;
    }
  }
}

function putShape(tx: Db, layoutId: string, value: Shape, path: string): ReturnType<typeof fail> | null {
  const { fill: newFill, form, ...rest } = value;
  const columns = { ...rest, form: JSON.stringify(form) };
  const held = tx.select({ layoutId: shape.layoutId }).from(shape).where(eq(shape.id, value.id)).get();
  if (held && held.layoutId !== layoutId)
    return fail('invalid', 'The shape’s id belongs to another layout; give it a new one.', `${path}.id`);
  if (held) {
    tx.update(shape).set(columns).where(eq(shape.id, value.id)).run();
  } else {
    const last = tx
      .select({ position: max(shape.position), count: count() })
      .from(shape)
      .where(eq(shape.layoutId, layoutId))
      .get();
    if ((last?.count ?? 0) >= LIMITS.shapes)
      return fail('invalid', `A layout holds at most ${LIMITS.shapes} shapes.`, path);
    const position = (last?.position ?? -1) + 1;
    tx.insert(shape)
      .values({ ...columns, studioId: STUDIO, layoutId, position })
      .run();
  }
  const before = tx.select({ patternId: fill.patternId }).from(fill).where(eq(fill.shapeId, value.id)).get();
  tx.delete(fill).where(eq(fill.shapeId, value.id)).run();
  const foreign = newFill
    ? tx
        .select({ id: fill.id })
        .from(fill)
        .where(and(eq(fill.id, newFill.id), ne(fill.shapeId, value.id)))
        .get()
    : undefined;
  if (foreign)
    return fail('invalid', 'The fill’s id belongs to another shape; give it a new one.', `${path}.fill.id`);
  if (newFill) putFill(tx, newFill, value.id);
  if (newFill?.kind === 'pattern' && newFill.pattern !== before?.patternId)
    tx.update(pattern).set({ lastUsedAt: Date.now() }).where(eq(pattern.id, newFill.pattern)).run();
  return null;
}

/** Writes a fill's row and the palette colours that it follows. */
export function putFill(tx: Db, value: Fill, shapeId: string): void {
  tx.insert(fill).values(fillValues(value, shapeId)).run();
  for (const colourId of fillLinks(value))
    tx.insert(fillLink).values({ fillId: value.id, colourId }).onConflictDoNothing().run();
}

function orderShapes(
  tx: Db,
  layoutId: string,
  ids: readonly string[],
  path: string,
): ReturnType<typeof fail> | null {
  const held = tx.select({ id: shape.id }).from(shape).where(eq(shape.layoutId, layoutId)).all();
  const known = new Set(held.map((row) => row.id));
  if (ids.length !== known.size || ids.some((id) => !known.has(id)) || new Set(ids).size !== ids.length)
    return fail('invalid', 'The order must name every shape of the layout once.', path);
  ids.forEach((id, position) => tx.update(shape).set({ position }).where(eq(shape.id, id)).run());
  return null;
}

/** The first fill that refers to a pattern that is not there, or to a revision that it does not have. */
function missingPattern(tx: Db, changes: readonly LayoutChange[]): ReturnType<typeof fail> | null {
  const wanted = changes.flatMap((change, index) =>
    change.do === 'put-shape' && change.shape.fill?.kind === 'pattern'
      ? [{ index, fill: change.shape.fill }]
      : [],
  );
  if (wanted.length === 0) return null;
  const ids = [...new Set(wanted.map((want) => want.fill.pattern))];
  const newest = new Map(
    tx
      .select({ id: pattern.id, newest: pattern.newest })
      .from(pattern)
      .where(inArray(pattern.id, ids))
      .all()
      .map((row) => [row.id, row.newest]),
  );
  for (const { index, fill: value } of wanted) {
    const path = `changes.${index}.shape.fill`;
    const revisions = newest.get(value.pattern);
    if (revisions === undefined)
      return fail('not_found', `There is no pattern with the id “${value.pattern}”.`, `${path}.pattern`);
    if (revisions === 0)
      return fail(
        'invalid',
        'A pattern must be published before a shape can be filled with it.',
        `${path}.pattern`,
      );
    if (value.held !== null && value.held > revisions)
      return fail(
        'not_found',
        `The pattern has no revision ${value.held}; the newest is ${revisions}.`,
        `${path}.held`,
      );
    if (value.colourway !== null && !isColourwayOf(tx, value.colourway, value.pattern))
      return fail(
        'not_found',
        'The pattern has no such colourway any more; choose another or none.',
        `${path}.colourway`,
      );
  }
  return null;
}

function isColourwayOf(db: Db, id: string, patternId: string): boolean {
  const found = db.select({ of: colourway.patternId }).from(colourway).where(eq(colourway.id, id)).get();
  return found?.of === patternId;
}

function shapesOf(db: Db, layoutId: string): Shape[] {
  const rows = db.select().from(shape).where(eq(shape.layoutId, layoutId)).orderBy(asc(shape.position)).all();
  const fills = db
    .select({ fill })
    .from(fill)
    .innerJoin(shape, eq(shape.id, fill.shapeId))
    .where(eq(shape.layoutId, layoutId))
    .all();
  const fillByShape = new Map(fills.map((row) => [row.fill.shapeId, row.fill]));
  return rows.map((row) => shapeOf(row, fillByShape.get(row.id) ?? null));
}

/** A shape's row with that of its fill as a shape. */
export function shapeOf(row: typeof shape.$inferSelect, filled: typeof fill.$inferSelect | null): Shape {
  return {
    id: row.id,
    name: row.name,
    form: JSON.parse(row.form) as ShapeForm,
    x: row.x,
    y: row.y,
    width: row.width,
    height: row.height,
    rotation: row.rotation,
    fill: filled && fillOf(filled),
  };
}

function noLayout(id: string): ReturnType<typeof fail> {
  return fail('not_found', `There is no layout with the id “${id}”.`, 'id');
}
