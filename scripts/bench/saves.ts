import { join } from 'node:path';
import type { LayoutChange } from '../../src/lib/contract/data';
import type { Outcome } from '../../src/lib/contract/failure';
import { freshShape } from '../../src/lib/core/recipe/layout';
import { openDatabase, type Db } from '../../src/lib/server/db/open';
import { applyChanges } from '../../src/lib/server/repo/layout-changes';
import { createLayout } from '../../src/lib/server/repo/layouts';
import { createProject } from '../../src/lib/server/repo/projects';

const LAYOUTS = 20;
const SHAPES = 40;

/**
 * A save as the store does it, beside the bare transaction of the same rows: in one file with Isle's own tables and indexes, by
 * turns, on disk. Medians, ms. Run as a process of its own, with a folder and how many turns.
 */
function storeSaves(folder: string, count: number): { save: number; bare: number } {
  const db = openDatabase(join(folder, 'saves.db'));
  try {
    const project = need(createProject(db, 'Job')).id;
    const ids = Array.from({ length: LAYOUTS }, (_, at) => filled(db, project, at));
    const [id = ''] = ids;
    let version = 2;
    const save = (): void => {
      const change: LayoutChange = { do: 'patch-shape', id: 's0x0', fields: { x: Math.random() * 300 } };
      ({ version } = need(applyChanges(db, id, version, [change])));
    };
    for (let at = 0; at < 200; at += 1) save();
    const rows = sameRows(db, id);
    const took = { save: [] as number[], bare: [] as number[] };
    for (let at = 0; at < count; at += 1) {
      took.save.push(timeOf(save));
      took.bare.push(timeOf(() => rows((version += 1))));
    }
    return { save: median(took.save), bare: median(took.bare) };
  } finally {
    db.$client.close();
  }
}

/** A layout with shapes on it; answers its id. */
function filled(db: Db, project: string, at: number): string {
  const page = { name: `Sign ${at}`, width: 400, height: 300, measure: 'px' as const };
  const { id } = need(createLayout(db, project, page));
  const changes = Array.from({ length: SHAPES }, (_, n): LayoutChange => {
    const form = { kind: 'rectangle', radius: 0 } as const;
    const place = { x: n * 5, y: n * 3, width: 60, height: 40, fills: [] };
    return { do: 'put-shape', shape: freshShape({ id: `s${at}x${n}`, name: `Shape ${n}`, form, ...place }) };
  });
  need(applyChanges(db, id, 1, changes));
  return id;
}

/** The rows of such a save, written with nothing read or checked: the shape, the layout's version, the log and the event. */
function sameRows(db: Db, layout: string): (version: number) => void {
  const { $client: file } = db;
  const row = (sql: string, of?: string): unknown[] =>
    file
      .prepare(sql)
      .raw()
      .get(...(of === undefined ? [] : [of])) as unknown[];
  const columns = (table: string): string[] =>
    (file.pragma(`table_info(${table})`) as { name: string }[]).map(({ name }) => name);
  const marks = (values: readonly unknown[]): string => values.map(() => '?').join(', ');
  const log = row('SELECT * FROM layout_log WHERE layout_id = ? ORDER BY version DESC LIMIT 1', layout);
  const event = row('SELECT * FROM event ORDER BY id DESC LIMIT 1').slice(1);
  const at = columns('layout_log').indexOf('version');
  const [putShape, putLayout, putLog, putEvent] = [
    file.prepare("UPDATE shape SET x = ? WHERE id = 's0x0'"),
    file.prepare('UPDATE layout SET version = ?, updated_at = ? WHERE id = ?'),
    file.prepare(`INSERT INTO layout_log VALUES (${marks(log)})`),
    file.prepare(`INSERT INTO event VALUES (NULL, ${marks(event)})`),
  ];
  return file.transaction((version: number) => {
    putShape.run(Math.random() * 300);
    putLayout.run(version, Date.now(), layout);
    putLog.run(...log.with(at, version));
    putEvent.run(...event);
  }).immediate;
}

function need<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(outcome.failure.message);
  return outcome.value;
}

function timeOf(work: () => void): number {
  const from = performance.now();
  work();
  return performance.now() - from;
}

const median = (values: readonly number[]): number =>
  [...values].sort((one, other) => one - other)[Math.floor(values.length / 2)] ?? 0;

const [folder = '.', count = '1000'] = process.argv.slice(2);
console.log(JSON.stringify(storeSaves(folder, Number(count))));
