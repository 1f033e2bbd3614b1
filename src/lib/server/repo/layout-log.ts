import { deflateRawSync, inflateRawSync } from 'node:zlib';
import { eq, sql, type SQL } from 'drizzle-orm';
import {
  changedFields,
  diffLayout,
  type LayoutChange,
  type LayoutDoc,
} from '../../core/recipe/layout-changes';
import type { Shape } from '../../core/recipe/layout';
import type { LoggedChange } from '../../contract/data';
import type { Db } from '../db/open';
import { fill, layout, shape } from '../db/schema';
import { note } from './context';
import { guidesOf, layoutGroups, shapeOf } from './layouts';
import { once, Rows, statement } from './rows';

/** Of so many saves one may ask what they changed; who was away longer reads the layout whole. */
const MOST_SAVES = 400;
const MOST_CHARS = 4_000_000;

/** What of some layouts is about to be changed: shapes, and whether the page, the groups or the order of the shapes is too. */
export type Touched = ReadonlyMap<string, { shapes: ReadonlySet<string>; page: boolean }>;

/**
 * Runs what changes some layouts, gives each a new version, and writes down what became of it: the changes for those who have it
 * open, and what leads back for its history. All in the transaction that is under way. `work` gets the shapes as they are stored, and
 * may put those into `made` that it has written whole; the others are read again.
 */
export function recorded<T>(
  tx: Db,
  touched: Touched,
  work: (before: ReadonlyMap<string, Shape>, made: Map<string, Shape>) => T,
): T {
  // A shape that is not touched stands on both sides as the very same object, so that nothing of it is compared.
  const stubs = new Map<string, Shape>();
  const ids = [...touched.values()].flatMap(({ shapes }) => [...shapes]);
  const stored = shapesBy(tx, ids);
  const pages = [...touched].flatMap(([id, { page }]) => (page ? [id] : []));
  const before = new Map(pages.map((id) => [id, wholeOf(tx, id, stored, stubs)]));
  const made = new Map<string, Shape>();
  const value = work(stored, made);
  const unknown = ids.filter((id) => !made.has(id));
  for (const [id, shape] of shapesBy(tx, unknown)) made.set(id, shape);
  for (const [id, { shapes, page }] of touched) {
    if (!page) {
      write(tx, id, patches(shapes, stored, made));
      continue;
    }
    const [was, now] = [before.get(id), wholeOf(tx, id, made, stubs)];
    if (was && now) write(tx, id, { changes: diffLayout(was, now), back: diffLayout(now, was) });
  }
  return value;
}

/** What leads from shapes to the same ones as they are later, and back. */
function patches(
  ids: ReadonlySet<string>,
  from: ReadonlyMap<string, Shape>,
  to: ReadonlyMap<string, Shape>,
): { changes: LayoutChange[]; back: LayoutChange[] } {
  const changes: LayoutChange[] = [];
  const back: LayoutChange[] = [];
  for (const id of ids) {
    const [was, now] = [from.get(id), to.get(id)];
    const fields = was && now && changedFields(was, now);
    if (!fields) continue;
    const before = Object.fromEntries(Object.keys(fields).map((key) => [key, was[key as keyof Shape]]));
    changes.push({ do: 'patch-shape', id, fields });
    back.push({ do: 'patch-shape', id, fields: before });
  }
  return { changes, back };
}

/** Writes down a change: what leads to it, and what leads back. */
function write(
  tx: Db,
  id: string,
  { changes, back }: { changes: readonly LayoutChange[]; back: readonly LayoutChange[] },
): void {
  const at = Date.now();
  const version = statement(
    tx,
    'UPDATE layout SET version = version + 1, updated_at = ? WHERE id = ? RETURNING version',
  )
    .pluck()
    .get(at, id) as number;
  const before = JSON.stringify(back);
  statement(
    tx,
    `INSERT INTO layout_log (layout_id, version, person_id, at, changes, back, assets) VALUES (?, ?, ?, ?, ?, ?, ?)`,
  ).run(id, version, tx.person, at, JSON.stringify(changes), packed(before), assetsIn(before));
  note(tx, 'layout.changed', id, { version });
}

/** Shorter texts are kept as they are: packing saves little of them, and takes as long as writing their rows does. */
const WORTH_PACKING = 400;

/** What leads back, as its column holds it: deflated, or, where it is short, the text itself. Inverse of {@link unpacked}. */
export const packed = (text: string): Buffer | string =>
  text.length < WORTH_PACKING ? text : deflateRawSync(text, { level: 6 });
export const unpacked = (held: Buffer | string): LayoutChange[] =>
  JSON.parse(typeof held === 'string' ? held : inflateRawSync(held).toString('utf8')) as LayoutChange[];

/** The files that changes name, so that none is cleared while a state may come back. */
export const assetsIn = (text: string): string | null => {
  const found = new Set([...text.matchAll(/"([0-9a-f]{64})"/g)].map(([, hash]) => hash));
  return found.size === 0 ? null : [...found].join(' ');
};

/** A layout with its page, its groups and its shapes in their order, of which those that are not known stand by their ids. */
function wholeOf(
  tx: Db,
  id: string,
  known: ReadonlyMap<string, Shape>,
  stubs: Map<string, Shape>,
): LayoutDoc | null {
  const row = layoutRow(tx).get({ id });
  if (!row) return null;
  const order = statement(tx, 'SELECT id FROM shape WHERE layout_id = ? ORDER BY position')
    .pluck()
    .all(id) as string[];
  const shapes = order.map((one) => {
    const found = known.get(one) ?? stubs.get(one) ?? ({ id: one } as Shape);
    if (!known.has(one)) stubs.set(one, found);
    return found;
  });
  const { name, width, height, measure, ppi, background, backgroundLink, bleed, margin } = row;
  return {
    ...{ name, width, height, measure, ppi, background, backgroundLink, bleed, margin, shapes },
    ...{ guides: guidesOf(row.guides), groups: layoutGroups(tx, id) },
  };
}

const layoutRow = once((db) =>
  db
    .select()
    .from(layout)
    .where(eq(layout.id, sql.placeholder('id')))
    .prepare(),
);
const shapeRows = new Rows(shape);
const fillRows = new Rows(fill);
const LISTED = 'IN (SELECT value FROM json_each(?))';

/** Shapes by their ids, as far as they can be read. */
export function shapesBy(db: Db, ids: readonly string[]): Map<string, Shape> {
  const shapes = new Map<string, Shape>();
  if (ids.length === 0) return shapes;
  // Most saves are about one shape.
  const [among, list] = ids.length === 1 ? ['= ?', ids[0]] : [LISTED, JSON.stringify(ids)];
  const rows = shapeRows.where(db, `id ${among}`, list);
  const fills = fillRows.where(db, `shape_id ${among} ORDER BY position`, list);
  const byShape = new Map<string, (typeof fill.$inferSelect)[]>();
  for (const row of fills) byShape.set(row.shapeId, [...(byShape.get(row.shapeId) ?? []), row]);
  for (const row of rows)
    try {
      shapes.set(row.id, shapeOf(row, byShape.get(row.id) ?? []));
    } catch {
      // What is damaged stays as it is; nobody changes it.
    }
  return shapes;
}

/** Runs what changes some fills, and the backgrounds of some pages; answers the ids of the layouts that they are in. */
export function touching(
  tx: Db,
  { fills, pages = [] }: { fills: SQL | undefined; pages?: readonly string[] },
  work: () => void,
): string[] {
  const touched = new Map(pages.map((id) => [id, { shapes: new Set<string>(), page: true }]));
  const found = fills
    ? tx
        .selectDistinct({ layoutId: shape.layoutId, id: shape.id })
        .from(fill)
        .innerJoin(shape, eq(shape.id, fill.shapeId))
        .where(fills)
        .all()
    : [];
  for (const { layoutId, id } of found) {
    const held = touched.get(layoutId);
    if (held) held.shapes.add(id);
    else touched.set(layoutId, { shapes: new Set([id]), page: false });
  }
  recorded(tx, touched, work);
  return [...touched.keys()];
}

/**
 * What was changed in a layout since a version, save by save; `null` where that is not known any more: it is to be read whole then.
 */
export function changesSince(db: Db, id: string, version: number): LoggedChange[] | null {
  const now = statement(db, 'SELECT version FROM layout WHERE id = ?').pluck().get(id) as number | undefined;
  if (now === undefined || version > now || now - version > MOST_SAVES) return null;
  const rows = statement(
    db,
    `SELECT version, person_id AS person, at, changes, (SELECT name FROM person p WHERE p.id = person_id) AS by
      FROM layout_log WHERE layout_id = ? AND version > ? ORDER BY version`,
  ).all(id, version) as (Omit<LoggedChange, 'changes'> & { changes: string | null })[];
  if (rows.length !== now - version) return null;
  let left = MOST_CHARS;
  const known: LoggedChange[] = [];
  for (const { changes, ...row } of rows) {
    if (changes === null || (left -= changes.length) < 0) return null;
    known.push({ ...row, changes: JSON.parse(changes) as LayoutChange[] });
  }
  return known;
}
