import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { PNG } from 'pngjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import sharp from 'sharp';
import { apply } from '../../src/lib/core/geom/affine';
import { coveringPicture, type PatternFill } from '../../src/lib/core/recipe/fill';
import { freshShape, pagePatternMatrix, type Shape } from '../../src/lib/core/recipe/layout';
import type { PatternDetail, StrikeOff } from '../../src/lib/contract/data';
import type { CommentData } from '../../src/lib/contract/talk';
import { api, exportPng, getLayout, must, publishedPattern, unique } from '../support/api';
import {
  at,
  drag,
  enter,
  middle,
  named,
  openBrowser,
  pixelAt,
  pixelsOf,
  press,
  saved,
  shown,
  still,
  type Session,
} from '../support/browser';
import { layoutView, topOf } from '../support/layout-view';
import { CUT_OUT, differing, PHOTO, pictureAsset, pngOf } from '../support/pictures';
import { dot, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';
import { until } from '../support/until';

let session: Session;
let page: Page;
let pattern: string;
const patternName = unique('Depth Dots');
const folder = mkdtempSync(join(tmpdir(), 'isle-depth-'));
const cutOutFile = join(folder, 'subject.png');
beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
  pattern = await publishedPattern(
    recipe({ motifs: [dot('d', 60)], placings: [place('d', 50, 50)] }), // a unit of 100 × 100 px
    patternName,
  );
  const { version } = await must<PatternDetail>('GET', `/patterns/${pattern}`);
  await must('PUT', `/patterns/${pattern}/colourways`, {
    base: version,
    colourways: [
      { id: 'sun', name: 'Sun', colours: { ink: { colour: '#e5572e' } } },
      { id: 'sea', name: 'Sea', colours: { ink: { colour: '#2f8fab' } } },
    ],
  });
  writeFileSync(cutOutFile, await pngOf(90, 90, CUT_OUT));
});
afterAll(async () => {
  await session.close();
  rmSync(folder, { recursive: true, force: true });
});

const { open, shapeNow, choose, pick, give, stagePixels, fillsShown, rowShown, layoutId } = layoutView(
  () => page,
);
const panel = (over: Partial<PatternFill> = {}, box = { x: 60, y: 60, width: 300, height: 200 }): Shape => ({
  ...filledShape(box, { pattern, ...over }),
  name: 'Panel',
});

describe('a transformation in three scopes', () => {
  it('a pattern at 700 % keeps its scale while its shape is reshaped', async () => {
    await open([panel()]);
    await choose('Panel');
    await enter(page, 'Scale', '700');
    const before = await shapeNow('Panel');
    expect(topOf(before)).toMatchObject({ scaleX: 7, scaleY: 7 });
    await drag(page, await middle(page, '[data-handle="1,1"]'), [900, 330]);
    const after = await shapeNow('Panel');
    expect(after.width).not.toBeCloseTo(before.width, 0);
    expect(topOf(after)).toEqual(topOf(before));
  });

  it('45° by number turns the pattern alone; typed turns move shape, pattern or both, and can be cancelled', async () => {
    await open([panel()]);
    await choose('Panel');
    await enter(page, 'Rotation', '45');
    const turned = await shapeNow('Panel');
    expect({ ...turned, fills: [] }).toMatchObject({ rotation: 0, x: 60, y: 60, width: 300, height: 200 });
    expect((topOf(turned) as PatternFill).rotation).toBe(45);

    const by = async (scope: string, degrees: string, end: string): Promise<Shape> => {
      await press(page, 'Transform by numbers');
      await press(page, scope, '.panel [role="radio"]');
      await enter(page, 'Turn by', degrees);
      await press(page, end, '.panel button');
      return shapeNow('Panel');
    };
    const onPage = (shape: Shape) => pagePatternMatrix(shape, topOf(shape) as PatternFill);
    const shapeOnly = await by('Shape', '30', 'Apply');
    expect(shapeOnly.rotation).toBeCloseTo(30, 6);
    for (const [key, value] of Object.entries(onPage(turned)))
      expect(onPage(shapeOnly)[key as 'a']).toBeCloseTo(value, 6);
    const both = await by('Both', '-10', 'Apply');
    expect(both.rotation).toBeCloseTo(20, 6);
    expect((topOf(both) as PatternFill).rotation).toBeCloseTo(35, 6);
    const patternOnly = await by('Pattern', '5', 'Apply');
    expect(patternOnly.rotation).toBeCloseTo(20, 6);
    expect((topOf(patternOnly) as PatternFill).rotation).toBeCloseTo(40, 6);
    expect(await by('Both', '77', 'Cancel')).toEqual(patternOnly);
  });

  it('a pattern is reflected and the numbers say so', async () => {
    await choose('Panel');
    const before = topOf(await shapeNow('Panel')) as PatternFill;
    await press(page, 'Reflect the pattern across');
    expect(topOf(await shapeNow('Panel'))).toMatchObject({ reflectX: true, rotation: before.rotation });
    await press(page, 'Undo');
    expect(topOf(await shapeNow('Panel'))).toEqual(before);
  });
});

describe('several fills', () => {
  it('a watermark over a photo in one step changes it by 20 % of the difference', async () => {
    const photo = await pictureAsset(180, 130, PHOTO);
    await open(
      [
        freshShape({
          ...{ id: 'shot', name: 'Shot', form: { kind: 'rectangle', radius: 0 } },
          ...{ x: 0, y: 0, width: 180, height: 130 },
          fills: [coveringPicture('photo', photo, { width: 180, height: 130 })],
        }),
      ],
      { width: 180, height: 130 },
    );
    const before = PNG.sync.read(await exportPng(layoutId(), 96));
    await choose('Shot');
    await press(page, 'Lay another fill over it');
    await (await page.waitForSelector('.as input'))?.click();
    await pick(patternName);
    await fillsShown(2);
    const shape = await shapeNow('Shot');
    expect(topOf(shape)).toMatchObject({ pattern, opacity: 0.2, ground: { kind: 'none' } });
    const after = PNG.sync.read(await exportPng(layoutId(), 96));
    // In the middle of a dot the ink counts 20 %; between the dots nothing changes.
    const ink = [0x10, 0x20, 0x30];
    pixelAt(before, 50, 50).forEach((value, channel) => {
      const wanted = value + 0.2 * (ink[channel]! - value);
      expect(Math.abs((pixelAt(after, 50, 50)[channel] ?? 0) - wanted)).toBeLessThanOrEqual(1);
    });
    expect(pixelAt(after, 100, 100)).toEqual(pixelAt(before, 100, 100));
  });

  it('photo, pattern on screen at 35 %, a gradient over it, rubbed out softly, and a cut-out in front', async () => {
    const photo = await pictureAsset(180, 130, PHOTO);
    const photoFile = join(folder, 'photo.png');
    writeFileSync(photoFile, await pngOf(180, 130, PHOTO));
    expect(photo.asset).toMatch(/^[0-9a-f]{64}$/);
    await open([], { width: 360, height: 260 });
    await give('Picture or drawing file', photoFile);
    await rowShown('photo');
    const shot = await shapeNow('photo');
    expect(shot.fills[0]).toMatchObject({ kind: 'picture', asset: photo.asset });
    await press(page, 'Lay another fill over it');
    await (await page.waitForSelector('.as input'))?.click();
    await pick(patternName);
    await fillsShown(2);
    await page.select('select[aria-label="Blend mode"]', 'screen');
    await enter(page, 'Opacity', '35');
    await press(page, 'Gradient over motifs: none');
    await press(page, 'Add a gradient');
    await page.keyboard.press('Escape');
    await press(page, 'Soft mask: none');
    await press(page, 'Paint');
    const [x, y] = await middle(page, '[data-paper]');
    await drag(page, [x - 40, y - 20], [x + 40, y + 20]);
    await press(page, 'Done');
    const fill = topOf(await shapeNow('photo')) as PatternFill;
    expect(fill).toMatchObject({ blend: 'screen', opacity: 0.35, ground: { kind: 'none' } });
    expect(fill.wash?.stops).toHaveLength(2);
    expect(fill.mask).toMatchObject({ kind: 'painted', strokes: [{ mode: 'erase', softness: 0.6 }] });
    await give('Picture or drawing file', cutOutFile);
    await rowShown('subject');
    expect((await shapeNow('subject')).fills[0]).toMatchObject({ kind: 'picture', width: 90 });
    const stage = await stagePixels(360, 260);
    const png = PNG.sync.read(await exportPng(layoutId(), 96));
    expect(differing(stage, png, 24)).toBeLessThan(0.02);
    // Where the mask was rubbed out the photo shows as it was.
    const left = Math.round(shot.x + shot.width / 2);
    expect(pixelAt(png, left, Math.round(shot.y + 10))).not.toEqual([255, 255, 255]);
  });

  it('a shape’s fills are hidden, ordered and taken away, each as one step', async () => {
    await open([panel()]);
    await choose('Panel');
    await press(page, 'Lay another fill over it');
    await pick('A gradient');
    await fillsShown(2);
    expect((await shapeNow('Panel')).fills.map(({ kind }) => kind)).toEqual(['pattern', 'gradient']);
    await press(page, 'Move this fill down');
    expect((await shapeNow('Panel')).fills.map(({ kind }) => kind)).toEqual(['gradient', 'pattern']);
    await press(page, 'Hide this fill');
    expect((await shapeNow('Panel')).fills[0]).toMatchObject({ kind: 'gradient', shown: false });
    await press(page, 'Take this fill away');
    expect((await shapeNow('Panel')).fills.map(({ kind }) => kind)).toEqual(['pattern']);
    const fillsAfterUndo = async (): Promise<[string, boolean][]> => {
      await press(page, 'Undo');
      return (await shapeNow('Panel')).fills.map(({ kind, shown: visible }) => [kind, visible]);
    };
    expect(await fillsAfterUndo()).toEqual([
      ['gradient', false],
      ['pattern', true],
    ]);
    expect(await fillsAfterUndo()).toEqual([
      ['gradient', true],
      ['pattern', true],
    ]);
    expect(await fillsAfterUndo()).toEqual([
      ['pattern', true],
      ['gradient', true],
    ]);
    expect(await fillsAfterUndo()).toEqual([['pattern', true]]);
  });

  it('two neighbours continue one pattern, and go on doing so when one is moved', async () => {
    const left = { ...panel({ scaleX: 0.6, scaleY: 0.6, rotation: 30 }), name: 'Left' };
    const right = { ...panel({}, { x: 360, y: 60, width: 150, height: 200 }), id: 'other', name: 'Right' };
    await open([left, { ...right, fills: right.fills.map((one) => ({ ...one, id: 'otherf' })) }]);
    await choose('Left');
    await choose('Right', true);
    await press(page, 'Offset from the shape');
    const offer = await page.waitForFunction(() =>
      [...document.querySelectorAll<HTMLElement>('.options button')].find((one) =>
        one.textContent?.includes('Continue one'),
      ),
    );
    await (offer as unknown as ElementHandle<HTMLElement>).click();
    const planes = async (): Promise<{ x: number; y: number }[]> =>
      Promise.all(
        ['Left', 'Right'].map(async (name) => {
          const shape = await shapeNow(name);
          return apply(pagePatternMatrix(shape, topOf(shape) as PatternFill), { x: 130, y: -40 });
        }),
      );
    const [one, other] = await planes();
    expect(other?.x).toBeCloseTo(one?.x ?? 0, 6);
    expect(other?.y).toBeCloseTo(one?.y ?? 0, 6);
    await page.keyboard.press('Escape');
    await choose('Right');
    await page.focus('.stage');
    await page.keyboard.press('s');
    await page.keyboard.press('ArrowRight');
    expect((await shapeNow('Right')).x).toBeCloseTo(361, 6);
    expect(await planes()).toEqual([one, other]);
  });
});

describe('drawn shapes', () => {
  it('a stroke of the pattern brush is filled as what was worked on, soft at its rim', async () => {
    await open([panel({ scaleX: 0.3, scaleY: 0.3 })]);
    await choose('Panel');
    await press(page, 'Brush a stroke of pattern');
    await enter(page, 'Size of the brush', '40');
    await enter(page, 'Softness of the brush', '70');
    const [x, y] = await middle(page, '[data-paper]');
    await drag(page, [x - 120, y + 90], [x + 120, y + 90]);
    const stroke = await shapeNow('Brush stroke');
    expect(stroke.form).toMatchObject({ kind: 'brush', softness: 0.7 });
    expect(stroke.height).toBeCloseTo(40, 0);
    expect(topOf(stroke)).toMatchObject({ pattern, scaleX: 0.3 });
    await page.keyboard.press('Escape');
    const stage = await stagePixels(560, 440);
    const png = PNG.sync.read(await exportPng(layoutId(), 96));
    // Small dots are mostly edges: they differ by a little more than broad ones.
    expect(differing(stage, png, 40)).toBeLessThan(0.02);
  });

  it('a line, a path by points, text and an outline by hand become shapes; points are edited where they lie', async () => {
    await open([]);
    const [x, y] = await middle(page, '[data-paper]');
    await press(page, 'Draw a line');
    await drag(page, [x - 100, y - 80], [x + 100, y - 80]);
    expect((await shapeNow('Line')).stroke).toMatchObject({ cap: 'round', fills: [{ kind: 'colour' }] });
    await press(page, 'Draw a path point by point');
    for (const [dx, dy] of [
      [-60, 0],
      [60, 0],
      [0, 60],
    ] as const)
      await page.mouse.click(x + dx, y + dy);
    await page.mouse.click(x - 60, y);
    const path = await shapeNow('Path');
    expect(path.form.kind).toBe('path');
    await press(page, 'Edit points');
    const node = await middle(page, '[data-node="0,2"]');
    await drag(page, node, [node[0], node[1] + 40]);
    expect((await shapeNow('Path')).height).toBeGreaterThan(path.height + 20);
    await press(page, 'Points are done');
    await press(page, 'Set text');
    await page.mouse.click(x - 80, y - 60);
    await (await page.waitForSelector('.stage textarea'))?.type('Day ticket');
    await page.keyboard.press('Escape');
    await rowShown('Day ticket');
    expect((await shapeNow('Day ticket')).form).toMatchObject({ kind: 'text', text: 'Day ticket' });
    await press(page, 'Draw an outline by hand');
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let step = 0; step < 20; step += 1)
      await page.mouse.move(x + 40 * Math.cos(step / 3), y + 40 * Math.sin(step / 3));
    await page.mouse.up();
    await rowShown('Path 2');
    expect((await shapeNow('Path 2')).form.kind).toBe('path');
    expect(session.faults).toEqual([]);
  });

  it('a shape pressed twice opens its points, a text its words', async () => {
    await open([panel()]);
    // The page may be fitted anew while it is measured: then the press lands beside it.
    await until(async () => {
      const [x, y] = await middle(page, '[data-shape]');
      await page.mouse.click(x + 90, y + 60, { count: 2 });
      await page.waitForSelector('[data-node="0,2"]', { timeout: 5000 });
    });
    const [x, y] = await middle(page, '[data-shape]');
    await press(page, 'Points are done');
    await press(page, 'Set text');
    await page.mouse.click(x + 150, y + 150);
    await (await page.waitForSelector('.stage textarea'))?.type('IIII');
    await page.keyboard.press('Escape');
    await rowShown('IIII');
    await page.keyboard.press('Escape');
    await choose('IIII');
    await page.focus('.stage');
    await page.keyboard.press('Enter');
    const words = await page.waitForSelector('.stage textarea');
    expect(await words?.evaluate((field) => (field as HTMLTextAreaElement).value)).toBe('IIII');
    await page.keyboard.press('Escape');
    await saved(page);
  });

  it('are grouped, locked, lined up and united; the pattern of what stays keeps its place', async () => {
    const one = { ...panel(), name: 'One' };
    const two = { ...panel({}, { x: 200, y: 180, width: 120, height: 120 }), id: 'two', name: 'Two' };
    await open([one, { ...two, fills: two.fills.map((fill) => ({ ...fill, id: 'twof' })) }]);
    await choose('One');
    await choose('Two', true);
    await page.focus('.stage');
    await page.keyboard.down('Control');
    await page.keyboard.press('g');
    await page.keyboard.up('Control');
    const { layout } = await getLayout(layoutId()).then(async () => {
      await saved(page);
      return getLayout(layoutId());
    });
    expect(layout.groups).toHaveLength(1);
    expect(new Set(layout.shapes.map(({ group }) => group)).size).toBe(1);
    const before = await shapeNow('One');
    await press(page, 'Arrange');
    await press(page, 'Unite');
    await page.keyboard.press('Escape');
    const united = await shapeNow('One');
    expect(united.form.kind).toBe('path');
    expect(united.height).toBeGreaterThan(before.height);
    const plane = (shape: Shape) => pagePatternMatrix(shape, topOf(shape) as PatternFill);
    for (const [key, value] of Object.entries(plane(before)))
      expect(plane(united)[key as 'a']).toBeCloseTo(value, 6);
  });
});

describe('strike-offs', () => {
  it('five scales by three colourways: one is taken over, the sheet is kept and printed', async () => {
    await open([panel({ scaleX: 0.4, scaleY: 0.4 })]);
    await choose('Panel');
    await press(page, 'try out …');
    await page.waitForSelector('.sheet .try');
    expect(await page.$$eval('.sheet .try', (found) => found.length)).toBe(15);
    await enter(page, 'Values of scale', '25, 50, 70, 120/3, 700');
    await named(page, 'Take 40 %, Sea');
    await press(page, 'Keep', 'dialog button');
    await page.waitForFunction(() => document.querySelector('select[aria-label="Kept strike-offs"]'));
    const { projectId } = (await getLayout(layoutId())).layout;
    const [kept] = await must<StrikeOff[]>('GET', `/projects/${projectId}/strike-offs`);
    expect(kept?.sheet.across).toEqual({ property: 'scale', values: [0.25, 0.5, 0.7, 0.4, 7] });
    await enter(page, 'Say something; @ names somebody', 'The third, for the client');
    await press(page, 'Say it', 'dialog button');
    await until(async () =>
      expect(await must<CommentData[]>('GET', `/comments?kind=strike-off&id=${kept?.id}`)).toMatchObject([
        { words: 'The third, for the client' },
      ]),
    );
    await press(page, 'Take 70 %, Sea');
    expect(topOf(await shapeNow('Panel'))).toMatchObject({ scaleX: 0.7, scaleY: 0.7, colourway: 'sea' });
    await press(page, 'Undo');
    expect(topOf(await shapeNow('Panel'))).toMatchObject({ scaleX: 0.4, colourway: null });
    const job = await must<{ id: string; width: number }>('POST', `/strike-offs/${kept?.id}/exports`, {
      ppi: 96,
    });
    expect(job.width).toBeGreaterThan(5 * 300);
  });

  it('numbers that cannot be read are answered with a sentence and change nothing', async () => {
    await choose('Panel');
    await press(page, 'try out …');
    await page.waitForSelector('.sheet .try');
    await enter(page, 'Values of scale', '25, hello');
    await page.waitForFunction(() =>
      document.querySelector('.axis .problem')?.textContent?.includes('“hello” is not a number'),
    );
    await enter(page, 'Values of scale', '0');
    await page.waitForFunction(() =>
      document.querySelector('.axis .problem')?.textContent?.includes('must be from'),
    );
    expect(await page.$$eval('.sheet .try', (found) => found.length)).toBe(15);
    await page.keyboard.press('Escape');
  });
});

describe('the page and the ledger', () => {
  it('a page of another size takes all along, or keeps the patterns’ scale', async () => {
    await open([panel({ scaleX: 0.5, scaleY: 0.5, offset: { x: 10, y: 0 } })]);
    await press(page, 'Page settings');
    await page.select('select[aria-label="What changes with the page’s size"]', 'everything');
    await enter(page, 'Width of the page', '1120');
    expect(await shown(page, 'Height of the page')).toBe('880');
    const wide = await shapeNow('Panel');
    expect((topOf(wide) as PatternFill).scaleX).toBeCloseTo(1, 6);
    expect(wide.width).toBeCloseTo(600, 6);
    await page.select('select[aria-label="What changes with the page’s size"]', 'shapes');
    await enter(page, 'Width of the page', '560');
    const narrow = await shapeNow('Panel');
    expect(narrow.width).toBeCloseTo(300, 6);
    expect((topOf(narrow) as PatternFill).scaleX).toBeCloseTo(1, 6);
    await enter(page, 'Bleed', '12');
    await saved(page);
    expect((await getLayout(layoutId())).layout.bleed).toBe(12);
    await page.keyboard.press('Escape');
  });

  it('changes many rows each by its own number', async () => {
    const rows = [1, 2, 3].map((index) => ({
      ...panel({ scaleX: index, scaleY: index }, { x: 10, y: index * 70, width: 60, height: 60 }),
      id: `row${index}`,
      name: `Row ${index}`,
    }));
    await open(
      rows.map((row) => ({ ...row, fills: row.fills.map((fill) => ({ ...fill, id: `${row.id}f` })) })),
    );
    await choose('Row 1');
    await choose('Row 3', true);
    await enter(page, 'Scale of Row 1', '*1.5');
    await enter(page, 'Rotation of Row 1’s pattern', '+10');
    const scales = await Promise.all(
      [1, 2, 3].map(async (index) => topOf(await shapeNow(`Row ${index}`)) as PatternFill),
    );
    expect(scales.map(({ scaleX }) => scaleX)).toEqual([1.5, 2, 4.5]);
    expect(scales.map(({ rotation }) => rotation)).toEqual([10, 0, 10]);
  });

  it('two tabs on one layout: each sees the other’s work, and one shape has what both did to it', async () => {
    await open([panel()]);
    const { layout } = await getLayout(layoutId());
    const shape = layout.shapes[0]!;
    // Someone else moves the shape; here its pattern is turned before that is known.
    await page.evaluate(() => window.dispatchEvent(new Event('blur')));
    await must('POST', `/layouts/${layoutId()}/changes`, {
      base: layout.version,
      changes: [{ do: 'put-shape', shape: { ...shape, x: 200 } }],
    });
    await page.waitForFunction(
      () =>
        document.querySelector<HTMLInputElement>('input[aria-label="Place across of Panel"]')?.value ===
        '200',
    );
    await page.setOfflineMode(true);
    await choose('Panel');
    await enter(page, 'Rotation', '33');
    const now = (await getLayout(layoutId())).layout;
    await must('POST', `/layouts/${layoutId()}/changes`, {
      base: now.version,
      changes: [{ do: 'put-shape', shape: { ...now.shapes[0]!, y: 111 } }],
    });
    await page.setOfflineMode(false);
    // They are other fields of the same shape: it has both.
    await saved(page);
    const both = await shapeNow('Panel');
    expect(both).toMatchObject({ y: 111 });
    expect((topOf(both) as PatternFill).rotation).toBe(33);
  });
});

describe('comparing', () => {
  it('shows the layout before the last step and without patterns while a key is held, and pinned beside the stage', async () => {
    await open([panel()]);
    await choose('Panel');
    const ink = async (): Promise<number[]> => {
      await still(page);
      const box = await page.$eval('[data-shape] path', (path) => {
        const { x: left, y: top } = path.getBoundingClientRect();
        return { left, top };
      });
      const scale = await page.$eval('[data-paper]', (paper) => paper.getBoundingClientRect().width / 560);
      // The middle of the second dot across: a unit and a half from the shape's corner.
      const picture = await pixelsOf(page, {
        x: Math.round(box.left + 150 * scale),
        y: Math.round(box.top + 50 * scale),
        width: 1,
        height: 1,
      });
      return [...picture.data.slice(0, 3)];
    };
    await page.keyboard.press('Escape');
    const before = await ink();
    expect(before).toEqual([0x10, 0x20, 0x30]);
    await choose('Panel');
    await enter(page, 'Scale', '10');
    await page.keyboard.press('Escape');
    await page.focus('.stage');
    await page.keyboard.press('Escape');
    const after = await ink();
    await page.keyboard.down('v');
    expect(await ink()).toEqual(before);
    await page.keyboard.up('v');
    expect(await ink()).toEqual(after);
    await page.keyboard.press('Escape');
    await press(page, 'Undo');
    expect(await ink()).toEqual(before);
    await page.focus('.stage');
    await page.keyboard.down('w');
    expect(await ink()).toEqual([255, 255, 255]);
    await page.keyboard.up('w');
    expect(await ink()).toEqual(before);
    await press(page, 'Compare side by side');
    await page.waitForSelector('[aria-label$="as it was pinned"] [data-shape]');
  });
});

describe('bad input', () => {
  it('a scale of 0 or 1e9, a skew of 90°, a page of 50 m and letters that a font lacks get a sentence; nothing changes', async () => {
    await open([panel()]);
    await choose('Panel');
    for (const [typed, said] of [
      ['0', 'Scale must be at least 0.1 %'],
      ['1e9', 'Scale must be at most 100000 %'],
    ] as const) {
      await enter(page, 'Scale', typed);
      await page.waitForFunction((text) => document.body.textContent?.includes(text), {}, said);
      await page.keyboard.press('Escape');
    }
    await press(page, 'Transform by numbers');
    await enter(page, 'Skew by', '90');
    await page.waitForFunction(() =>
      document.body.textContent?.includes('Skew by must be at most 80 °; 90 ° was given.'),
    );
    await page.keyboard.press('Escape');
    await press(page, 'Cancel', '.panel button');
    await press(page, 'Page settings');
    await enter(page, 'Width of the page', '50000mm');
    await page.waitForFunction(() =>
      document.body.textContent?.includes('Width of the page must be at most 75600 px'),
    );
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await press(page, 'Set text');
    await page.mouse.click(...(await middle(page, '[data-paper]')));
    await (await page.waitForSelector('.stage textarea'))?.type('日本');
    await page.waitForFunction(() =>
      document
        .querySelector('.stage [role="alert"]')
        ?.textContent?.includes('has no 日 本; choose another font'),
    );
    await page.keyboard.press('Escape');
    expect(await shapeNow('Panel')).toMatchObject({ x: 60, y: 60, width: 300, height: 200, skew: 0 });
    expect((await getLayout(layoutId())).layout).toMatchObject({ width: 560 });
  });

  it('a path that crosses itself and a picture of one pixel are drawn as they are, on the stage as in PNG', async () => {
    const pixel = await pictureAsset(1, 1, () => [200, 40, 90, 255]);
    const crossing = { kind: 'path' as const, d: 'M0 0L100 100L100 0L0 100Z', width: 100, height: 100 };
    const base = filledShape(
      { x: 20, y: 20, width: 200, height: 160 },
      { pattern, scaleX: 0.2, scaleY: 0.2 },
    );
    const dotFill = { ...coveringPicture('px', pixel, { width: 100, height: 100 }) };
    await open([
      { ...base, name: 'Bow', form: crossing },
      { ...base, id: 'dot', name: 'Pixel', x: 240, width: 100, height: 100, fills: [dotFill] },
    ]);
    const stage = await stagePixels(560, 440);
    const png = PNG.sync.read(await exportPng(layoutId(), 96));
    expect(differing(stage, png, 40)).toBeLessThan(0.02);
    expect(pixelAt(png, 290, 60)).toEqual([200, 40, 90]);
  });

  it('a picture of 12,000 px, a mask of too many strokes and a shape beyond the limit are refused in a sentence', async () => {
    const large = await sharp({ create: { width: 12_000, height: 9000, channels: 3, background: '#8090a0' } })
      .png({ compressionLevel: 9 })
      .toBuffer();
    const answer = await fetch(at('/api/v1/motifs/pictures'), {
      method: 'POST',
      headers: { 'content-type': 'image/png', 'x-file-name': 'large.png' },
      body: new Uint8Array(large),
    });
    expect((await answer.json()) as object).toMatchObject({
      message: expect.stringMatching(/has 108 million pixels; at most 100 million are taken/) as string,
    });
    await open([panel()]);
    const { layout } = await getLayout(layoutId());
    const stroke = { mode: 'erase', size: 9, softness: 0, strength: 1, points: [1, 1] };
    const mask = {
      kind: 'painted',
      matrix: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 },
      strokes: Array(2001).fill(stroke),
    };
    const sent = await api('POST', `/layouts/${layoutId()}/changes`, {
      base: layout.version,
      changes: [{ do: 'put-shape', shape: { ...layout.shapes[0], mask } }],
    });
    expect(sent.status).toBe(400);
    expect(JSON.stringify(sent.body)).toMatch(/mask.strokes.*at most 2000/);
    const gone = await api('POST', `/layouts/${layoutId()}/changes`, {
      base: layout.version,
      changes: [
        {
          do: 'put-shape',
          shape: {
            ...layout.shapes[0],
            fills: [
              {
                ...coveringPicture(
                  'gone',
                  { asset: 'a'.repeat(64), width: 9, height: 9 },
                  { width: 9, height: 9 },
                ),
              },
            ],
          },
        },
      ],
    });
    expect(JSON.stringify(gone.body)).toMatch(
      /picture of this shape is not in Isle; bring its file in again/,
    );
    expect((await getLayout(layoutId())).layout.version).toBe(layout.version);
  });
});
