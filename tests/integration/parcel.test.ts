import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { PNG } from 'pngjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ExportJob, ParcelContents, ParcelWish } from '../../src/lib/contract/data';
import { colourFill, coveringLayout, freshFill } from '../../src/lib/core/recipe/fill';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { openApp, type App } from '../../src/lib/server/app/app';
import { saveColourways } from '../../src/lib/server/repo/colourways';
import { findPatterns } from '../../src/lib/server/repo/find';
import { applyChanges } from '../../src/lib/server/repo/layout-changes';
import { setLayoutArchived } from '../../src/lib/server/repo/layouts';
import { keepParcel, lastParcel } from '../../src/lib/server/repo/parcels';
import { saveDraft } from '../../src/lib/server/repo/patterns';
import { publish } from '../../src/lib/server/repo/publishing';
import { byCommand } from '../../src/lib/server/work/by-command';
import { drawnBy, factsOf, faultsOf } from '../support/pdf-readers';
import { dot, place, recipe } from '../support/recipes';
import { kept, laidOut, need, patternOf, projectNamed, sentence } from '../support/studio';
import { until } from '../support/until';

const folder = mkdtempSync(join(tmpdir(), 'isle-parcel-'));
let app: App;
let project: string;
let layouts: string[];
let pattern: string;
const slots = [
  { id: 'ink', name: 'Ink', colour: '#b02030' as const },
  { id: 'paper', name: 'Paper', colour: '#f4ecd8' as const },
];
const art = recipe({
  ...{ unit: { width: 48, height: 60 }, slots, ground: { kind: 'slot', slot: 'paper' } },
  repeat: { kind: 'half-drop', step: 0.5, run: 'progressive' },
  motifs: [dot('d', 26)],
  placings: [place('d', 20, 20)],
} as Parameters<typeof recipe>[0]);

const shape = (id: string, over: Partial<Shape>): Shape =>
  freshShape({
    ...{ id, name: id, form: { kind: 'rectangle', radius: 0 }, x: 10, y: 10, width: 200, height: 80 },
    ...over,
  });

beforeAll(() => {
  app = openApp({ ISLE_DATA: folder } as NodeJS.ProcessEnv);
  const { db } = app;
  pattern = kept(
    db,
    'Drop & dot',
    { credit: { author: 'Oona Pell', source: '', licence: 'CC-BY-4.0', attribution: true } },
    art,
  );
  const { version } = patternOf(db, pattern);
  need(
    saveColourways(db, pattern, version, [
      { id: 'night', name: 'Night', colours: { paper: { colour: '#101f2e' } } },
    ]),
  );
  project = projectNamed(db, 'Sea front');
  layouts = [
    laidOut(db, project, 'Sign', [
      shape('s1', { fills: [{ ...freshFill('f1', pattern), scaleX: 0.5, scaleY: 0.5, rotation: 30 }] }),
    ]).id,
    // A name like another one but for what file names leave out.
    laidOut(db, project, 'Sign!', [shape('s2', { fills: [colourFill('f2', { colour: '#208040' })] })]).id,
  ];
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true });
});

/** Whose parcels these are. */
const BY = { person: 'mara', asker: 'a view' };

const wishOf = (over: Partial<ParcelWish> = {}): ParcelWish => ({
  ...{ layouts, ppi: 192, pdf: true, png: true, svg: true, bleed: true, marks: false, register: false },
  ...{ patterns: true, palettes: true, spec: true },
  ...over,
});
async function ended(id: string): Promise<ExportJob> {
  let job: ExportJob | null = null;
  await until(() => {
    job = need(app.exports.get(id, 'mara'));
    expect(['done', 'failed', 'cancelled']).toContain(job.state);
  }, 60_000);
  return job!;
}
async function parcel(
  wish: ParcelWish,
  of = project,
): Promise<{ job: ExportJob; bytes: Buffer; contents: ParcelContents | null }> {
  let contents: ParcelContents | null = null;
  const ask = { store: app.store, project: of, wish };
  const begun = need(app.exports.parcel({ name: 'Sea front', ask, made: (made) => (contents = made) }, BY));
  const job = await ended(begun.id);
  const file = app.exports.file(begun.id, 'mara');
  return { job, bytes: file.ok ? readFileSync(file.value.path) : Buffer.alloc(0), contents };
}

describe('a parcel', () => {
  it('holds all that belongs to a project, each file with its sum, the same bytes each time', async () => {
    const { job, bytes, contents } = await parcel(wishOf());
    expect([job.state, job.fileName, job.bytes]).toEqual(['done', 'Sea front parcel.zip', bytes.length]);
    const files = unzipSync(new Uint8Array(bytes));
    const text = (path: string): string => new TextDecoder().decode(files[path]);
    expect(
      Object.keys(files)
        .filter((path) => !path.startsWith('patterns/'))
        .sort(),
    ).toEqual(
      expect.arrayContaining([
        'CREDITS.txt',
        'layouts/sign-2.pdf',
        'layouts/sign-2.png',
        'layouts/sign-2.svg',
        'layouts/sign.pdf',
        'layouts/sign.png',
        'layouts/sign.svg',
        'manifest.json',
        'spec/sea-front.html',
        'spec/sea-front.pdf',
      ]),
    );
    expect(
      Object.keys(files)
        .filter((path) => path.startsWith('patterns/'))
        .map((path) => path.replace('patterns/drop-dot/', ''))
        .sort(),
    ).toEqual([
      ...['colourways/night.png', 'fill.svg', 'pattern.css', 'pattern.json', 'swatch.png'],
      ...['tile.png', 'tile.svg', 'tile@2x.png', 'tile@2x.webp', 'tile@3x.png', 'tokens.json'],
    ]);
    const manifest = JSON.parse(text('manifest.json')) as ParcelContents & { project: string };
    expect(manifest.project).toBe('Sea front');
    expect(manifest.files.map(({ path }) => path)).toEqual(
      Object.keys(files)
        .filter((path) => path !== 'manifest.json')
        .sort(),
    );
    for (const { path, bytes: size, sha256 } of manifest.files) {
      expect([path, files[path]!.length]).toEqual([path, size]);
      expect([path, createHash('sha256').update(files[path]!).digest('hex')]).toEqual([path, sha256]);
    }
    expect(manifest.patterns).toEqual([{ id: pattern, name: 'Drop & dot', revision: 1 }]);
    expect(contents!.files).toEqual(manifest.files);
    expect(text('CREDITS.txt')).toContain('Drop & dot: Oona Pell, CC-BY-4.0');
    expect((await parcel(wishOf())).bytes.equals(bytes)).toBe(true);
  });

  it('has pages and tiles that are what they say: sizes, colours, units, uses', async () => {
    const files = unzipSync(new Uint8Array((await parcel(wishOf())).bytes));
    const pdf = files['layouts/sign.pdf']!;
    expect(await faultsOf(pdf)).toBe('');
    // 300 × 100 px are 225 × 75 pt.
    expect((await factsOf(pdf))['Page size']).toMatch(/^225 x 75 pts/);
    const page = PNG.sync.read(Buffer.from(files['layouts/sign-2.png']!));
    expect([
      page.width,
      page.height,
      ...page.data.subarray((40 * 600 + 100) * 4, (40 * 600 + 100) * 4 + 3),
    ]).toEqual([600, 200, 32, 128, 64]);
    // A half-drop of one half repeats upright over two columns: 96 × 60 px.
    for (const [file, scale] of [
      ['tile.png', 1],
      ['tile@2x.png', 2],
      ['tile@3x.png', 3],
    ] as const) {
      const tile = PNG.sync.read(Buffer.from(files[`patterns/drop-dot/${file}`]!));
      expect([file, tile.width, tile.height]).toEqual([file, 96 * scale, 60 * scale]);
      const at = (50 * scale * tile.width + 68 * scale) * 4;
      expect([...tile.data.subarray(at, at + 3)]).toEqual([176, 32, 48]);
    }
    const html = new TextDecoder().decode(files['spec/sea-front.html']);
    expect(html).toContain('Drop &amp; dot');
    expect(html).toContain('half-drop, step 50 % (progressive)');
    expect(html).toContain('12.7 × 15.88 mm (48 × 60 px)');
    expect(html).toContain('Sign, s1: 50 %, 30°');
    // Color.js 0.7.1 says 5.7618 for WCAG 2.1.
    expect(html).toContain('#b02030, 5.76 : 1 against its ground');
    const spec = files['spec/sea-front.pdf']!;
    expect(await faultsOf(spec)).toBe('');
    const drawn = await drawnBy('poppler', spec, 50);
    const red = Array.from({ length: drawn.width * drawn.height }, (_one, at) => at).filter(
      (at) => drawn.data[at * 4]! > 150 && drawn.data[at * 4 + 1]! < 80,
    );
    expect(red.length).toBeGreaterThan(300);
  });

  it('holds what is shown by layouts that lie in its own: their patterns, credits and fonts, and tells their changes', async () => {
    const { db } = app;
    const own = projectNamed(db, 'Nested');
    const words = {
      ...{ kind: 'text' as const, d: 'M0 0H20V8H0Z', width: 20, height: 8, text: 'Open', font: 'bitter-700' },
      ...{ size: 8, align: 'start' as const },
    };
    const inner = laidOut(db, own, 'Badge', [
      shape('n1', { fills: [freshFill('g1', pattern)] }),
      shape('n2', { form: words, fills: [colourFill('g2', { colour: '#101f2e' })] }),
    ]);
    const outer = laidOut(db, own, 'Poster', [
      shape('n3', { fills: [coveringLayout('g3', inner.id, inner, { width: 200, height: 80 })] }),
    ]);
    const wish = wishOf({ layouts: [outer.id], png: false, svg: false });
    const made = await parcel(wish, own);
    const files = unzipSync(new Uint8Array(made.bytes));
    expect(Object.keys(files)).toContain('patterns/drop-dot/tile.svg');
    const text = (path: string): string => new TextDecoder().decode(files[path]);
    expect(text('CREDITS.txt')).toContain('Oona Pell');
    expect(text('FONTS.txt')).toContain('bitter-700');
    expect(text('spec/nested.html')).toContain('Badge, n1: 100 %');
    keepParcel(db, own, wish, made.contents!);
    expect(lastParcel(db, own)!.changed).toEqual([]);
    need(applyChanges(db, inner.id, inner.version, [{ do: 'page', bleed: 10 }]));
    expect(lastParcel(db, own)!.changed).toEqual([{ name: 'Badge', what: 'layout', how: 'changed' }]);
  });

  it('tells what is another since the last one', () => {
    const { db } = app;
    const own = projectNamed(db, 'Followed');
    const at = laidOut(db, own, 'Followed sign', [shape('s3', { fills: [freshFill('f3', pattern)] })]);
    const other = laidOut(db, own, 'Other sign', []);
    expect(lastParcel(db, own)).toBeNull();
    const wish = wishOf({ layouts: [at.id, other.id] });
    keepParcel(db, own, wish, {
      layouts: [at, other].map(({ id, name, version }) => ({ id, name, version })),
      patterns: [{ id: pattern, name: 'Drop & dot', revision: 1 }],
      files: [],
    });
    const changes = (): string[] =>
      lastParcel(db, own)!.changed.map(({ name, what, how }) => `${what} ${name} ${how}`);
    expect(lastParcel(db, own)!.wish).toEqual(wish);
    expect(changes()).toEqual([]);
    need(applyChanges(db, at.id, at.version, [{ do: 'page', bleed: 10 }]));
    need(setLayoutArchived(db, other.id, true));
    const drawn = patternOf(db, pattern);
    const bold = { ...art, motifs: [dot('d', 30)] };
    const draft = need(saveDraft(db, pattern, drawn.version, bold));
    need(publish(db, pattern, draft.version));
    expect(changes()).toEqual([
      'layout Followed sign changed',
      'layout Other sign gone',
      'pattern Drop & dot changed',
    ]);
  });

  it('refuses what is too much or not there before anything is drawn, and leaves no file', async () => {
    const many = await parcel(wishOf({ layouts: Array.from({ length: 101 }, () => layouts[0]!) }));
    expect([many.job.state, many.job.message]).toEqual([
      'failed',
      'These are 101 layouts; one parcel has at most 100. Hand them over in two.',
    ]);
    const huge = await parcel(wishOf({ ppi: 20_000 }));
    expect(huge.job.message).toMatch(/“Sign” would be 62500 × 20833 px as PNG; choose fewer ppi/);
    const strange = laidOut(app.db, projectNamed(app.db, 'Elsewhere'), 'Strange', []);
    expect((await parcel(wishOf({ layouts: [strange.id] }))).job.message).toBe(
      '“Strange” is not in this project.',
    );
    // What is refused while pages are being drawn takes them along.
    const press = await parcel(wishOf({ exchange: true, ppi: 1200 }));
    expect(press.job.message).toMatch(/names its press, and this project has none yet/);
    expect(readdirSync(join(folder, 'exports')).filter((name) => name.startsWith(press.job.id))).toEqual([]);
    const ask = { store: app.store, project, wish: wishOf({ ppi: 2400 }) };
    const begun = need(app.exports.parcel({ name: 'Stopped', ask, made: () => undefined }, BY));
    await until(() => expect(need(app.exports.get(begun.id, 'mara')).progress).toBeGreaterThan(0));
    // It is nobody else's.
    for (const asked of [
      app.exports.get(begun.id, 'jonas'),
      await app.exports.cancel(begun.id, 'jonas'),
      app.exports.file(begun.id, 'jonas'),
    ])
      expect(sentence(asked)).toContain('There is no export');
    need(await app.exports.cancel(begun.id, 'mara'));
    expect(sentence(app.exports.file(begun.id, 'mara'))).toContain('not finished');
    const left = readdirSync(join(folder, 'exports'));
    expect(left.filter((name) => name.startsWith(begun.id) || name.endsWith('.part'))).toEqual([]);
  });
});

describe('a command', () => {
  const said: string[] = [];
  const run = async (...words: string[]): Promise<[number, string]> => {
    said.length = 0;
    const code = await byCommand([...words, '--data', folder], (line) => said.push(line));
    return [code, said.join('\n')];
  };

  it('hands a project over as the dialog does, with progress, and says by its code how it went', async () => {
    const target = join(folder, 'sea.zip');
    const [code, words] = await run('export', 'project', 'Sea front', target, '--ppi', '192');
    expect(code).toBe(0);
    expect(words).toContain('50 %');
    expect(words).toMatch(/sea\.zip: \d+ files/);
    expect(readFileSync(target).equals((await parcel(wishOf())).bytes)).toBe(true);
    expect(await run('export', 'project', 'Nowhere', target)).toEqual([
      1,
      expect.stringContaining('There is no project “Nowhere”; there are ') as string,
    ]);
    expect(await run('export', 'project', 'Sea front', join(folder, 'none', 'a.zip'))).toEqual([
      1,
      expect.stringContaining('There is no folder') as string,
    ]);
    expect((await run('export', 'project', 'Sea front', target, '--ppi', 'many'))[0]).toBe(2);
    expect((await run('export', 'project'))[0]).toBe(2);
    expect(existsSync(`${target}.part`)).toBe(false);
  });

  it('takes a library in that another one handed out; what is there already stays', async () => {
    const target = join(folder, 'library.zip');
    expect((await run('export', 'library', target))[0]).toBe(0);
    const second = mkdtempSync(join(tmpdir(), 'isle-second-'));
    const empty = openApp({ ISLE_DATA: second } as NodeJS.ProcessEnv);
    const names = (): string[] =>
      findPatterns(empty.db, { limit: 50 } as never).patterns.map(({ name }) => name);
    const before = names();
    const lines: string[] = [];
    const take = (...words: string[]): Promise<number> =>
      byCommand(['import', ...words, '--data', second], (line) => lines.push(line));
    expect(await take(target)).toBe(0);
    expect(names()).toContain('Drop & dot');
    expect(names().length).toBeGreaterThan(before.length);
    const now = names().length;
    expect(await take(target)).toBe(0);
    expect(names()).toHaveLength(now);
    expect(lines.at(-1)).toMatch(/^library\.zip: 0 taken in, \d+ there already\.$/);
    expect(await take(join(folder, 'isle.db'))).toBe(1);
    expect(await take(join(folder, 'nothing.zip'))).toBe(1);
    await empty.close();
    rmSync(second, { recursive: true });
  });
});
