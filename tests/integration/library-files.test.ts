import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ClashChoice, TakenFile } from '../../src/lib/contract/taking';
import type { Outcome } from '../../src/lib/contract/failure';
import { openApp, type App } from '../../src/lib/server/app/app';
import type { HandOut } from '../../src/lib/contract/work';
import { readFileIn, takeFilesIn } from '../../src/lib/server/app/taking-in';
import { storeAsset } from '../../src/lib/server/repo/assets';
import { saveColourways } from '../../src/lib/server/repo/colourways';
import { keptContent } from '../../src/lib/server/repo/kept';
import { findPatterns } from '../../src/lib/server/repo/find';
import { listPalettes } from '../../src/lib/server/repo/palettes';
import { drawingOf, pictureElement } from '../../src/lib/core/scene/drawing';
import { place, recipe } from '../support/recipes';
import { kept, need, patternOf, PLAIN, sentence } from '../support/studio';

const folders: string[] = [];
const apps: App[] = [];
function isle(demo = false): App {
  const folder = mkdtempSync(join(tmpdir(), 'isle-files-'));
  folders.push(folder);
  const app = openApp({ ISLE_DATA: folder, ...(demo ? { ISLE_DEMO: '1' } : {}) } as NodeJS.ProcessEnv);
  apps.push(app);
  return app;
}

let full: App;
beforeAll(async () => {
  full = isle(true);
  const picture = await sharp({ create: { width: 6, height: 4, channels: 3, background: '#b5462f' } })
    .png()
    .toBuffer();
  const asset = storeAsset(full.db, { bytes: picture, mediaType: 'image/png', fileName: 'brick.png' });
  const matrix = { a: 5, b: 0, c: 0, d: 5, e: -15, f: -10 };
  const motif = {
    id: 'm',
    name: 'Brick',
    content: drawingOf([pictureElement({ asset, width: 6, height: 4, matrix })]),
  };
  kept(
    full.db,
    'Photo Brick',
    { tags: ['photo'] },
    recipe({ motifs: [motif], placings: [place('m', 50, 50)] }),
  );
});
afterAll(async () => {
  await Promise.all(apps.map((app) => app.close()));
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

type OutFile = { fileName: string; mediaType: string; bytes: Uint8Array };
const handOut = async (app: App, wanted: HandOut): Promise<Outcome<OutFile>> => {
  const path = app.workFile();
  const made = await app.processes.run('handOut', { ...wanted, store: app.store, path });
  return made.ok ? { ok: true, value: { ...made.value, bytes: readFileSync(path) } } : made;
};
const out = async (app: App, options: Partial<HandOut> & Pick<HandOut, 'as'>) =>
  need(await handOut(app, { scale: 1, ...options }));
const text = ({ bytes }: { bytes: Uint8Array }): string => new TextDecoder().decode(bytes);
const read = (app: App, name: string, bytes: Uint8Array | string): Promise<Outcome<TakenFile>> => {
  const path = app.workFile();
  writeFileSync(path, bytes);
  return readFileIn(app, { name, path });
};
const choose = (file: TakenFile, choice: ClashChoice) => ({
  token: file.token,
  choices: Object.fromEntries(file.items.map((item) => [item.key, choice])),
});

describe.each(['svg', 'zip'] as const)('the whole library out as %s', (as) => {
  it('comes back identical into an empty Isle, and says so when it comes back again', async () => {
    const file = await out(full, { as });
    const empty = isle();
    const taken = need(await read(empty, file.fileName, file.bytes));
    expect(taken.notes).toEqual([]);
    const report = need(takeFilesIn(empty, [choose(taken, 'both')]));
    const before = keptContent(full.db);
    expect(report.added.filter(({ kind }) => kind === 'pattern')).toHaveLength(before.patterns.length);
    expect(keptContent(empty.db)).toEqual(before);
    const again = need(await read(empty, file.fileName, file.bytes));
    expect(again.items.every((item) => item.clash?.same)).toBe(true);
    expect(need(takeFilesIn(empty, [choose(again, 'skip')])).added).toEqual([]);
  });
});

describe('handing out', () => {
  it('writes one pattern with title and description, pictures inside, that another renderer draws', async () => {
    const { total, patterns } = findPatterns(full.db, { search: 'photo brick' });
    expect(total).toBe(1);
    const svg = text(await out(full, { as: 'svg', ids: [patterns[0]!.id] }));
    expect(svg).toMatch(/<pattern id="photo-brick"[^>]*><title>Photo Brick<\/title>/);
    expect(svg).not.toContain('/api/');
    const { data } = await sharp(Buffer.from(svg)).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    const red = Array.from(
      { length: data.length / 4 },
      (_, at) => data[at * 4]! > 150 && data[at * 4 + 1]! < 110,
    );
    expect(red.filter(Boolean).length / red.length).toBeCloseTo(0.06, 1);
  });

  it('writes tiles of exact pixels with their resolution, CSS and tokens', async () => {
    const ids = [findPatterns(full.db, { search: 'plus marks' }).patterns[0]!.id];
    const png = await out(full, { as: 'tile-png', ids, scale: 3.125 });
    const { cell } = { cell: patternOf(full.db, ids[0]!).facts!.unit };
    const picture = PNG.sync.read(Buffer.from(png.bytes));
    expect([picture.width, picture.height]).toEqual(
      [cell.width, cell.height].map((side) => Math.round(side * 3.125)),
    );
    // W3C PNG, pHYs: px per metre across and down. Whole px are not quite the unit's; its length is said all the same.
    const phys = Buffer.from(png.bytes).subarray(Buffer.from(png.bytes).indexOf('pHYs') + 4);
    for (const [px, perMetre, side] of [
      [picture.width, phys.readUInt32BE(0), cell.width],
      [picture.height, phys.readUInt32BE(4), cell.height],
    ] as const)
      expect(((px / perMetre) * 1000 * 96) / 25.4).toBeCloseTo(side, 2);
    expect((await sharp(png.bytes).metadata()).density).toBeCloseTo(300, -1);
    const css = text(await out(full, { as: 'css', ids }));
    expect(css).toMatch(
      /\.pattern-plus-marks \{\n {2}background-color: (?:#[0-9a-f]{6}|transparent);\n {2}background-image: url\("data:image\/svg\+xml,%3Csvg/,
    );
    expect(css).toMatch(/background-size: 45\.3543px 45\.3543px;/);
    // One that repeats in no upright rectangle is left out and named; the others are there.
    const art = recipe({ repeat: { kind: 'brick', step: 0.3183098861, run: 'progressive' } });
    const askew = kept(full.db, 'Askew', {}, art);
    const mixed = text(await out(full, { as: 'css', ids: [askew, ...ids] }));
    expect(mixed).toMatch(/\/\* Left out: “Askew”\. This pattern repeats in no upright rectangle/);
    expect(mixed).toContain('.pattern-plus-marks {');
    const tokens = JSON.parse(text(await out(full, { as: 'tokens', ids })));
    expect(tokens['Plus marks'].unit.width.$type).toBe('dimension');
    const alike = ['Dots.', 'Dots', '{Dots}'].map((name) =>
      kept(full.db, name, {}, { ...PLAIN, slots: PLAIN.slots.map((slot) => ({ ...slot, name: 'Same' })) }),
    );
    const groups = JSON.parse(text(await out(full, { as: 'tokens', ids: alike }))) as Record<
      string,
      { colours: object }
    >;
    expect(Object.keys(groups)).toEqual(['Dots', 'Dots 2', 'Dots 3']);
    expect(Object.keys(groups.Dots!.colours)).toHaveLength(PLAIN.slots.length);
    expect(tokens['Plus marks'].colours.Slate).toMatchObject({
      $type: 'color',
      $value: { colorSpace: 'srgb', hex: '#3c4549' },
    });
  });

  it('lists the credits that are due in a package', async () => {
    const files = unzipSync((await out(full, { as: 'zip' })).bytes);
    expect(new TextDecoder().decode(files['CREDITS.txt'])).toMatch(/Shallow End: Oona Pell, .*CC-BY-4\.0/);
  });

  it('says why a pattern has no tile', async () => {
    const id = kept(
      full.db,
      'Odd step',
      {},
      { ...PLAIN, repeat: { kind: 'brick', step: Math.SQRT1_2, run: 'progressive' } },
    );
    expect(sentence(await handOut(full, { as: 'tile-svg', ids: [id], scale: 1 }))).toMatch(
      /no upright rectangle/,
    );
    expect(sentence(await handOut(isle(), { as: 'svg', scale: 1 }))).toMatch(/nothing to hand out/);
  });
});

describe('taking in', () => {
  it('asks where a name is taken: both, a new revision, or left out', async () => {
    const from = isle();
    const id = kept(from.db, 'Wave', { tags: ['a'] }, { ...PLAIN, unit: { width: 77, height: 77 } });
    const file = await out(from, { as: 'svg', ids: [id] });
    const to = isle();
    const ours = kept(to.db, 'wave');
    const taken = need(await read(to, 'wave.svg', file.bytes));
    expect(taken.items[0]?.clash).toEqual({ id: ours, same: false, stock: false });
    expect(need(takeFilesIn(to, [choose(taken, 'skip')]))).toMatchObject({ added: [], skipped: 1 });
    need(takeFilesIn(to, [choose(need(await read(to, 'wave.svg', file.bytes)), 'both')]));
    expect(findPatterns(to.db, {}).patterns.map(({ name }) => name)).toEqual(['wave', 'Wave 2']);
    need(takeFilesIn(to, [choose(need(await read(to, 'wave.svg', file.bytes)), 'replace')]));
    expect(patternOf(to.db, ours)).toMatchObject({
      name: 'wave',
      newest: 2,
      recipe: { unit: { width: 77 } },
    });
  });

  it('brings the colourways of a replaced pattern along, by name, without a revision that changes nothing', async () => {
    const from = isle();
    const id = kept(from.db, 'Wave');
    const way = (name: string, colour: string) => ({ id: name, name, colours: { ink: { colour } } });
    need(
      saveColourways(from.db, id, patternOf(from.db, id).version, [
        way('Dusk', '#111111'),
        way('Dawn', '#eeeeee'),
      ]),
    );
    const file = await out(from, { as: 'svg', ids: [id] });
    const to = isle();
    const ours = kept(to.db, 'Wave');
    const held = [{ ...way('dusk', '#777777'), id: 'mine' }, way('Noon', '#00ff00')];
    need(saveColourways(to.db, ours, patternOf(to.db, ours).version, held));
    need(takeFilesIn(to, [choose(need(await read(to, 'wave.svg', file.bytes)), 'replace')]));
    const { newest, colourways } = patternOf(to.db, ours);
    expect(newest).toBe(1);
    expect(colourways.map(({ id: one, name, colours }) => [one, name, colours.ink?.colour])).toEqual([
      ['mine', 'dusk', '#111111'],
      ['Noon', 'Noon', '#00ff00'],
      ['Dawn', 'Dawn', '#eeeeee'],
    ]);
  });

  it('tells palettes apart that differ in a gradient alone', async () => {
    const tokens = (end: string): string =>
      JSON.stringify({
        Sea: {
          Ramp: {
            $type: 'gradient',
            $value: [
              { color: '#000000', position: 0 },
              { color: end, position: 1 },
            ],
          },
        },
      });
    const app = isle();
    need(takeFilesIn(app, [choose(need(await read(app, 'a.json', tokens('#ffffff'))), 'both')]));
    expect(need(await read(app, 'a.json', tokens('#ffffff'))).items[0]?.clash?.same).toBe(true);
    expect(need(await read(app, 'a.json', tokens('#ff0000'))).items[0]?.clash?.same).toBe(false);
  });

  it('takes the patterns of another maker’s file with their pictures', async () => {
    const app = isle();
    const png = (
      await sharp({ create: { width: 3, height: 3, channels: 3, background: '#00ff00' } })
        .png()
        .toBuffer()
    ).toString('base64');
    const svg = `<svg xmlns="http://www.w3.org/2000/svg"><defs><pattern id="leaf_dots" width="20" height="20" patternUnits="userSpaceOnUse"><circle cx="5" cy="5" r="3" fill="teal"/></pattern><pattern id="b" width="30" height="30" patternUnits="userSpaceOnUse"><title>Photo</title><image width="30" height="30" href="data:image/png;base64,${png}"/></pattern></defs></svg>`;
    const taken = need(await read(app, 'theirs.svg', svg));
    expect(taken.items.map(({ name, clash }) => [name, clash])).toEqual([
      ['leaf dots', null],
      ['Photo', null],
    ]);
    need(takeFilesIn(app, [choose(taken, 'both')]));
    const found = findPatterns(app.db, {}).patterns;
    expect(found.map(({ name, kind }) => [name, kind])).toEqual([
      ['leaf dots', 'drawn'],
      ['Photo', 'picture'],
    ]);
    expect(found[0]?.credit.source).toBe('theirs.svg');
  });

  it('takes nothing in where one part cannot be taken', async () => {
    const from = isle();
    const id = kept(from.db, 'Wave');
    const file = await out(from, { as: 'svg', ids: [id] });
    const to = isle();
    const stock = kept(to.db, 'Wave');
    to.db.$client.prepare('UPDATE pattern SET stock = 1').run();
    const first = need(
      await read(
        to,
        'a.svg',
        '<svg xmlns="http://www.w3.org/2000/svg"><pattern id="New" width="9" height="9" patternUnits="userSpaceOnUse"><path d="M1 1H5V5"/></pattern></svg>',
      ),
    );
    const second = need(await read(to, 'wave.svg', file.bytes));
    expect(sentence(takeFilesIn(to, [choose(first, 'both'), choose(second, 'replace')]))).toMatch(
      /protected: “Wave” is stock/,
    );
    expect(findPatterns(to.db, {}).patterns.map((one) => one.id)).toEqual([stock]);
  });

  it('reads palettes as tokens, CSS, CSV and SVG', async () => {
    const app = isle();
    for (const [name, body] of [
      ['brand.tokens.json', '{"Sea":{"deep":{"$type":"color","$value":"#102030"}}}'],
      ['brand.css', ':root{--deep:#102030}'],
      ['brand.csv', 'name,hex\nDeep,#102030\n'],
      [
        'brand.svg',
        '<svg xmlns="http://www.w3.org/2000/svg"><rect fill="#102030" width="1" height="1"/></svg>',
      ],
    ] as const) {
      const taken = need(await read(app, name, body));
      expect(taken.items).toMatchObject([{ kind: 'palette', colours: ['#102030'] }]);
      need(takeFilesIn(app, [choose(taken, 'both')]));
    }
    expect(listPalettes(app.db)).toHaveLength(4);
  });
});

describe('hostile files', () => {
  const zip = (files: Zippable): Uint8Array => zipSync(files);
  const linkAttributes = (0o120777 << 16) >>> 0;
  it.each([
    ['a path out of the archive', zip({ '../evil.svg': strToU8('<svg/>') }), /cannot be read whole|damaged/],
    ['an absolute path', zip({ '/etc/evil.svg': strToU8('<svg/>') }), /cannot be read whole|damaged/],
    [
      'a link',
      zip({ 'a.svg': [strToU8('/etc/passwd'), { os: 3, attrs: linkAttributes }] }),
      /is a link, not a file/,
    ],
    ['a bomb', zip({ 'a.svg': new Uint8Array(60_000_000) }), /times its size/],
    ['a cut-off zip', zip({ 'a.svg': strToU8('<svg/>') }).slice(0, 40), /damaged or cut off/],
    ['nothing of use', zip({ 'a.txt': strToU8('hello') }), /holds nothing that Isle can take in/],
    ['a damaged table of contents', zip({ 'isle.json': strToU8('{"version":') }), /isle\.json, is damaged/],
    [
      'a later version',
      zip({ 'isle.json': strToU8('{"version":9}') }),
      /version 9; this Isle reads version 1/,
    ],
    ['bytes that are no text', Uint8Array.of(0xff, 0xfe, 0, 1), /neither text in UTF-8 nor a zip/],
    [
      'entities',
      strToU8('<!DOCTYPE svg [<!ENTITY a SYSTEM "file:///b">]><svg xmlns="http://www.w3.org/2000/svg"/>'),
      /declares entities/,
    ],
    [
      'no patterns',
      strToU8('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0"/></svg>'),
      /no <pattern> and no colours/,
    ],
    [
      'an alias loop',
      strToU8('{"a":{"$type":"color","$value":"{b}"},"b":{"$type":"color","$value":"{a}"}}'),
      /leads back to itself/,
    ],
  ])('are refused with a sentence: %s', async (_, bytes, pattern) => {
    const app = isle();
    expect(sentence(await read(app, 'file', bytes))).toMatch(pattern);
    expect(findPatterns(app.db, {}).total).toBe(0);
  });

  it('cannot put a recipe past the checks by way of the metadata', async () => {
    const from = isle();
    const id = kept(from.db, 'Wave');
    const svg = text(await out(from, { as: 'svg', ids: [id] }));
    const broken = svg.replace('&quot;width&quot;:100', '&quot;width&quot;:1e99');
    const app = isle();
    const taken = await read(app, 'broken.svg', broken);
    expect(taken.ok ? taken.value.notes.join(' ') : sentence(taken)).toMatch(/“Wave”.*(at most|width)/);
    const script = svg.replace('&quot;name&quot;:&quot;Wave&quot;', '&quot;name&quot;:&quot;<b>&quot;');
    expect((await read(app, 'b.svg', script)).ok).toBe(false);
  });

  it('names of 300 characters and of only spaces are refused, right-to-left ones kept', () => {
    const app = isle();
    const id = kept(app.db, 'نمط الأمواج');
    expect(patternOf(app.db, id).name).toBe('نمط الأمواج');
    expect(findPatterns(app.db, { search: 'الأم' }).total).toBe(1);
  });
});
