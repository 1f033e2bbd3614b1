import type { LayoutInUse, LayoutState } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { applyChanges, compactChanges, type LayoutChange } from '../../core/recipe/layout-changes';
import { followLayout } from '../../core/recipe/links';
import type { Db } from '../db/open';
import { note, writing } from './context';
import { assetsIn, packed, unpacked } from './layout-log';
import { getLayout, layoutInUse, noLayout } from './layouts';
import { paletteLinks } from './links';
import { statement } from './rows';

/** The state before the first save that is known: as the layout began. */
export const FIRST = 0;

type Row = { version: number; at: number; by: string | null; name: string | null; bytes: number };

/** The states of a layout that one can go back to, the newest first, and what each takes on disk. */
export function listStates(db: Db, id: string): Outcome<LayoutState[]> {
  const layout = statement(db, 'SELECT created_at AS at FROM layout WHERE id = ? AND studio_id = ?').get(
    id,
    db.studio,
  ) as { at: number } | undefined;
  if (!layout) return noLayout(id);
  const rows = statement(
    db,
    `SELECT version, at, (SELECT p.name FROM person p WHERE p.id = person_id) AS by, name, length(CAST(back AS BLOB)) AS bytes
      FROM layout_log WHERE layout_id = ? ORDER BY version DESC`,
  ).all(id) as Row[];
  return done([...rows, { version: FIRST, at: layout.at, by: null, name: null, bytes: 0 }]);
}

/** A layout as it was at a state, with all that it shows now. */
export function stateAt(db: Db, id: string, version: number): Outcome<LayoutInUse> {
  const now = getLayout(db, id);
  if (!now.ok) return now;
  const rows = statement(
    db,
    'SELECT version, back FROM layout_log WHERE layout_id = ? AND version > ? ORDER BY version DESC',
  ).all(id, version) as { version: number; back: Buffer | string }[];
  const known = version === FIRST || version === now.value.version || hasState(db, id, version);
  if (!known) return fail('not_found', 'This state is not kept any more; load the list again.', 'version');
  const {
    shapes,
    groups,
    guides,
    name,
    width,
    height,
    measure,
    ppi,
    background,
    backgroundLink,
    bleed,
    margin,
  } = now.value;
  const doc = { shapes, groups, guides, name, width, height, measure, ppi, background, bleed, margin };
  const then = applyChanges(
    { ...doc, backgroundLink: backgroundLink ?? null },
    compactChanges(rows.map(({ back }) => unpacked(back))),
  );
  const { faults: _faults, ...rest } = now.value;
  return done(layoutInUse(db, followLayout({ ...rest, ...then, version }, paletteLinks(db))));
}

const hasState = (db: Db, id: string, version: number): boolean =>
  statement(db, 'SELECT 1 FROM layout_log WHERE layout_id = ? AND version = ?').get(id, version) !==
  undefined;

/** Gives a state a name, which keeps it for good, or takes its name away. The present one can be named too. */
export function nameState(
  db: Db,
  id: string,
  version: number,
  name: string | null,
): Outcome<{ version: number }> {
  return writing(db, { what: 'state', name: name ?? '' }, (tx): Outcome<{ version: number }> => {
    const now = statement(tx, 'SELECT version FROM layout WHERE id = ?').pluck().get(id) as
      number | undefined;
    if (now === undefined) return noLayout(id);
    if (!hasState(tx, id, version)) {
      if (version !== now)
        return fail('not_found', 'This state is not kept any more; load the list again.', 'version');
      // Nothing was changed since it was made: its state is written down now.
      statement(
        tx,
        'INSERT INTO layout_log (layout_id, version, person_id, at, changes, back, assets) VALUES (?, ?, ?, ?, NULL, ?, NULL)',
      ).run(id, version, tx.person, Date.now(), packed('[]'));
    }
    const was = statement(tx, 'SELECT name FROM layout_log WHERE layout_id = ? AND version = ?')
      .pluck()
      .get(id, version) as string | null;
    statement(tx, 'UPDATE layout_log SET name = ? WHERE layout_id = ? AND version = ?').run(
      name,
      id,
      version,
    );
    note(tx, 'layout.state_named', id, { version, name, was });
    return done({ version });
  });
}

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
/** For so long every save stays by itself: whoever lost the line asks for what was changed since. */
const FRESH = 10 * MINUTE;

/** One state is kept of each of these: the last of a minute within an hour, of an hour within a day, then of a day. */
function slotOf(at: number, now: number): string | null {
  const age = now - at;
  if (age < FRESH) return null;
  if (age < HOUR) return `m${Math.floor(at / MINUTE)}`;
  if (age < DAY) return `h${Math.floor(at / HOUR)}`;
  return `d${Math.floor(at / DAY)}`;
}

type Kept = { version: number; at: number; name: string | null };

/**
 * Takes saves together that are older than some minutes, so that fewer states are kept the older they are: named ones stay, and
 * the newest one does. Goes through so many layouts at most; answers how many states were taken together.
 */
export function thinStates(db: Db, now = Date.now(), most = 50): number {
  const ids = statement(
    db,
    'SELECT DISTINCT layout_id FROM layout_log WHERE at < ? AND changes IS NOT NULL LIMIT ?',
  )
    .pluck()
    .all(now - FRESH, most) as string[];
  const older = statement(
    db,
    `SELECT layout_id FROM layout_log WHERE changes IS NULL AND name IS NULL GROUP BY layout_id
      HAVING count(*) > 60 ORDER BY random() LIMIT ?`,
  )
    .pluck()
    .all(Math.max(0, most - ids.length)) as string[];
  let count = 0;
  for (const id of new Set([...ids, ...older])) count += thinned(db, id, now);
  return count;
}

function thinned(db: Db, id: string, now: number): number {
  return db.$client.transaction((): number => {
    const rows = statement(
      db,
      'SELECT version, at, name FROM layout_log WHERE layout_id = ? ORDER BY version',
    ).all(id) as Kept[];
    const goes = rows.filter((row, index) => {
      const next = rows[index + 1];
      const slot = slotOf(row.at, now);
      return next !== undefined && row.name === null && slot !== null && slot === slotOf(next.at, now);
    });
    const gone = new Set(goes.map(({ version }) => version));
    for (const [index, { version }] of rows.entries()) {
      if (gone.has(version)) continue;
      const before: number[] = [];
      for (let at = index - 1; at >= 0 && gone.has(rows[at]!.version); at -= 1)
        before.push(rows[at]!.version);
      if (before.length > 0) takeTogether(db, id, version, before);
    }
    const drop = statement(db, 'DELETE FROM layout_log WHERE layout_id = ? AND version = ?');
    for (const version of gone) drop.run(id, version);
    statement(db, 'UPDATE layout_log SET changes = NULL WHERE layout_id = ? AND at < ?').run(id, now - FRESH);
    return gone.size;
  })();
}

/** Writes into a state what leads back over those before it, the nearest first. */
function takeTogether(db: Db, id: string, version: number, before: readonly number[]): void {
  const read = statement(db, 'SELECT back FROM layout_log WHERE layout_id = ? AND version = ?').pluck();
  const lists = [version, ...before].map((one): LayoutChange[] =>
    unpacked(read.get(id, one) as Buffer | string),
  );
  const back = JSON.stringify(compactChanges(lists));
  statement(
    db,
    'UPDATE layout_log SET back = ?, assets = ?, changes = NULL WHERE layout_id = ? AND version = ?',
  ).run(packed(back), assetsIn(back), id, version);
}
