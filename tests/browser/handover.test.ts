import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { formatPath, parsePath } from '../../src/lib/core/geom/path';
import { setLines } from '../../src/lib/core/geom/set-lines';
import { colourFill, coveringPicture, freshFill, gradientFill } from '../../src/lib/core/recipe/fill';
import type { TextForm } from '../../src/lib/core/recipe/form';
import { freshGradient } from '../../src/lib/core/recipe/gradient';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { api, exportPng, layoutWith, must, publishedPattern, unique } from '../support/api';
import { downloaded, enter, openBrowser, press, visit, type Session } from '../support/browser';
import { othersInside, type Drawn } from '../support/inside';
import { drawnBy, factsOf, faultsOf, platesOf, READERS, wordsOf } from '../support/pdf-readers';
import { pictureAsset } from '../support/pictures';
import { block, dot, place, recipe } from '../support/recipes';
import { until } from '../support/until';

const folder = mkdtempSync(join(tmpdir(), 'isle-handover-'));
let session: Session;
let page: Session['page'];
beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
  const client = await session.browser.target().createCDPSession();
  await client.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await session.close();
});

/** Words as a layout keeps them, set as its view sets them. */
async function words(text: string, font: string, size: number): Promise<TextForm> {
  const line = await must<{ d: string; width: number }>(
    'GET',
    `/fonts/${font}/line?size=${size}&text=${text}`,
  );
  const outline = parsePath(line.d);
  const set = setLines([{ path: outline.ok ? outline.path : [], width: line.width }], {
    size,
    align: 'start',
  })!;
  const { width, height } = set.box;
  return { kind: 'text', d: formatPath(set.path), width, height, text, font, size, align: 'start' };
}

/** Everything that a layout can have: a pattern in half-drop, turned; a photograph; a blend; masks; a stroke; a motif with a shadow; words. */
async function everything(): Promise<Shape[]> {
  const slots = [
    { id: 'ink', name: 'Ink', colour: '#b02030' as const },
    { id: 'paper', name: 'Paper', colour: '#f4ecd8' as const },
  ];
  const dots = await publishedPattern(
    recipe({
      ...{ unit: { width: 40, height: 52 }, slots, ground: { kind: 'slot', slot: 'paper' } },
      repeat: { kind: 'half-drop', step: 0.5, run: 'alternating' },
      motifs: [dot('d', 26)],
      placings: [place('d', 20, 20)],
    } as Parameters<typeof recipe>[0]),
    unique('Half-drop'),
  );
  const shaded = await publishedPattern(
    recipe({
      ...{ unit: { width: 70, height: 70 }, slots, ground: { kind: 'slot', slot: 'paper' } },
      motifs: [
        {
          ...block('b', 34, 34),
          effects: { drop: { slot: 'ink', angle: 45, distance: 8, blur: 3, opacity: 0.6 } },
        },
      ],
      placings: [place('b', 35, 35)],
    }),
    unique('With shadows'),
  );
  const photo = await pictureAsset(300, 200, (x, y) => [x * 0.8, y, 120, 255]);
  const box = (id: string, x: number, y: number, over: Partial<Shape>): Shape =>
    freshShape({
      ...{ id, name: id, form: { kind: 'rectangle', radius: 0 }, x, y, width: 170, height: 150 },
      ...over,
    });
  const steps = freshGradient({ colour: '#d04020' }, { colour: '#20a0c0' });
  const form = await words('Harbour', 'bitter-700', 34);
  return [
    box('words', 30, 166, {
      ...{ form, width: form.width, height: form.height, rotation: -4 },
      fills: [colourFill('w', { colour: '#14211f' })],
    }),
    box('turned', 10, 10, {
      form: { kind: 'ellipse' },
      fills: [{ ...freshFill('f', dots), rotation: 31, scaleX: 1.2, scaleY: 1.2 }],
    }),
    box('photo', 200, 10, {
      fills: [{ ...coveringPicture('f', photo, { width: 170, height: 150 }), rotation: 15 }],
    }),
    box('blend', 120, 60, {
      fills: [{ ...colourFill('f', { colour: '#f0c040' }), blend: 'multiply', opacity: 0.8 }],
    }),
    box('masked', 10, 200, {
      fills: [gradientFill('f', steps)],
      mask: {
        kind: 'painted',
        matrix: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 },
        strokes: [{ mode: 'erase', size: 50, softness: 0.2, strength: 1, points: [30, 30, 130, 120] }],
      },
    }),
    box('shadows', 200, 200, {
      fills: [freshFill('f', shaded)],
      stroke: {
        ...{ width: 8, cap: 'butt', join: 'miter', dashes: [] },
        fills: [colourFill('s', { colour: '#204080' })],
      } as unknown as NonNullable<Shape['stroke']>,
    }),
  ];
}

/** The files of a parcel as they are asked for. */
async function parcelOf(project: string, wish: object): Promise<Record<string, Uint8Array>> {
  const none = { pdf: true, png: true, svg: false, bleed: false, marks: false, register: false };
  const job = await must<{ id: string }>('POST', `/projects/${project}/parcels`, {
    ...{ ...none, patterns: false, palettes: true, spec: false },
    ...wish,
  });
  await until(async () =>
    expect((await must<{ state: string }>('GET', `/exports/${job.id}`)).state).toBe('done'),
  );
  const file = await fetch(`${inject('address')}/api/v1/exports/${job.id}/file`);
  return unzipSync(new Uint8Array(await file.arrayBuffer()));
}

describe('a layout as PDF', () => {
  it('is what its PNG shows, in three readers, saved from the dialog', async () => {
    const layout = await layoutWith(await everything(), { width: 390, height: 370, background: '#ffffff' });
    // Patterns stay patterns: the half-drop is two tilings of one uncut unit. With inks beside what is see-through they are copies.
    const plain = await fetch(`${inject('address')}/api/v1/layouts/${layout.id}/pdf`);
    const patterns = Buffer.from(await plain.arrayBuffer())
      .toString('latin1')
      .match(/\/PatternType 1\b/g);
    expect(patterns?.length).toBeGreaterThanOrEqual(2);
    const ink = { name: 'Quay blue', tint: 1, overprint: false };
    await must('POST', '/palettes', {
      ...{ name: unique('Inks'), projectId: layout.path.split('/')[2]! },
      colours: [{ id: unique('c').replace(' ', ''), name: 'Quay', hex: '#204080', ink }],
    });
    const { data, info } = await sharp(await exportPng(layout.id, 192))
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const right: Drawn = { width: info.width, height: info.height, data: new Uint8Array(data) };
    await visit(page, layout.path);
    await press(page, 'Export');
    await press(page, 'PDF for print');
    await enter(page, 'Resolution of pictures', '192');
    await press(page, 'Text as fonts, to be searched and copied', 'dialog label');
    await press(page, 'Export PDF', 'dialog button');
    const pdf = readFileSync(await downloaded(folder, (name) => name.endsWith('.pdf')));
    expect(await faultsOf(pdf)).toBe('');
    expect((await factsOf(pdf))['Page size']).toMatch(/^292\.5 x 277\.5 pts/);
    for (const reader of READERS) {
      const { share, inside } = othersInside(await drawnBy(reader, pdf, 192), right);
      expect(inside, reader).toBeGreaterThan(50_000);
      expect(share, reader).toBeLessThan(0.01);
    }
    const text = pdf.toString('latin1');
    expect(text).toContain('/SMask');
    expect((await wordsOf(pdf)).text).toContain('Harbour');
    // The stroke is 8 px wide round 170 × 150 px, in the ink alone; four dots of the plate to each of them across, 255 is bare paper.
    const plate = (await platesOf(pdf, 384))['Quay blue']!;
    const inked = plate.data.filter((value, at) => at % 4 === 0 && value < 128).length;
    expect(inked / 16 / (178 * 158 - 162 * 142)).toBeCloseTo(1, 1);
    // In a parcel it is the same file, beside a picture of the page.
    const projectId = layout.path.split('/')[2]!;
    const files = await parcelOf(projectId, { layouts: [layout.id], ppi: 192, fonts: true });
    const inside = Object.entries(files).filter(([name]) => name.startsWith('layouts/'));
    const parcelled = inside.find(([name]) => name.endsWith('.pdf'))![1];
    expect(Buffer.from(parcelled).equals(pdf)).toBe(true);
    expect(Buffer.from(files['FONTS.txt']!).toString()).toContain('bitter-700: SIL Open Font License');
    const tokens = Object.entries(files).flatMap(([name, bytes]) =>
      name.endsWith('.tokens.json') ? [Buffer.from(bytes).toString()] : [],
    );
    expect(tokens.join()).toContain('Quay blue');
  });

  it('has its bleed beyond the trim, with marks where it is cut', async () => {
    const layout = await layoutWith([], { width: 300, height: 200, background: '#c02020' });
    const { version } = (await must<{ layout: { version: number } }>('GET', `/layouts/${layout.id}`)).layout;
    await must('POST', `/layouts/${layout.id}/changes`, {
      ...{ base: version, changes: [{ do: 'page', bleed: 12 }] },
    });
    const answer = await fetch(`${inject('address')}/api/v1/layouts/${layout.id}/pdf?bleed=true&marks=true`);
    expect(answer.headers.get('content-disposition')).toContain('.pdf');
    const pdf = new Uint8Array(await answer.arrayBuffer());
    const facts = await factsOf(pdf);
    const box = (name: string): number[] => facts[name]!.split(/\s+/).map(Number);
    // 3 pt to 4 px: the page is 225 × 150 pt, its bleed 9 pt, the room for marks 30 pt.
    expect(box('TrimBox')).toEqual([39, 39, 264, 189]);
    expect(box('BleedBox')).toEqual([30, 30, 273, 198]);
    expect(box('MediaBox')).toEqual([0, 0, 303, 228]);
    const { width, height, data } = await drawnBy('poppler', pdf, 72);
    const at = (x: number, y: number): number[] => [
      ...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 3),
    ];
    expect(at(Math.floor(width / 2), 32 + 2)).toEqual([192, 32, 32]);
    expect(at(3, 3)).toEqual([255, 255, 255]);
    // A mark stands above the trim's left edge, outside of the bleed, and none within it.
    const column = Array.from({ length: 29 }, (_one, y) => Math.min(at(38, y)[0]!, at(39, y)[0]!));
    expect(Math.min(...column)).toBeLessThan(230);
    expect(height).toBe(228);
  });

  it('has registration marks on every plate and a colour bar beside the page, where they are asked for', async () => {
    const layout = await layoutWith([], { width: 400, height: 200, background: '#ffff00' });
    const answer = await fetch(
      `${inject('address')}/api/v1/layouts/${layout.id}/pdf?marks=true&register=true`,
    );
    const pdf = new Uint8Array(await answer.arrayBuffer());
    expect(await faultsOf(pdf)).toBe('');
    // The page is 300 × 150 pt within 30 pt of room; marks begin 8.504 pt from it, the ring's middle lies 7 pt on. Four px to a pt.
    const plates = await platesOf(pdf, 288);
    expect(Object.keys(plates).sort()).toEqual(['Black', 'Cyan', 'Magenta', 'Yellow']);
    const away = 30 - 8.504 - 7;
    const middles = [
      [180, away],
      [180, 210 - away],
      [away, 105],
      [360 - away, 105],
    ] as const;
    for (const [ink, { width, data }] of Object.entries(plates)) {
      const darkest = (x: number, y: number, reach: number): number => {
        let least = 255;
        for (let row = Math.floor(4 * (y - reach)); row <= 4 * (y + reach); row += 1)
          for (let column = Math.floor(4 * (x - reach)); column <= 4 * (x + reach); column += 1)
            least = Math.min(least, data[(row * width + column) * 4]!);
        return least;
      };
      for (const [x, y] of middles) expect([ink, x, darkest(x, y, 0.5) < 120]).toEqual([ink, x, true]);
      // The corner's marks for cutting stand on every plate too; the page itself is yellow alone.
      expect([ink, darkest(30, 14, 0.5) < 120]).toEqual([ink, true]);
      expect([ink, darkest(180, 105, 5) < 60]).toEqual([ink, ink === 'Yellow']);
    }
    const drawn = await drawnBy('poppler', pdf, 288);
    const field = (index: number): number[] => {
      const [x, y] = [180 + 14 + 8 * index + 4, 210 - away];
      const from = (Math.round(4 * y) * drawn.width + Math.round(4 * x)) * 4;
      return [...drawn.data.subarray(from, from + 3)];
    };
    expect([0, 1, 2, 3, 8].map(field)).toEqual([
      [0, 255, 255],
      [255, 0, 255],
      [255, 255, 0],
      [0, 0, 0],
      [128, 128, 128],
    ]);
  });

  it('says so where no page of a PDF can be that large', async () => {
    const layout = await layoutWith([], { width: 20_000, height: 100 });
    const { status, body } = await api('GET', `/layouts/${layout.id}/pdf`);
    expect(status).toBe(413);
    expect((body as { message: string }).message).toMatch(/at most 5.08 m .* is 5.29 m/);
  });
});

describe('several pages as one PDF', () => {
  it('are the layouts of a project that are ticked, each of its own size, in their order', async () => {
    const red = await layoutWith([], { width: 200, height: 100, background: '#c02020' });
    const project = red.path.split('/')[2]!;
    for (const [name, width, background] of [
      ['Blue', 300, '#2038c0'],
      ['Left out', 400, '#20a040'],
    ] as const)
      await must('POST', `/projects/${project}/layouts`, {
        ...{ name, measure: 'px', width, height: 150, background },
      });
    await visit(page, `/projects/${project}`);
    await press(page, 'Save as PDF …');
    await press(page, 'Left out', 'dialog label');
    await press(page, 'Save 2 pages');
    const { name: title } = await must<{ name: string }>('GET', `/projects/${project}`);
    const pdf = readFileSync(await downloaded(folder, (name) => name === `${title}.pdf`));
    expect(await faultsOf(pdf)).toBe('');
    const facts = await factsOf(pdf);
    expect([facts['Pages'], facts['Title']]).toEqual(['2', title]);
    expect(facts['Page size']).toMatch(/^150 x 75 pts/);
    const first = await drawnBy('poppler', pdf, 72);
    expect([...first.data.subarray(0, 3)]).toEqual([192, 32, 32]);

    const refused = await api('GET', `/projects/${project}/pdf?layouts=none`);
    expect(refused.status).toBe(404);
    const other = await layoutWith([], { width: 10, height: 10 });
    const strange = await api('GET', `/projects/${project}/pdf?layouts=${other.id}`);
    expect((strange.body as { message: string }).message).toContain('not in this project');
    const many = Array.from({ length: 61 }, () => red.id).join();
    const long = await api('GET', `/projects/${project}/pdf?layouts=${many}`);
    expect((long.body as { message: string }).message).toContain('at most 60');
  });

  it('are strike-offs too, true to size', async () => {
    const pattern = await publishedPattern(
      recipe({ motifs: [dot('d', 40)], placings: [place('d', 50, 50)] }),
      unique('Tried'),
    );
    const shape = freshShape({
      ...{ id: 's', name: 'S', form: { kind: 'rectangle', radius: 0 }, x: 0, y: 0, width: 60, height: 40 },
      fills: [freshFill('f', pattern)],
    });
    const layout = await layoutWith([shape], { width: 100, height: 100 });
    const sheet = { shape, fill: 'f', across: { property: 'scale', values: [0.5, 1, 2] }, down: null };
    const { id } = await must<{ id: string }>('POST', `/projects/${layout.path.split('/')[2]}/strike-offs`, {
      ...{ name: 'Scales', sheet, layoutId: layout.id },
    });
    const answer = await fetch(`${inject('address')}/api/v1/strike-offs/${id}/pdf?ppi=96`);
    expect(answer.status).toBe(200);
    const pdf = new Uint8Array(await answer.arrayBuffer());
    expect(await faultsOf(pdf)).toBe('');
    const { width, height, data } = await drawnBy('mupdf', pdf, 96);
    const ink = Array.from({ length: width * height }, (_one, at) => data[at * 4]! < 100).filter(Boolean);
    expect(ink.length).toBeGreaterThan(500);
  });
});

describe('a project as one parcel', () => {
  it('is chosen, made and saved; next time the choice is there, and what has changed since is told', async () => {
    const layout = await layoutWith(
      [
        freshShape({
          ...{
            id: 's',
            name: 'S',
            form: { kind: 'rectangle', radius: 0 },
            x: 0,
            y: 0,
            width: 90,
            height: 60,
          },
          fills: [colourFill('c', { colour: '#c02020' })],
        }),
      ],
      { width: 100, height: 100 },
    );
    const project = layout.path.split('/')[2]!;
    const { name: title } = await must<{ name: string }>('GET', `/projects/${project}`);
    const handOver = async (): Promise<void> => {
      await visit(page, `/projects/${project}`);
      await press(page, 'Hand over …');
      await page.waitForSelector('dialog .list label');
    };
    await handOver();
    await press(page, 'SVG', 'dialog label');
    await enter(page, 'Resolution', '96');
    await press(page, 'Make the parcel');
    const path = await downloaded(folder, (name) => name === `${title} parcel.zip`);
    const files = unzipSync(new Uint8Array(readFileSync(path)));
    const inLayouts = Object.keys(files).filter((name) => name.startsWith('layouts/'));
    expect(inLayouts.map((name) => name.split('.').at(-1)).sort()).toEqual(['pdf', 'png']);
    // The page is the one that is exported alone.
    const png = inLayouts.find((name) => name.endsWith('.png'))!;
    expect(Buffer.from(files[png]!).equals(await exportPng(layout.id, 96))).toBe(true);
    expect(await faultsOf(files[png.replace('.png', '.pdf')]!)).toBe('');

    await handOver();
    const since = (): Promise<string> => page.$eval('dialog .since', (one) => one.textContent ?? '');
    await page.waitForSelector('dialog .since');
    expect(await since()).toContain('Nothing has changed since the parcel of');
    expect(await page.$eval('dialog input[aria-label="Resolution"]', (one) => one.value)).toBe('96');
    const { version, name } = (
      await must<{ layout: { version: number; name: string } }>('GET', `/layouts/${layout.id}`)
    ).layout;
    await must('POST', `/layouts/${layout.id}/changes`, {
      ...{ base: version, changes: [{ do: 'page', width: 120 }] },
    });
    await handOver();
    await page.waitForSelector('dialog .since');
    expect(await since()).toContain(`“${name}” changed`);
    expect(session.faults).toEqual([]);
  });
});
