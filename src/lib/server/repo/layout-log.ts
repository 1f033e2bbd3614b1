import { deflateRawSync, inflateRawSync } from 'node:zlib';
import { asc, eq, sql, type AnyColumn, type SQL } from 'drizzle-orm';
import { diffLayout, type LayoutChange, type LayoutDoc } from '../../core/recipe/layout-changes';
import type { Shape } from '../../core/recipe/layout';
import type { LoggedChange } from '../../contract/data';
import type { Db } from '../db/open';
import { fill, layout, shape } from '../db/schema';
import { note } from './context';
import { guidesOf, layoutGroups, shapeOf } from './layouts';
import { once, statement } from './rows';

/** Of so many saves one may ask what they changed; who was away longer reads the layout whole. */
const MOST_SAVES = 400;
const MOST_CHARS = 4_000_000;

/** What of some layouts is about to be changed: shapes, and whether the page, the groups or the order of the shapes is too. */
export type Touched = ReadonlyMap<string, { shapes: ReadonlySet<string>; page: boolean }>;

/**
 * Runs what changes some layouts, gives each a new version, and writes down what became of it: the changes for those who have it
 * open, and what leads back for its history. All in the transaction that is under way. `work` gets the shapes as they are stored.
 */
export function recorded<T>(tx: Db, touched: Touched, work: (before: ReadonlyMap<string, Shape>) => T): T {
  // A shape that is not touched stands on both sides as the very same object, so that nothing of it is compared.
  const stubs = new Map<string, Shape>();
  const ids = [...touched.values()].flatMap(({ shapes }) => [...shapes]);
  const stored = shapesBy(tx, ids);
  const before = new Map([...touched.keys()].map((id) => [id, partOf(tx, id, touched, stored, stubs)]));
  const value = work(stored);
  const made = shapesBy(tx, ids);
  for (const id of touched.keys()) {
    const [was, now] = [before.get(id), partOf(tx, id, touched, made, stubs)];
    if (was && now) write(tx, id, was, now);
  }
  return value;
}

function write(tx: Db, id: string, was: LayoutDoc, now: LayoutDoc): void {
  const at = Date.now();
  const version = statement(
    tx,
    'UPDATE layout SET version = version + 1, updated_at = ? WHERE id = ? RETURNING version',
  )
    .pluck()
    .get(at, id) as number;
  const back = JSON.stringify(diffLayout(now, was));
  statement(
    tx,
    `INSERT INTO layout_log (layout_id, version, person_id, at, changes, back, assets) VALUES (?, ?, ?, ?, ?, ?, ?)`,
  ).run(id, version, tx.person, at, JSON.stringify(diffLayout(was, now)), packed(back), assetsIn(back));
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

/** What stands for the page and the groups of a layout where neither is changed. */
const SAME_PAGE: Omit<LayoutDoc, 'shapes'> = {
  ...{ name: '', width: 0, height: 0, measure: 'px', ppi: 0, background: null, backgroundLink: null },
  ...{ bleed: 0, margin: 0, guides: [], groups: [] },
};

/** A layout with what is touched of it: where that is the page, groups or order, all of these and the other shapes by their ids. */
function partOf(
  tx: Db,
  id: string,
  touched: Touched,
  known: ReadonlyMap<string, Shape>,
  stubs: Map<string, Shape>,
): LayoutDoc | null {
  const { shapes: named, page } = touched.get(id) ?? { shapes: [], page: true };
  if (!page) return { ...SAME_PAGE, shapes: [...named].flatMap((one) => known.get(one) ?? []) };
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

// Every save asks these: they are built and prepared once.
const listed = (column: AnyColumn): SQL =>
  sql`${column} IN (SELECT value FROM json_each(${sql.placeholder('ids')}))`;
const layoutRow = once((db) =>
  db
    .select()
    .from(layout)
    .where(eq(layout.id, sql.placeholder('id')))
    .prepare(),
);
const shapeRows = once((db) => db.select().from(shape).where(listed(shape.id)).prepare());
const fillRows = once((db) =>
  db.select().from(fill).where(listed(fill.shapeId)).orderBy(asc(fill.position)).prepare(),
);

/** Shapes by their ids, as far as they can be read. */
export function shapesBy(db: Db, ids: readonly string[]): Map<string, Shape> {
  const shapes = new Map<string, Shape>();
  if (ids.length === 0) return shapes;
  const list = { ids: JSON.stringify(ids) };
  const rows = shapeRows(db).all(list);
  const fills = fillRows(db).all(list);
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
