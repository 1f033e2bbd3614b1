import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { unzipSync } from 'fflate';
import { openApp, type App } from '../../src/lib/server/app/app';
import { findPatterns } from '../../src/lib/server/repo/find';
import { getLayout, layoutPatterns } from '../../src/lib/server/repo/layouts';
import { applyChanges } from '../../src/lib/server/repo/layout-changes';
import { clearOld, deleteAssets, unusedAssets } from '../../src/lib/server/repo/tidying';
import { storeAsset } from '../../src/lib/server/repo/assets';
import { getPattern, storedAt } from '../../src/lib/server/repo/patterns';
import { keepAsNew } from '../../src/lib/server/repo/publishing';
import { lookOver } from '../../src/lib/server/work/look-over';
import { drawingOf, pictureElement } from '../../src/lib/core/scene/drawing';
import { block, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';
import { kept, laidOut, need, projectNamed, sentence } from '../support/studio';

/** What is damaged, or was written under other limits, is named where it is met and takes nothing else along. */
const folder = mkdtempSync(join(tmpdir(), 'isle-bad-'));
let app: App;
const ids: Record<string, string> = {};
let layout = '';

beforeAll(async () => {
  app = openApp({ ISLE_DATA: folder } as NodeJS.ProcessEnv);
  for (const name of ['Good', 'Damaged', 'Future', 'Too much']) ids[name] = kept(app.db, name);
  const write = (name: string, text: string): void =>
    void app.db.$client.prepare('UPDATE revision SET recipe = ? WHERE pattern_id = ?').run(text, ids[name]);
  write('Damaged', '{"kind":"comp');
  write('Future', JSON.stringify({ ...recipe(), version: 99 }));
  write(
    'Too much',
    JSON.stringify(
      recipe({
        unit: { width: 1, height: 1 },
        motifs: [block('b', 100_000, 100_000)],
        placings: [place('b', 0, 0)],
      }),
    ),
  );
  const shapes = Object.values(ids).map((pattern, index) => {
    const shape = filledShape({ x: index * 50, y: 0, width: 40, height: 40 });
    const fills = shape.fills.map((fill) => ({ ...fill, id: `f${index}`, pattern }));
    return { ...shape, id: `s${index}`, name: `Shape ${index}`, fills };
  });
  layout = laidOut(app.db, projectNamed(app.db, 'Job'), 'L', shapes as never).id;
  // As after a restart: what was known of these recipes when they were kept is forgotten.
  await app.close();
  app = openApp({ ISLE_DATA: folder } as NodeJS.ProcessEnv);
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('patterns that cannot be read', () => {
  it.each([
    ['Damaged', /What is stored of this pattern is damaged/],
    ['Future', /stored in version 99; this Isle reads version 2\. Update Isle/],
    ['Too much', /lie in one repeat; at most 80000 are drawn/],
  ])('%s: says why, on its page and in its sample', async (name, why) => {
    const detail = need(getPattern(app.db, ids[name] ?? ''));
    expect(detail.recipe).toBeNull();
    expect(detail.faults.recipe).toMatch(why);
    const { store } = app;
    const ask = { store, pattern: ids[name] ?? '', revision: 1, colourway: null, named: false };
    const size = { width: 100, height: 60, scale: 1, pixels: 1 };
    for (const as of ['png', 'svg'] as const)
      expect(sentence(await app.processes.run('swatch', { ...ask, ...size, as }))).toMatch(why);
  });

  it('leave the library, the layout and every other pattern as they are', async () => {
    expect(findPatterns(app.db, {}).total).toBe(4);
    const { shapes } = need(getLayout(app.db, layout));
    const patterns = layoutPatterns(app.db, shapes);
    expect(patterns.flatMap(({ name, recipes }) => (recipes[1] ? [name] : []))).toEqual(['Good']);
    expect(patterns.flatMap(({ faults }) => Object.values(faults))).toHaveLength(3);
    const path = app.workFile();
    const svg = await app.processes.run('layoutSvg', {
      store: app.store,
      layout,
      as: 'live',
      bleed: false,
      path,
    });
    expect(svg).toMatchObject({ ok: true });
    expect(readFileSync(path, 'utf8')).toContain('patternTransform');
  });

  it('are left out of a hand-out of the whole library, and named', async () => {
    for (const as of ['zip', 'svg', 'css', 'tokens'] as const) {
      const path = app.workFile();
      const made = need(await app.processes.run('handOut', { store: app.store, as, scale: 1, path }));
      expect(made.leftOut.sort()).toEqual(['Damaged', 'Future', 'Too much']);
      if (as === 'zip') expect(Object.keys(unzipSync(readFileSync(path)))).toContain('recipes/good.json');
    }
    const one = {
      store: app.store,
      as: 'svg' as const,
      scale: 1,
      path: app.workFile(),
      ids: [ids.Damaged ?? ''],
    };
    expect(sentence(await app.processes.run('handOut', one))).toMatch(
      /“Damaged” cannot be read, so it cannot be handed out/,
    );
  });

  it('are found by the check of the whole database', () => {
    const { problems, counts } = lookOver(app.db);
    expect(counts.find(({ what }) => what === 'patterns')).toMatchObject({ readable: 1, all: 4 });
    for (const name of ['Damaged', 'Future', 'Too much'])
      expect(problems.join('\n')).toContain(`“${name}”, revision 1`);
  });

  it('can never be made: what is too much is refused where it comes in', () => {
    const heavy = recipe({
      unit: { width: 1, height: 1 },
      motifs: [block('b', 9e4, 9e4)],
      placings: [place('b', 0, 0)],
    });
    expect(
      sentence(keepAsNew(app.db, ids.Good ?? '', { name: 'N', recipe: heavy, takesDraft: false })),
    ).toMatch(/invalid: Its pieces are so large beside the unit/);
  });
});

describe('a shape that cannot be read', () => {
  it('is named, left as it is, and stays on top when the others are ordered', () => {
    const { $client } = app.db;
    const before = $client.prepare('SELECT form FROM shape WHERE id = ?').pluck().get('s0') as string;
    $client.prepare('UPDATE shape SET form = ? WHERE id = ?').run('{"kind"', 's0');
    const read = need(getLayout(app.db, layout));
    expect(read.shapes.map(({ id }) => id)).toEqual(['s1', 's2', 's3']);
    expect(read.faults).toEqual([
      'What is stored of the shape “Shape 0” is damaged; it is left as it is and not shown.',
    ]);
    need(applyChanges(app.db, layout, read.version, [{ do: 'order', ids: ['s3', 's1', 's2'] }]));
    const order = $client
      .prepare('SELECT id FROM shape WHERE layout_id = ? ORDER BY position')
      .pluck()
      .all(layout);
    expect(order).toEqual(['s3', 's1', 's2', 's0']);
    $client.prepare('UPDATE shape SET form = ? WHERE id = ?').run(before, 's0');
    const whole = need(getLayout(app.db, layout));
    expect(whole.faults).toBeUndefined();
    expect(
      sentence(applyChanges(app.db, layout, whole.version, [{ do: 'order', ids: ['s3', 's1', 's2'] }])),
    ).toMatch(/must name every shape/);
  });
});

describe('what is cleared', () => {
  const DAY = 86_400_000;

  it('are events after a week but for the newest thousand, and changes after thirty days', () => {
    const { $client, studio } = app.db;
    const put = $client.prepare(
      "INSERT INTO event (studio_id, kind, subject_id, created_at) VALUES (?, 'old', 'x', 1)",
    );
    for (let count = 0; count < 1500; count += 1) put.run(studio);
    const change = $client.prepare(
      "INSERT INTO bulk_change VALUES (?, ?, 'replaced', 'S', '{\"fills\":[],\"pages\":[]}', ?, NULL)",
    );
    change.run('old', studio, Date.now() - 31 * DAY);
    change.run('new', studio, Date.now());
    expect(clearOld(app.db)).toEqual({ events: 500, changes: 1 });
    expect($client.prepare('SELECT count(*) FROM event').pluck().get()).toBeGreaterThanOrEqual(1000);
    expect($client.prepare('SELECT id FROM bulk_change').pluck().all()).toEqual(['new']);
  });

  it('are files that nothing refers to, a week after they were last brought in', () => {
    const file = (text: string): string =>
      storeAsset(app.db, { bytes: Buffer.from(text), mediaType: 'image/png', fileName: `${text}.png` });
    const [used, left, fresh] = [file('used'), file('left'), file('fresh')];
    const matrix = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };
    const motif = {
      id: 'm',
      name: 'M',
      content: drawingOf([pictureElement({ asset: used, width: 9, height: 9, matrix })]),
    };
    kept(app.db, 'Pictured', {}, recipe({ motifs: [motif], placings: [place('m', 0, 0)] }));
    const later = Date.now() + 8 * DAY;
    expect(unusedAssets(app.db)).toEqual([]);
    expect(unusedAssets(app.db, later).sort()).toEqual([left, fresh].sort());
    // Brought in again while the look was under way: it stays.
    app.db.$client.prepare('UPDATE motif_asset SET created_at = ? WHERE hash = ?').run(later, fresh);
    expect(deleteAssets(app.db, [left, fresh], later)).toBe(1);
    expect(app.db.$client.prepare('SELECT hash FROM motif_asset').pluck().all().sort()).toEqual(
      [used, fresh].sort(),
    );
  });
});

describe('a motif whose parts lie far apart', () => {
  it('is exported whole, with clips and see-through parts far outside every band', async () => {
    // Each part needs a layer of its own; the renderer cannot bear one far outside its picture.
    const part = (x: number, y: number, over: object) => ({
      ...{ d: `M${x} ${y}h40v40h-40z`, fill: 'ink', fillRule: 'nonzero' as const, stroke: null, opacity: 1 },
      ...over,
    });
    const stroke = {
      slot: 'paper',
      width: 4,
      cap: 'butt' as const,
      join: 'miter' as const,
      miterLimit: 4,
      dashes: [],
    };
    const elements = [
      part(-150, -150, { opacity: 0.5, stroke }),
      part(110, 110, { clip: { d: 'M110 110h30v30h-30z', rule: 'nonzero' as const } }),
      part(-150, 4000, { opacity: 0.5, stroke }),
      part(6000, -150, { clip: { d: 'M6000 -150h9v9h-9z', rule: 'nonzero' as const } }),
    ];
    const motif = { id: 'm', name: 'M', content: drawingOf(elements) };
    const id = kept(
      app.db,
      'Far apart',
      {},
      recipe({ unit: { width: 300, height: 300 }, motifs: [motif], placings: [place('m', 150, 150)] }),
    );
    expect(storedAt(app.db, id, 1).ok).toBe(true);
    const shape = filledShape({ x: 0, y: 0, width: 300, height: 100 });
    const page = laidOut(app.db, projectNamed(app.db, 'Far'), 'Far', [
      {
        ...shape,
        id: 'far',
        fills: shape.fills.map((fill) => ({ ...fill, id: 'ff', pattern: id })),
      } as never,
    ]);
    const path = app.workFile();
    const drawn = await app.processes.run('layoutPng', {
      store: app.store,
      layout: page.id,
      ppi: 150,
      bleed: false,
      path,
    });
    expect(drawn).toMatchObject({ ok: true });
    expect(readFileSync(path).subarray(1, 4).toString()).toBe('PNG');
  });
});
