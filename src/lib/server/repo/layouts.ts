import type { NewLayout } from '../../contract/given';
import { and, asc, eq, sql } from 'drizzle-orm';
import type { LayoutData, LayoutInUse, PatternForUse } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { LayoutForm } from '../../core/recipe/form';
import { cutSheet, isObjectKind, type ObjectSpec } from '../../core/mockup/objects';
import { followLayout } from '../../core/recipe/links';
import {
  layoutsWithin,
  patternFills,
  type Shape,
  type ShapeGroup,
  type ShapeStroke,
} from '../../core/recipe/layout';
import { LIMITS } from '../../core/recipe/limits';
import { patternLookup } from '../../core/scene/library';
import type { PatternLookup } from '../../core/scene/pattern';
import type { Guide } from '../../core/recipe/recipe';
import type { Mask } from '../../core/recipe/mask';
import type { Db } from '../db/open';
import { fill, layout, project, shape, shapeGroup } from '../db/schema';
import { among, newId, note, writing } from './context';
import { fillOf } from './fill-rows';
import { once } from './rows';
import { paletteLinks } from './links';
import { nameKey } from './names';
import { patternsForUse } from './patterns';

/** A new, empty layout in a project; its page is white unless said otherwise. */
export function createLayout(
  db: Db,
  projectId: string,
  input: NewLayout,
): Outcome<{ id: string; version: number }> {
  return writing(db, { what: 'layout', name: input.name }, (tx): Outcome<{ id: string; version: number }> => {
    const owner = tx.select({ id: project.id }).from(project).where(eq(project.id, projectId)).get();
    if (!owner) return fail('not_found', `There is no project with the id “${projectId}”.`, 'id');
    const cut = input.object ? cutSheet(input.object) : null;
    if (cut && !cut.ok) return fail('invalid', cut.message, 'object');
    const id = newId();
    const now = Date.now();
    tx.insert(layout)
      .values({
        id,
        studioId: tx.studio,
        projectId,
        name: input.name,
        nameKey: nameKey(input.name),
        width: input.width,
        height: input.height,
        measure: input.measure,
        ppi: input.ppi ?? (input.measure === 'px' ? 96 : 300),
        background: input.background === undefined ? '#ffffff' : input.background,
        object: input.object ? JSON.stringify(input.object) : null,
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
    .where(and(eq(layout.id, id), eq(layout.studioId, db.studio)))
    .get();
  if (!found) return noLayout(id);
  const { row, projectName } = found;
  const { shapes, faults } = shapesOf(db, id);
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
    bleed: row.bleed,
    margin: row.margin,
    guides: guidesOf(row.guides),
    shapes,
    groups: layoutGroups(db, id),
    ...objectOf(row.object),
    ...(faults.length > 0 ? { faults } : {}),
  };
  return done(followLayout(data, paletteLinks(db)));
}

/** The object of a page; none where what is stored makes no sheet. */
function objectOf(stored: string | null): { object?: ObjectSpec } {
  if (stored === null) return {};
  try {
    const object = JSON.parse(stored) as ObjectSpec;
    return isObjectKind(object.kind) && cutSheet(object).ok ? { object } : {};
  } catch {
    return {};
  }
}

/** The page of a layout alone. */
export function pageOf(
  db: Db,
  id: string,
): Outcome<{ name: string; width: number; height: number; bleed: number }> {
  const { name, width, height, bleed } = layout;
  const row = db
    .select({ name, width, height, bleed })
    .from(layout)
    .where(and(eq(layout.id, id), eq(layout.studioId, db.studio)))
    .get();
  return row ? done(row) : noLayout(id);
}

/** When one of some layouts was changed last. */
export function lastChange(db: Db, ids: readonly string[]): Date {
  const rows = db.select({ at: layout.updatedAt }).from(layout).where(among(layout.id, ids)).all();
  return new Date(rows.reduce((last, { at }) => Math.max(last, at), 0));
}

/** The patterns that a layout's fills use, each with the recipes they show. */
export function layoutPatterns(db: Db, shapes: readonly Shape[]): PatternForUse[] {
  const held = new Map<string, Set<number>>();
  for (const value of shapes.flatMap(patternFills)) {
    const numbers = held.get(value.pattern) ?? new Set<number>();
    if (value.held !== null) numbers.add(value.held);
    held.set(value.pattern, numbers);
  }
  return patternsForUse(db, [...held.keys()], held);
}

/** The layouts that lie in a layout and in those, as far as layouts may; and the patterns that all of them use. */
export function layoutInUse(db: Db, layout: LayoutData): LayoutInUse {
  const pages = new Map<string, LayoutData>();
  let next = layout.shapes.flatMap(layoutsWithin);
  let shapes = 0;
  for (let depth = 0; depth <= LIMITS.nestedDepth && next.length > 0; depth += 1) {
    const found = [...new Set(next)].filter((id) => id !== layout.id && !pages.has(id));
    next = [];
    for (const id of found) {
      // One more than may lie there says that they are too many; what is more need not be read.
      if (pages.size > LIMITS.nestedLayouts || shapes > LIMITS.nestedShapes) break;
      const page = getLayout(db, id);
      if (!page.ok) continue;
      pages.set(id, page.value);
      shapes += page.value.shapes.length;
      next.push(...page.value.shapes.flatMap(layoutsWithin));
    }
  }
  const all = [layout, ...pages.values()].flatMap((one) => one.shapes);
  return { layout, patterns: layoutPatterns(db, all), pages: [...pages.values()] };
}

/** The patterns of a layout and what lies in it, to be looked up. */
export const lookupOf = ({ patterns, pages }: LayoutInUse): PatternLookup =>
  patternLookup(patterns, new Map(pages.map((page) => [page.id, page])));

/** Puts a layout into the archive or takes it out. */
export function setLayoutArchived(db: Db, id: string, archived: boolean): Outcome<{ id: string }> {
  return writing(db, { what: 'layout', name: '' }, (tx): Outcome<{ id: string }> => {
    const changed = tx
      .update(layout)
      .set({ archivedAt: archived ? Date.now() : null })
      .where(and(eq(layout.id, id), eq(layout.studioId, tx.studio)))
      .run();
    if (changed.changes === 0) return noLayout(id);
    note(tx, archived ? 'layout.archived' : 'layout.restored', id);
    return done({ id });
  });
}

export function layoutGroups(db: Db, layoutId: string): ShapeGroup[] {
  return groupRows(db).all({ layoutId });
}

const groupRows = once((db) => {
  const { id, name, parent, locked, hidden } = shapeGroup;
  return db
    .select({ id, name, parent, locked, hidden })
    .from(shapeGroup)
    .where(eq(shapeGroup.layoutId, sql.placeholder('layoutId')))
    .prepare();
});

/** The shapes of a layout in stack order; one that cannot be read is left out and named, and takes none along. */
function shapesOf(db: Db, layoutId: string): { shapes: Shape[]; faults: string[] } {
  const rows = db.select().from(shape).where(eq(shape.layoutId, layoutId)).orderBy(asc(shape.position)).all();
  const fills = db
    .select({ fill })
    .from(fill)
    .innerJoin(shape, eq(shape.id, fill.shapeId))
    .where(eq(shape.layoutId, layoutId))
    .orderBy(asc(fill.position))
    .all();
  const fillsByShape = new Map<string, (typeof fill.$inferSelect)[]>();
  for (const { fill: row } of fills) {
    const held = fillsByShape.get(row.shapeId);
    if (held) held.push(row);
    else fillsByShape.set(row.shapeId, [row]);
  }
  const faults: string[] = [];
  const shapes = rows.flatMap((row): Shape[] => {
    try {
      return [shapeOf(row, fillsByShape.get(row.id) ?? [])];
    } catch {
      faults.push(`What is stored of the shape “${row.name}” is damaged; it is left as it is and not shown.`);
      return [];
    }
  });
  return { shapes, faults };
}

/** A shape's row with those of its fills, in stack order, as a shape. */
export function shapeOf(row: typeof shape.$inferSelect, fills: readonly (typeof fill.$inferSelect)[]): Shape {
  const { id, name, x, y, width, height, rotation, skew, reflectX, reflectY, locked, hidden } = row;
  const numbers = { x, y, width, height, rotation, skew, reflectX, reflectY };
  const form = JSON.parse(row.form) as LayoutForm;
  const mask = row.mask === null ? null : (JSON.parse(row.mask) as Mask);
  const stack = (part: 'fill' | 'stroke') => fills.filter((one) => one.part === part).map(fillOf);
  const line = row.stroke === null ? null : (JSON.parse(row.stroke) as Omit<ShapeStroke, 'fills'>);
  const stroke = line && { ...line, fills: stack('stroke') };
  return {
    id,
    name,
    form,
    ...numbers,
    locked,
    hidden,
    fills: stack('fill'),
    stroke,
    mask,
    group: row.groupId,
  };
}

export function guidesOf(json: string): Guide[] {
  try {
    return JSON.parse(json) as Guide[];
  } catch {
    return [];
  }
}

export function noLayout(id: string): ReturnType<typeof fail> {
  return fail('not_found', `There is no layout with the id “${id}”.`, 'id');
}
