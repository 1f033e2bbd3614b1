import { and, count, eq, inArray, max } from 'drizzle-orm';
import type { LayoutChange } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Fill, PatternFill } from '../../core/recipe/fill';
import { LIMITS } from '../../core/recipe/limits';
import { fillLinks } from '../../core/recipe/links';
import { allFills, groupsOf, patternFills, type Shape, type ShapeGroup } from '../../core/recipe/layout';
import { STUDIO, type Db } from '../db/open';
import { colourway, fill, fillLink, layout, pattern, shape, shapeGroup } from '../db/schema';
import { hasAsset } from './assets';
import { note, stale, writing } from './context';
import { fillValues } from './fill-rows';
import { nameKey } from './names';

import { getLayout, noLayout } from './layouts';

type LayoutRow = typeof layout.$inferSelect;

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
    const missing = missingPattern(tx, changes) ?? missingPicture(tx, changes);
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
    .values({ ...value, studioId: STUDIO, layoutId })
    .onConflictDoUpdate({ target: shapeGroup.id, set: value })
    .run();
  return null;
}

function putShape(tx: Db, layoutId: string, value: Shape, path: string): ReturnType<typeof fail> | null {
  const { fills, form, mask, stroke, group: groupId, ...rest } = value;
  const { fills: strokeFills = [], ...line } = stroke ?? {};
  const columns = {
    ...rest,
    groupId,
    form: JSON.stringify(form),
    mask: mask && JSON.stringify(mask),
    stroke: stroke && JSON.stringify(line),
  };
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
  const used = tx.select({ patternId: fill.patternId }).from(fill).where(eq(fill.shapeId, value.id)).all();
  const before = new Set(used.map(({ patternId }) => patternId));
  tx.delete(fill).where(eq(fill.shapeId, value.id)).run();
  const refused =
    putFills(tx, fills, value.id, 'fill', `${path}.fills`) ??
    putFills(tx, strokeFills, value.id, 'stroke', `${path}.stroke.fills`);
  if (refused) return refused;
  for (const { pattern: id } of patternFills(value))
    if (!before.has(id)) tx.update(pattern).set({ lastUsedAt: Date.now() }).where(eq(pattern.id, id)).run();
  return null;
}

function putFills(
  tx: Db,
  fills: readonly Fill[],
  shapeId: string,
  part: 'fill' | 'stroke',
  path: string,
): ReturnType<typeof fail> | null {
  for (const [position, value] of fills.entries()) {
    const taken = tx.select({ id: fill.id }).from(fill).where(eq(fill.id, value.id)).get();
    if (taken)
      return fail(
        'invalid',
        'The fill’s id belongs to another fill already; give it a new one.',
        `${path}.${position}.id`,
      );
    putFill(tx, value, shapeId, { part, position });
  }
  return null;
}

/** Writes a fill's row and the palette colours that it follows. */
function putFill(
  tx: Db,
  value: Fill,
  shapeId: string,
  place: { part: 'fill' | 'stroke'; position: number },
): void {
  tx.insert(fill)
    .values({ ...fillValues(value, shapeId), ...place })
    .run();
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
    change.do === 'put-shape' ? patternsIn(change.shape, `changes.${index}.shape`) : [],
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
  for (const { path, fill: value } of wanted) {
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

/** The pattern fills of a shape with their places in the request. */
function patternsIn({ fills, stroke }: Shape, path: string): { path: string; fill: PatternFill }[] {
  const stacks = [
    { list: fills, at: `${path}.fills` },
    { list: stroke?.fills ?? [], at: `${path}.stroke.fills` },
  ];
  return stacks.flatMap(({ list, at }) =>
    list.flatMap((value, index) =>
      value.kind === 'pattern' ? [{ path: `${at}.${index}`, fill: value }] : [],
    ),
  );
}

/** The first fill or mask that shows a picture which is not there. */
function missingPicture(tx: Db, changes: readonly LayoutChange[]): ReturnType<typeof fail> | null {
  for (const [index, change] of changes.entries()) {
    if (change.do !== 'put-shape') continue;
    const { mask } = change.shape;
    const fills = allFills(change.shape);
    const masks = [mask, ...fills.map((value) => value.mask)];
    const shown = [...fills, ...masks].flatMap((one) => (one?.kind === 'picture' ? [one.asset] : []));
    const gone = shown.find((hash) => !hasAsset(tx, hash));
    if (gone !== undefined)
      return fail(
        'not_found',
        'A picture of this shape is not in Isle; bring its file in again.',
        `changes.${index}.shape.fills`,
      );
  }
  return null;
}

function isColourwayOf(db: Db, id: string, patternId: string): boolean {
  const found = db.select({ of: colourway.patternId }).from(colourway).where(eq(colourway.id, id)).get();
  return found?.of === patternId;
}
