import { and, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import type { LastParcel, ParcelContents, ParcelWish } from '../../contract/data';
import type { Db } from '../db/open';
import { fill, layout, parcel, pattern, shape } from '../db/schema';

type Held = Pick<ParcelContents, 'layouts' | 'patterns'>;
type Changes = LastParcel['changed'];

/** Remembers the parcel that was made of a project last. */
export function keepParcel(db: Db, projectId: string, wish: ParcelWish, contents: ParcelContents): void {
  const held: Held = { layouts: contents.layouts, patterns: contents.patterns };
  const row = { wish: JSON.stringify(wish), held: JSON.stringify(held), madeAt: Date.now() };
  db.insert(parcel)
    .values({ projectId, studioId: db.studio, ...row })
    .onConflictDoUpdate({ target: parcel.projectId, set: row })
    .run();
}

/** The last parcel of a project, and what is another since; `null` where there is none. */
export function lastParcel(db: Db, projectId: string): LastParcel | null {
  const row = db.select().from(parcel).where(eq(parcel.projectId, projectId)).get();
  if (!row) return null;
  const held = JSON.parse(row.held) as Held;
  return {
    madeAt: row.madeAt,
    wish: JSON.parse(row.wish) as ParcelWish,
    changed: [...layoutChanges(db, projectId, held, row.madeAt), ...patternChanges(db, projectId, held)],
  };
}

/** Layouts that were in it and are others or gone, and those that were made since. */
function layoutChanges(db: Db, projectId: string, { layouts }: Held, since: number): Changes {
  const { id, name, version, createdAt } = layout;
  const now = db
    .select({ id, name, version, createdAt })
    .from(layout)
    .where(and(eq(layout.projectId, projectId), isNull(layout.archivedAt)))
    .all();
  const then = new Map(layouts.map((one) => [one.id, one.version]));
  const here = new Set(now.map((one) => one.id));
  return [
    ...now.flatMap((one): Changes => {
      const before = then.get(one.id);
      if (before === undefined)
        return one.createdAt > since ? [{ name: one.name, what: 'layout', how: 'new' }] : [];
      return before === one.version ? [] : [{ name: one.name, what: 'layout', how: 'changed' }];
    }),
    ...layouts.flatMap((one): Changes =>
      here.has(one.id) ? [] : [{ name: one.name, what: 'layout', how: 'gone' }],
    ),
  ];
}

/** Patterns that these layouts show now at another revision, or did not show, or show no more. */
function patternChanges(db: Db, projectId: string, { layouts, patterns }: Held): Changes {
  const held = new Set(layouts.map(({ id }) => id));
  const rows = db
    .selectDistinct({
      id: pattern.id,
      name: pattern.name,
      layoutId: layout.id,
      revision: sql<number>`coalesce(${fill.heldRevision}, ${pattern.newest})`,
    })
    .from(fill)
    .innerJoin(pattern, eq(pattern.id, fill.patternId))
    .innerJoin(shape, eq(shape.id, fill.shapeId))
    .innerJoin(layout, eq(layout.id, shape.layoutId))
    .where(and(eq(layout.projectId, projectId), isNull(layout.archivedAt), isNotNull(fill.patternId)))
    .all()
    .filter(({ layoutId }) => held.has(layoutId));
  const keyOf = ({ id, revision }: { id: string; revision: number }): string => `${id}@${revision}`;
  const before = new Set(patterns.map(keyOf));
  const known = new Set(patterns.map(({ id }) => id));
  const now = new Set(rows.map(({ id }) => id));
  const changed = new Map<string, Changes[number]>();
  for (const row of rows)
    if (!before.has(keyOf(row)))
      changed.set(row.id, { name: row.name, what: 'pattern', how: known.has(row.id) ? 'changed' : 'new' });
  for (const { id, name } of patterns)
    if (!now.has(id)) changed.set(id, { name, what: 'pattern', how: 'gone' });
  return [...changed.values()];
}
