import { and, eq } from 'drizzle-orm';
import type { LayoutChange } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Fill, PatternFill } from '../../core/recipe/fill';
import { LIMITS } from '../../core/recipe/limits';
import { nestingFault } from '../../core/draw/nested';
import {
  allFills,
  groupsOf,
  layoutsWithin,
  patternFills,
  type Shape,
  type ShapeGroup,
} from '../../core/recipe/layout';
import { STUDIO, type Db } from '../db/open';
import { colourway, layout, pattern, shape, shapeGroup } from '../db/schema';
import { hasAsset } from './assets';
import { among, note, stale, writing } from './context';
import { fillRows, fillValues, putFillLinks } from './fill-rows';
import { getLayout, layoutInUse, noLayout } from './layouts';
import { nameKey } from './names';
import { RowWriter, statement } from './rows';

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
    const missing =
      missingPattern(tx, changes) ?? missingPicture(tx, changes) ?? missingLayout(tx, row.projectId, changes);
    if (missing) return missing;
    for (const [index, change] of changes.entries()) {
      const refused = applyChange(tx, row, change, `changes.${index}`);
      if (refused) return refused;
    }
    const nested = nestedWrong(tx, id, changes);
    if (nested) return nested;
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

const shapeRows = new RowWriter(shape);

function putShape(tx: Db, layoutId: string, value: Shape, path: string): ReturnType<typeof fail> | null {
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
    studioId: STUDIO,
    layoutId,
    position,
    groupId,
    form: JSON.stringify(form),
    mask: mask && JSON.stringify(mask),
    stroke: stroke && JSON.stringify(line),
  };
  shapeRows.put(tx, columns, held);
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
  if (!fillRows.put(tx, { ...fillValues(value, shapeId), ...place }, same ? held : null)) return null;
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

/** The shapes among changes that are filled with layouts, with their places in the request. */
const filledWithLayouts = (changes: readonly LayoutChange[]): { ids: string[]; path: string }[] =>
  changes.flatMap((change, index) => {
    const ids = change.do === 'put-shape' ? layoutsWithin(change.shape) : [];
    return ids.length > 0 ? [{ ids, path: `changes.${index}.shape.fills` }] : [];
  });

/** The first fill whose layout is not there, or is of another project. */
function missingLayout(
  tx: Db,
  projectId: string,
  changes: readonly LayoutChange[],
): ReturnType<typeof fail> | null {
  for (const { ids, path } of filledWithLayouts(changes))
    for (const within of ids) {
      const page = tx.select({ of: layout.projectId }).from(layout).where(eq(layout.id, within)).get();
      if (page?.of !== projectId)
        return fail(
          'not_found',
          'A layout that fills a shape is not in this project; choose another one.',
          path,
        );
    }
  return null;
}

/** Layouts that would lie in themselves, or too many; told once all changes are made. */
function nestedWrong(tx: Db, id: string, changes: readonly LayoutChange[]): ReturnType<typeof fail> | null {
  const [first] = filledWithLayouts(changes);
  if (!first) return null;
  const own = getLayout(tx, id);
  if (!own.ok) return own;
  const { pages } = layoutInUse(tx, own.value);
  const wrong = nestingFault(id, new Map([own.value, ...pages].map((page) => [page.id, page])));
  return wrong === null ? null : fail('invalid', wrong, first.path);
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
      .where(among(pattern.id, ids))
      .all()
      .map((row) => [row.id, row.newest]),
  );
  const ways = new Map(
    tx
      .select({ id: colourway.id, of: colourway.patternId })
      .from(colourway)
      .where(
        among(
          colourway.id,
          wanted.flatMap(({ fill: value }) => value.colourway ?? []),
        ),
      )
      .all()
      .map((row) => [row.id, row.of]),
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
    if (value.colourway !== null && ways.get(value.colourway) !== value.pattern)
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
  const known = new Map<string, boolean>();
  const isHere = (hash: string): boolean => {
    const found = known.get(hash) ?? hasAsset(tx, hash);
    known.set(hash, found);
    return found;
  };
  for (const [index, change] of changes.entries()) {
    if (change.do !== 'put-shape') continue;
    const fills = allFills(change.shape);
    const shown = [...fills, change.shape.mask, ...fills.map((value) => value.mask)];
    const cuts = fills.flatMap((value) => (value.kind === 'picture' && value.cut ? [value.cut.asset] : []));
    const gone = cuts.some((asset) => !isHere(asset));
    if (gone || shown.some((one) => one?.kind === 'picture' && !isHere(one.asset)))
      return fail(
        'not_found',
        'A picture of this shape is not in Isle; bring its file in again.',
        `changes.${index}.shape.fills`,
      );
  }
  return null;
}
