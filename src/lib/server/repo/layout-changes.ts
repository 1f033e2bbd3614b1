import { and, eq } from 'drizzle-orm';
import type { LayoutChange, LayoutData, LayoutSince } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Fill } from '../../core/recipe/fill';
import { LIMITS } from '../../core/recipe/limits';
import { groupsOf, patternFills, type Shape, type ShapeGroup } from '../../core/recipe/layout';
import type { Db } from '../db/open';
import { layout, shape, shapeGroup } from '../db/schema';
import { stale, writing } from './context';
import { fillRows, fillValues, putFillLinks } from './fill-rows';
import { changesSince, recorded } from './layout-log';
import { missingLayout, missingPattern, missingPicture, nestedWrong } from './layout-refs';
import { getLayout, noLayout } from './layouts';
import { nameKey } from './names';
import { Rows, statement } from './rows';

/** What a save has to know of its layout. */
type LayoutRow = { id: string; name: string; version: number; projectId: string };

const rowOf = (tx: Db, id: string): LayoutRow | undefined =>
  statement(
    tx,
    'SELECT id, name, version, project_id AS projectId FROM layout WHERE id = ? AND studio_id = ?',
  ).get(id, tx.studio) as LayoutRow | undefined;

/** Applies changes in one transaction and answers the new version; refused whole when stale or when one of them fails. */
export function applyChanges(
  db: Db,
  id: string,
  base: number,
  asked: readonly LayoutChange[],
): Outcome<{ version: number }> {
  const renamed = asked.find((change) => change.do === 'page' && change.name !== undefined);
  const name = renamed?.do === 'page' ? (renamed.name ?? '') : '';
  const outcome = writing(db, { what: 'layout', name }, (tx): Outcome<{ version: number }> => {
    const row = rowOf(tx, id);
    if (!row) return noLayout(id);
    if (row.version !== base) return stale(`“${row.name}”`, base, row.version, undefined);
    // Patches leave the page, the groups and the order as they are.
    const shapesAlone = asked.every((change) => change.do === 'patch-shape');
    const touched = new Map([[id, { shapes: new Set(asked.flatMap(shapeIdOf)), page: !shapesAlone }]]);
    return recorded(tx, touched, (stored, made) => {
      const read = whole(stored, asked);
      if (!read.ok) return read;
      const refused = missing(tx, row, read.value) ?? applyAll(tx, row, read.value, stored);
      // Where groups go, shapes are changed that nobody named: what came of those is read again.
      for (const change of shapesAlone ? read.value : [])
        if (change.do === 'put-shape') made.set(change.shape.id, change.shape);
      return refused ?? done({ version: row.version + 1 });
    });
  });
  if (outcome.ok || outcome.failure.code !== 'stale') return outcome;
  return { ok: false, failure: { ...outcome.failure, current: currentOf(db, id, base) } };
}

/** What somebody needs whose save started from an older version: the changes since then, or the whole layout. */
function currentOf(db: Db, id: string, base: number): LayoutSince | LayoutData | undefined {
  const since = changesSince(db, id, base);
  const last = since?.[since.length - 1];
  if (since && last) return { version: last.version, since };
  const current = getLayout(db, id);
  return current.ok ? current.value : undefined;
}

function shapeIdOf(change: LayoutChange): string[] {
  if (change.do === 'put-shape') return [change.shape.id];
  return change.do === 'remove-shape' || change.do === 'patch-shape' ? [change.id] : [];
}

/** Changes in which shapes are whole. */
type WholeChange = Exclude<LayoutChange, { do: 'patch-shape' }>;

/** Puts the fields of patches into the shapes that they are of; those of a shape that is not there are refused. */
function whole(stored: ReadonlyMap<string, Shape>, changes: readonly LayoutChange[]): Outcome<WholeChange[]> {
  const shapes = new Map(stored);
  const made: WholeChange[] = [];
  for (const [index, change] of changes.entries()) {
    if (change.do === 'put-shape') shapes.set(change.shape.id, change.shape);
    if (change.do === 'remove-shape') shapes.delete(change.id);
    if (change.do !== 'patch-shape') {
      made.push(change);
      continue;
    }
    const held = shapes.get(change.id);
    if (!held)
      return fail(
        'not_found',
        'A shape that is to be changed is not there any more; put it whole to bring it back.',
        `changes.${index}.id`,
      );
    const next = { ...held, ...change.fields };
    shapes.set(change.id, next);
    made.push({ do: 'put-shape', shape: next });
  }
  return done(made);
}

/** What changes refer to and is not there. */
const missing = (
  tx: Db,
  { projectId }: LayoutRow,
  changes: readonly WholeChange[],
): ReturnType<typeof fail> | null =>
  missingPattern(tx, changes) ?? missingPicture(tx, changes) ?? missingLayout(tx, projectId, changes);

function applyAll(
  tx: Db,
  row: LayoutRow,
  changes: readonly WholeChange[],
  stored: ReadonlyMap<string, Shape>,
): ReturnType<typeof fail> | null {
  for (const [index, change] of changes.entries()) {
    const refused = applyChange(tx, row, change, `changes.${index}`, stored);
    if (refused) return refused;
  }
  return nestedWrong(tx, row.id, changes);
}

function applyChange(
  tx: Db,
  row: LayoutRow,
  change: WholeChange,
  path: string,
  stored: ReadonlyMap<string, Shape>,
): ReturnType<typeof fail> | null {
  switch (change.do) {
    case 'put-shape':
      return putShape(tx, row.id, change.shape, `${path}.shape`, stored.get(change.shape.id));
    case 'remove-shape':
      tx.delete(shape)
        .where(and(eq(shape.id, change.id), eq(shape.layoutId, row.id)))
        .run();
      return null;
    case 'put-group':
      return putGroup(tx, row.id, change.group, `${path}.group`);
    case 'remove-group':
      tx.delete(shapeGroup)
        .where(and(eq(shapeGroup.id, change.id), eq(shapeGroup.layoutId, row.id)))
        .run();
      return null;
    case 'order':
      return orderShapes(tx, row.id, change.ids, `${path}.ids`);
    case 'page': {
      const { do: _do, guides, ...page } = change;
      const named = page.name === undefined ? {} : { nameKey: nameKey(page.name) };
      const lines = guides ? { guides: JSON.stringify(guides) } : {};
      if (Object.keys(change).length > 1)
        tx.update(layout)
          .set({ ...page, ...named, ...lines })
          .where(eq(layout.id, row.id))
          .run();
      return null;
    }
  }
}

function putGroup(tx: Db, layoutId: string, value: ShapeGroup, path: string): ReturnType<typeof fail> | null {
  const held = tx.select().from(shapeGroup).where(eq(shapeGroup.layoutId, layoutId)).all();
  const known = held.some(({ id }) => id === value.id);
  const elsewhere = known
    ? undefined
    : tx.select({ id: shapeGroup.id }).from(shapeGroup).where(eq(shapeGroup.id, value.id)).get();
  if (elsewhere)
    return fail('invalid', 'The group’s id belongs to another layout; give it a new one.', `${path}.id`);
  if (!known && held.length >= LIMITS.groups)
    return fail('invalid', `A layout holds at most ${LIMITS.groups} groups.`, path);
  if (groupsOf(held, value.parent).some(({ id }) => id === value.id))
    return fail('invalid', 'A group cannot lie in itself; choose another group around it.', `${path}.parent`);
  tx.insert(shapeGroup)
    .values({ ...value, studioId: tx.studio, layoutId })
    .onConflictDoUpdate({ target: shapeGroup.id, set: value })
    .run();
  return null;
}

const shapeRows = new Rows(shape);

/** Writes a shape and its fills; those of a patch that says nothing of them are left alone: they are the very ones of `stored`. */
function putShape(
  tx: Db,
  layoutId: string,
  value: Shape,
  path: string,
  stored: Shape | undefined,
): ReturnType<typeof fail> | null {
  const { fills, form, mask, stroke, group: groupId, ...rest } = value;
  const { fills: strokeFills = [], ...line } = stroke ?? {};
  const held = shapeRows.get(tx, value.id);
  if (held && shapeRows.value(held, 'layoutId') !== layoutId)
    return fail('invalid', 'The shape’s id belongs to another layout; give it a new one.', `${path}.id`);
  if (!held && !hasRoom(tx, layoutId))
    return fail('invalid', `A layout holds at most ${LIMITS.shapes} shapes.`, path);
  const position = held ? (shapeRows.value(held, 'position') as number) : topPosition(tx, layoutId) + 1;
  const columns = {
    ...rest,
    studioId: tx.studio,
    layoutId,
    position,
    groupId,
    form: JSON.stringify(form),
    mask: mask && JSON.stringify(mask),
    stroke: stroke && JSON.stringify(line),
  };
  shapeRows.put(tx, columns, held);
  if (stored && stored.fills === value.fills && stored.stroke === value.stroke) return null;
  const stacks = [
    { list: fills, part: 'fill' as const, at: `${path}.fills` },
    { list: strokeFills, part: 'stroke' as const, at: `${path}.stroke.fills` },
  ];
  const before = fillsOf(tx, value.id);
  const places = new Map(
    stacks.flatMap(({ list, part }) => list.map((one, index) => [one.id, `${part} ${index}`] as const)),
  );
  // Two fills cannot have one place even for a moment: where some change places all are written anew.
  const moved = before.some(({ id, place }) => places.has(id) && places.get(id) !== place);
  for (const { id } of before) if (moved || !places.has(id)) fillRows.remove(tx, id);
  const seen = new Set<string>();
  for (const { list, part, at } of stacks)
    for (const [index, one] of list.entries()) {
      const refused = putFill(tx, one, value.id, { part, position: index }, seen, `${at}.${index}.id`);
      if (refused) return refused;
    }
  const known = new Set(before.map(({ pattern: id }) => id));
  for (const { pattern: id } of patternFills(value))
    if (!known.has(id)) statement(tx, 'UPDATE pattern SET last_used_at = ? WHERE id = ?').run(Date.now(), id);
  return null;
}

type HeldFill = { id: string; place: string; pattern: string | null };

const fillsOf = (tx: Db, shapeId: string): HeldFill[] =>
  statement(
    tx,
    "SELECT id, part || ' ' || position AS place, pattern_id AS pattern FROM fill WHERE shape_id = ?",
  ).all(shapeId) as HeldFill[];

/** The position of the topmost shape; -1 where there is none. */
function topPosition(tx: Db, layoutId: string): number {
  const sql = 'SELECT position FROM shape WHERE layout_id = ? ORDER BY position DESC LIMIT 1';
  return (statement(tx, sql).pluck().get(layoutId) as number | undefined) ?? -1;
}

/** True where a layout may hold one more shape: the one at the limit, counted from below, is not there. */
function hasRoom(tx: Db, layoutId: string): boolean {
  // Positions are whole and rise, so only a layout whose topmost position is that high needs counting.
  if (topPosition(tx, layoutId) < LIMITS.shapes - 1) return true;
  const sql = 'SELECT count(*) FROM shape WHERE layout_id = ?';
  return (statement(tx, sql).pluck().get(layoutId) as number) < LIMITS.shapes;
}

/** Writes a fill's row and the palette colours that it follows, where they are not there already. */
function putFill(
  tx: Db,
  value: Fill,
  shapeId: string,
  place: { part: 'fill' | 'stroke'; position: number },
  seen: Set<string>,
  path: string,
): ReturnType<typeof fail> | null {
  const held = fillRows.get(tx, value.id);
  if (seen.has(value.id) || (held && fillRows.value(held, 'shapeId') !== shapeId))
    return fail('invalid', 'The fill’s id belongs to another fill already; give it a new one.', path);
  seen.add(value.id);
  if (held && fillRows.value(held, 'kind') !== value.kind) fillRows.remove(tx, value.id);
  const same = held !== null && fillRows.value(held, 'kind') === value.kind;
  if (!fillRows.put(tx, { ...fillValues(tx, value, shapeId), ...place }, same ? held : null)) return null;
  putFillLinks(tx, value);
  return null;
}

/** The order of the shapes from the bottom up. Shapes that cannot be read are not known to whoever orders, and stay on top. */
function orderShapes(
  tx: Db,
  layoutId: string,
  ids: readonly string[],
  path: string,
): ReturnType<typeof fail> | null {
  const held = statement(tx, 'SELECT id, position FROM shape WHERE layout_id = ? ORDER BY position').all(
    layoutId,
  ) as { id: string; position: number }[];
  const places = new Map(held.map(({ id, position }) => [id, position]));
  const named = new Set(ids);
  const left = held.filter(({ id }) => !named.has(id)).map(({ id }) => id);
  const readable = left.length === 0 ? [] : readableAmong(tx, layoutId, left);
  if (named.size !== ids.length || ids.some((id) => !places.has(id)) || readable.length > 0)
    return fail('invalid', 'The order must name every shape of the layout once.', path);
  [...ids, ...left].forEach((id, position) => {
    if (places.get(id) !== position)
      statement(tx, 'UPDATE shape SET position = ? WHERE id = ?').run(position, id);
  });
  return null;
}

function readableAmong(tx: Db, layoutId: string, ids: readonly string[]): string[] {
  const layout = getLayout(tx, layoutId);
  const shown = new Set(layout.ok ? layout.value.shapes.map(({ id }) => id) : []);
  return ids.filter((id) => shown.has(id));
}
