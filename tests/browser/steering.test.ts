import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { PNG } from 'pngjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { apply, IDENTITY } from '../../src/lib/core/geom/affine';
import { colourFill, gradientFill, type Fill, type PatternFill } from '../../src/lib/core/recipe/fill';
import { freshGradient, type Gradient } from '../../src/lib/core/recipe/gradient';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { exportPng, publishedPattern, unique } from '../support/api';
import { drag, enter, middle, openBrowser, press, saved, type Session } from '../support/browser';
import { layoutView, topOf } from '../support/layout-view';
import { differing } from '../support/pictures';
import { dot, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';

let session: Session;
let page: Page;
let pattern: string;
const folder = mkdtempSync(join(tmpdir(), 'isle-steer-'));
beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
  pattern = await publishedPattern(
    recipe({ motifs: [dot('d', 60)], placings: [place('d', 50, 50)] }),
    unique('Steered'),
  );
});
afterAll(async () => {
  await session.close();
  rmSync(folder, { recursive: true, force: true });
});
const { open, shapeNow, choose, give, rowShown, stagePixels, layoutId } = layoutView(() => page);

const FRAME = { x: 80, y: 60, width: 400, height: 300 };
const sunset = (): Fill => gradientFill('g', freshGradient({ colour: '#e5572e' }, { colour: '#10394d' }));
const panel = (fills: Fill[], over: Partial<Shape> = {}): Shape => ({
  ...filledShape(FRAME, { pattern }),
  name: 'Panel',
  fills,
  ...over,
});
const dots = (over: Partial<PatternFill> = {}): PatternFill => ({
  ...(filledShape(FRAME, { pattern }).fills[0] as PatternFill),
  id: 'dots',
  ...over,
});
const gradientOf = (fill: Fill): Gradient => {
  if (fill.kind !== 'gradient') throw new Error('no gradient');
  return fill.gradient;
};
/** Pulls a handle to a share of the panel's frame, as it lies on the stage. */
async function pull(handle: string, share: { x: number; y: number }): Promise<void> {
  const box = await page.$eval('[data-shape]', (shape) => {
    const { x, y, width, height } = shape.getBoundingClientRect();
    return { x, y, width, height };
  });
  const to: [number, number] = [box.x + share.x * box.width, box.y + share.y * box.height];
  await drag(page, await middle(page, `[data-handle="${handle}"]`), to);
}
const near = (point: { x: number; y: number }, x: number, y: number): void => {
  expect(point.x).toBeCloseTo(x, 1);
  expect(point.y).toBeCloseTo(y, 1);
};

describe('a gradient on the stage', () => {
  it('is turned and stretched by its ends, slid by its line, and its inner stops run along it', async () => {
    const three = gradientOf(sunset());
    const stops = [...three.stops, { colour: '#f3c14b', at: 0.5, opacity: 1 } as const];
    await open([panel([gradientFill('g', { ...three, stops })])]);
    await choose('Panel');
    await pull('gradient-from', { x: 0, y: 0.5 });
    await pull('gradient-to', { x: 0.8, y: 0.5 });
    let held = gradientOf(topOf(await shapeNow('Panel')));
    near(held.from, 0, 0.5);
    near(held.to, 0.8, 0.5);
    await pull('gradient-stop-2', { x: 0.2, y: 0.9 });
    held = gradientOf(topOf(await shapeNow('Panel')));
    expect(held.stops[2]?.at).toBeCloseTo(0.25, 1);
    await press(page, 'Undo');
    expect(gradientOf(topOf(await shapeNow('Panel'))).stops[2]?.at).toBe(0.5);
  });

  it('lies where the shape is turned to', async () => {
    // Turned by 90° the frame's top lies at the right: the start of the gradient is to be found there.
    await open([panel([sunset()], { rotation: 90 })]);
    await choose('Panel');
    const [x] = await middle(page, '[data-handle="gradient-from"]');
    const [to] = await middle(page, '[data-handle="gradient-to"]');
    expect(x).toBeGreaterThan(to + 100);
    await pull('gradient-to', { x: 0.5, y: 0.5 });
    near(gradientOf(topOf(await shapeNow('Panel'))).to, 0.5, 0.5);
  });

  it('over motifs and of a mask is steered while its panel stays open', async () => {
    await open([panel([dots()])]);
    await choose('Panel');
    await press(page, 'Gradient over motifs: none');
    await press(page, 'Add a gradient');
    await pull('gradient-to', { x: 0.9, y: 0.1 });
    expect(await page.$('.wash')).not.toBeNull();
    near((topOf(await shapeNow('Panel')) as PatternFill).wash?.to ?? { x: 0, y: 0 }, 0.9, 0.1);
    await page.keyboard.press('Escape');
    expect(await page.$('[data-handle="gradient-to"]')).toBeNull();
    await press(page, 'Soft mask: none');
    await press(page, 'Gradient', '.panel button');
    await pull('gradient-from', { x: 0.3, y: 0.8 });
    const { mask } = topOf(await shapeNow('Panel'));
    near(mask?.kind === 'gradient' ? mask.gradient.from : { x: 0, y: 0 }, 0.3, 0.8);
    expect(await page.$('.mask')).not.toBeNull();
  });
});

describe('a painted mask', () => {
  it('is scaled, turned and moved by numbers, on the stage as in PNG', async () => {
    const strokes = [
      { mode: 'erase', size: 90, softness: 0.5, strength: 1, points: [120, 150, 300, 150] },
    ] as const;
    const mask = { kind: 'painted', matrix: IDENTITY, strokes } as const;
    await open([panel([{ ...dots(), mask }])], { width: 560, height: 370 });
    await choose('Panel');
    await press(page, 'Soft mask: masked');
    await enter(page, 'Turn of the mask', '90');
    await enter(page, 'Scale of the mask', '150');
    const laid = topOf(await shapeNow('Panel')).mask;
    // The frame's middle stays: the stroke runs down through it now, half as long again.
    const { matrix } = laid?.kind === 'painted' ? laid : { matrix: IDENTITY };
    const [start, end] = [apply(matrix, { x: 120, y: 150 }), apply(matrix, { x: 300, y: 150 })];
    expect(end.x).toBeCloseTo(start.x, 6);
    expect(end.y - start.y).toBeCloseTo(270, 6);
    expect(apply(matrix, { x: 200, y: 150 })).toEqual({
      x: expect.closeTo(200, 6),
      y: expect.closeTo(150, 6),
    });
    // Once for the panel; what follows lets the selection go.
    await page.keyboard.press('Escape');
    await page.focus('.stage');
    const stage = await stagePixels(560, 370);
    const png = PNG.sync.read(await exportPng(layoutId(), 96));
    expect(differing(stage, png, 24)).toBeLessThan(0.01);
  });
});

describe('the ledger', () => {
  it('opens a shape’s fills as rows; each has numbers of its own and is worked on by keyboard', async () => {
    await open([panel([colourFill('c', { colour: '#e9e2d0' }), dots()])]);
    await press(page, 'Show the 2 fills of Panel');
    await enter(page, 'Opacity of Panel, fill 2', '40');
    await enter(page, 'Scale of Panel, fill 1', '150');
    const { fills } = await shapeNow('Panel');
    expect(fills).toMatchObject([
      { kind: 'colour', opacity: 0.4 },
      { kind: 'pattern', opacity: 1, scaleX: 1.5, scaleY: 1.5 },
    ]);
    await page.focus('tr[aria-selected]');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    await page.waitForSelector('tr.one[aria-selected="true"]');
    expect(await page.$eval('.stack .chip[aria-pressed="true"]', (chip) => chip.textContent)).toContain(
      '#e9e2d0',
    );
    expect(await page.evaluate(() => document.activeElement?.textContent)).toContain('fill 2 of 2');
  });
});

describe('by keyboard', () => {
  it('goes from stage to fill bar to ledger and back, and changes what is there', async () => {
    await open([panel([dots()])]);
    await choose('Panel');
    await page.focus('.stage');
    const held = (): Promise<string> =>
      page.evaluate(
        () =>
          document.activeElement
            ?.closest('.stage, .tools, .bar, .ledger, .hangers-box')
            ?.className.split(' ')[0] ?? 'none',
      );
    const seen = [await held()];
    for (const shift of [false, false, false, false, false, true, true, true]) {
      if (shift) await page.keyboard.down('Shift');
      await page.keyboard.press('F6');
      if (shift) await page.keyboard.up('Shift');
      seen.push(await held());
    }
    const parts = ['stage', 'tools', 'bar', 'ledger', 'hangers-box'];
    expect(seen).toEqual([...parts, 'stage', 'hangers-box', 'ledger', 'bar']);
    // The first number of the bar is the scale: it takes keys at once.
    await page.keyboard.press('ArrowUp');
    expect(topOf(await shapeNow('Panel'))).toMatchObject({ scaleX: 1.01, scaleY: 1.01 });
  });
});

describe('a drawing from an SVG file', () => {
  it('becomes shapes with its colours, in one group', async () => {
    const file = join(folder, 'badge.svg');
    writeFileSync(
      file,
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 60"><g transform="translate(10 5)">
        <rect width="40" height="50" fill="#0d5a50"/><circle cx="65" cy="25" r="15" style="fill:#e5572e"/></g></svg>`,
    );
    await open([]);
    await give('Picture or drawing file', file);
    await rowShown('badge');
    await page.waitForFunction(() => document.querySelectorAll('[data-shape]').length === 2);
    await stagePixels(560, 440);
    const colours = await page.$$eval('[data-shape] path', (paths) =>
      paths.map((path) => path.getAttribute('fill')),
    );
    expect(colours).toEqual(expect.arrayContaining(['#0d5a50', '#e5572e']));
    await press(page, 'Undo');
    await page.waitForFunction(() => document.querySelectorAll('[data-shape]').length === 0);
    await saved(page);
  });

  it('that is none gets a sentence', async () => {
    const file = join(folder, 'broken.svg');
    writeFileSync(file, '<svg xmlns="http://www.w3.org/2000/svg"><rect width="10"');
    await give('Picture or drawing file', file);
    const said = await page.waitForFunction(() => document.querySelector('.toasts')?.textContent?.trim());
    expect(await said.jsonValue()).toMatch(/broken\.svg/);
  });
});

describe('a page of many shapes', () => {
  /** 130 discs that overlap, so that their order shows, every seventh see-through. */
  const discs = (blend: 'normal' | 'multiply'): Shape[] =>
    Array.from({ length: 130 }, (_, index) =>
      freshShape({
        ...{ id: `s${index}`, name: `Disc ${index}`, form: { kind: 'ellipse' } },
        ...{ x: 20 + (index % 13) * 24, y: 16 + Math.floor(index / 13) * 22, width: 34, height: 34 },
        fills: [
          {
            ...colourFill(`f${index}`, {
              colour: ['#0d5a50', '#e5572e', '#f3c14b'][index % 3] as `#${string}`,
            }),
            opacity: index % 7 === 0 ? 0.5 : 1,
            blend: index === 100 ? blend : 'normal',
          },
        ],
      }),
    );

  it.each(['normal', 'multiply'] as const)(
    'looks on the stage as in PNG, with a %s fill in it',
    async (blend) => {
      await open(discs(blend), { width: 380, height: 270 });
      const drawings = await page.$$eval('.stage .run', (found) => found.length);
      expect(drawings).toBe(blend === 'normal' ? 3 : 1);
      const stage = await stagePixels(380, 270);
      const png = PNG.sync.read(await exportPng(layoutId(), 96));
      expect(differing(stage, png, 24)).toBeLessThan(0.01);
    },
  );
});
