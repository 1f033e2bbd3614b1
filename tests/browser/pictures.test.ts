import { Resvg } from '@resvg/resvg-js';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seededRandom } from '../../src/lib/core/num/random';
import type { PatternFill } from '../../src/lib/core/recipe/fill';
import { scaling, translation, multiply } from '../../src/lib/core/geom/affine';
import { startMeasured } from '../../src/lib/core/recipe/measured';
import type { MeasuredRecipe, Motif, Recipe, Stroke } from '../../src/lib/core/recipe/recipe';
import { drawingOf, pictureElement } from '../../src/lib/core/scene/drawing';
import type { Shape } from '../../src/lib/core/recipe/layout';
import { layoutSvg } from '../../src/lib/core/svg/layout';
import type { FoundPatterns, ProjectDetail, ProjectSummary } from '../../src/lib/contract/data';
import { exportPng, layoutWith, must, publishedPattern } from '../support/api';
import { at, openBrowser, pixelAt, pixelsOf, still, visit, type Session } from '../support/browser';
import { picturePattern, planeRepeats } from '../support/picture-patterns';
import { pictureAsset } from '../support/pictures';
import { texture } from '../support/rasters';
import { block, dot, drawing, place, recipe } from '../support/recipes';
import { tiledOf } from '../../src/lib/core/draw/list';
import { filledPage, filledShape } from '../support/scenes';

/** What the bench's checks say of a row. */
const checked = (page: Session['page'], label: string): Promise<string> =>
  page
    .waitForFunction(
      (wanted) =>
        [...document.querySelectorAll('.rows > .muted')].find((one) => one.textContent === wanted)
          ?.nextElementSibling?.textContent,
      {},
      label,
    )
    .then(async (handle) => String(await handle.jsonValue()));

/** Three bands of one colour that leave nothing open, at an angle of their own. */
function bandsOfOneColour(): MeasuredRecipe {
  const { slots } = recipe();
  const bands = [40, 25, 35].map((width) => ({ width, slot: 'ink' }));
  const measured = { ...startMeasured('bands', ['ink']), numbers: { angle: 17 }, bands };
  return { kind: 'measured', version: 2, measure: 'px', measured, ground: { kind: 'clear' }, slots };
}

let session: Session;
beforeAll(async () => {
  session = await openBrowser(1400, 1000);
});
afterAll(() => session.close());

describe('art that ends at mirror lines', () => {
  it.each([0, 17, 90])('comes out as PNG whatever it is cut by, turned by %i°', async (rotation) => {
    const stroke: Stroke = { slot: 'ink', width: 260, cap: 'butt', join: 'miter', miterLimit: 4, dashes: [] };
    const d = `M-180 0${Array.from({ length: 30 }, (_, at) => `L${at * 12 - 168} ${at % 2}`).join('')}`;
    const long: Motif = {
      ...drawing('long', d),
      content: {
        kind: 'drawing',
        asset: null,
        width: 10,
        height: 10,
        elements: [{ d, fill: null, fillRule: 'nonzero', stroke, opacity: 1 }],
      },
    };
    const drop = { slot: 'ink', angle: 30, distance: 9, blur: 4, opacity: 0.5 };
    const of = recipe({
      unit: { width: 60, height: 60 },
      repeat: { kind: 'group', group: 'p4mm', slant: 0, cut: true },
      motifs: [long, { ...dot('shaded', 20, 'paper'), effects: { drop } }],
      placings: [
        place('long', 10, 22),
        place('long', 22, 24, { opacity: 0.6 }),
        place('shaded', 12, 20, { opacity: 0.7 }),
      ],
    });
    const fill = { pattern: await publishedPattern(of), rotation, scaleX: 1.3, scaleY: 1.3 };
    const layout = await layoutWith([filledShape({ x: 0, y: 0, width: 400, height: 700 }, fill)], {
      width: 400,
      height: 700,
    });
    const png = PNG.sync.read(await exportPng(layout.id, 96));
    // Ink lies below everywhere, and on it dots that are white by 70 %: nowhere does the page shine through.
    let palest = 0;
    for (let y = 8; y < 692; y += 1)
      for (let x = 8; x < 392; x += 1) palest = Math.max(palest, pixelAt(png, x, y)[0]!);
    expect(palest).toBeGreaterThan(150);
    expect(palest).toBeLessThanOrEqual(190);
  });
});

describe('a large picture', () => {
  it('is sent smaller where it is asked for so, and never larger than it is', async () => {
    const { asset } = await pictureAsset(600, 300, (x, y) => [x / 3, y / 2, 90, x < 300 ? 255 : 0]);
    const sized = async (query: string): Promise<{ width: number; height: number; alpha: boolean }> => {
      const answer = await fetch(at(`/api/v1/motifs/${asset}${query}`));
      expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'image/png']);
      expect(answer.headers.get('cache-control')).toContain('immutable');
      const { width, height, hasAlpha } = await sharp(Buffer.from(await answer.arrayBuffer())).metadata();
      return { width, height, alpha: hasAlpha };
    };
    expect(await sized('')).toEqual({ width: 600, height: 300, alpha: true });
    expect(await sized('?side=256')).toEqual({ width: 256, height: 128, alpha: true });
    expect(await sized('?side=1024')).toEqual({ width: 600, height: 300, alpha: true });
    for (const query of ['?side=300', '?side=999999', '?side=256&look=h40'])
      expect((await fetch(at(`/api/v1/motifs/${asset}${query}`))).status).toBe(400);
  });

  it('has its joins measured on the bench, and the place that tells its unit pointed out', async () => {
    const { page } = session;
    const grain = texture(300, 240, 6, { light: 0 });
    // Darker to the right, and lighter at one place of the left edge; over the upper and lower edge it goes on.
    const photo = await pictureAsset(300, 240, (x, y) => {
      const shade = x / 4 + (x < 20 && Math.abs(y - 60) < 25 ? -60 : 0);
      return [0, 1, 2].map((channel) => grain.data[(y * 300 + x) * 4 + channel]! - shade).concat(255);
    });
    const pattern = picturePattern({ kind: 'straight' }, { width: 300, height: 240 }, photo.asset);
    await visit(page, `/library/${await publishedPattern(pattern)}/bench`);
    expect(await checked(page, 'Join of pictures')).toMatch(/^plain, \d/);
    expect(await checked(page, 'Unit found')).toMatch(/^(faint|plain), \d/);
    await page.waitForSelector('.rows [role="img"]');
    await page.click('[title="Join of pictures: show where"]');
    const circles = await page.$$eval('circle.pointed.own', (found) =>
      found.map((one) => Number(one.getAttribute('r'))),
    );
    expect(circles).toHaveLength(1);
    expect(await page.$$('path.pointed.own')).toHaveLength(1);
    const [x, y] = await page.$eval('circle.pointed.own', (one) => {
      const { left, width, top, height } = one.getBoundingClientRect();
      return [left + width / 2, top + height / 2];
    });
    const view = (await (await page.$('.unit-view'))!.boundingBox())!;
    // Out of sight it is brought back.
    expect([x! > view.x, x! < view.x + view.width, y! > view.y, y! < view.y + view.height]).toEqual([
      ...[true, true, true, true],
    ]);
    await page.click('[title="What tells the unit most: show where"]');
    expect(await page.$$('path.pointed.own')).toHaveLength(0);
    expect(await page.$$('circle.pointed.own')).toHaveLength(1);

    // Turned over at its edges the same picture meets itself.
    const mirrored = picturePattern({ kind: 'mirror' }, { width: 300, height: 240 }, photo.asset);
    await visit(page, `/library/${await publishedPattern(mirrored)}/bench`);
    expect(await checked(page, 'Join of pictures')).toMatch(/^none, \d/);
  });

  it('comes to the bench as large as it is seen there, and larger when one comes nearer', async () => {
    const { page } = session;
    const picture = await pictureAsset(2000, 1600, (x, y) => [x / 8, y / 7, 90, 255]);
    const motif: Motif = {
      id: 'large',
      name: 'Large',
      content: drawingOf([pictureElement({ ...picture, matrix: scaling(0.1) })], null),
    };
    const id = await publishedPattern(
      recipe({
        unit: { width: 400, height: 300 },
        motifs: [motif],
        placings: [place('large', 200, 150), place('large', 100, 80, { scaleX: 0.5, scaleY: 0.5 })],
      }),
    );
    await visit(page, `/library/${id}/bench`);
    await still(page);
    const sides = (): Promise<number[]> =>
      page.$$eval('.unit-view image', (all) =>
        all.map((one) => Number(/side=(\d+)/.exec(one.getAttribute('href') ?? '')?.[1] ?? 0)),
      );
    // 200 px of the unit, at 200 % in the sizes below it.
    expect([...new Set(await sides())]).toEqual([512]);
    expect(
      await page.$$eval('.list image, aside image', (all) =>
        all.every((one) => one.getAttribute('href')?.endsWith('side=128')),
      ),
    ).toBe(true);
    const box = (await (await page.$('.unit-view'))!.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.keyboard.down('Control');
    for (let step = 0; step < 12; step += 1) await page.mouse.wheel({ deltaY: -240 });
    await page.keyboard.up('Control');
    await page.waitForFunction(
      () =>
        ![...document.querySelectorAll('.unit-view image')].some((one) =>
          one.getAttribute('href')?.includes('side=512'),
        ),
    );
    expect(Math.min(...(await sides()).map((side) => side || 2000))).toBeGreaterThan(512);
  });
});

/** Shows SVG text alone in the browser at its own size and takes its pixels. */
async function inChromium(svg: string, width: number, height: number): Promise<PNG> {
  const { page } = session;
  await page.goto('about:blank');
  await page.setContent(`<style>body{margin:0}svg{display:block}</style>${svg}`);
  return pixelsOf(page, { x: 0, y: 0, width, height });
}

/** The share of pixels of which a channel differs by more than `more`. */
function differing(one: { data: Uint8Array }, other: { data: Uint8Array }, more: number): number {
  let count = 0;
  for (let from = 0; from < one.data.length; from += 4)
    if (
      [0, 1, 2].some(
        (channel) => Math.abs((one.data[from + channel] ?? 0) - (other.data[from + channel] ?? 0)) > more,
      )
    )
      count += 1;
  return (count * 4) / one.data.length;
}

/** 200 squares of a page, each filled at a random scale, rotation and offset. */
const SIDE = 58;
const COLUMNS = 20;
function manyFills(pattern: string): Shape[] {
  const random = seededRandom(21);
  return Array.from({ length: 200 }, (_, index): Shape => {
    const scale = 0.1 * 70 ** random();
    const fill: Partial<PatternFill> = {
      pattern,
      scaleX: scale,
      scaleY: scale,
      rotation: random() * 360 - 180,
      offset: { x: random() * 100, y: random() * 100 },
    };
    const box = {
      x: (index % COLUMNS) * SIDE,
      y: Math.floor(index / COLUMNS) * SIDE,
      width: SIDE,
      height: SIDE,
    };
    return filledShape(box, fill);
  });
}

/** The largest difference from a colour inside all squares, four pixels from their edges. */
function worstInside(picture: PNG, left: number, top: number, colour: number[]): number {
  let worst = 0;
  for (let index = 0; index < 200; index += 1) {
    const x0 = left + (index % COLUMNS) * SIDE;
    const y0 = top + Math.floor(index / COLUMNS) * SIDE;
    for (let y = y0 + 4; y < y0 + SIDE - 4; y += 1)
      for (let x = x0 + 4; x < x0 + SIDE - 4; x += 1)
        pixelAt(picture, x, y).forEach(
          (value, channel) => (worst = Math.max(worst, Math.abs(value - (colour[channel] ?? 0)))),
        );
  }
  return worst;
}

// The acceptance of the product for all three outputs: largest deviation ≤ 2/255 at 200 random scales and rotations.
describe('a unit covered edge to edge is solid', () => {
  const INK = [0x10, 0x20, 0x30];
  const art: [string, Recipe][] = [
    ['one block', recipe({ motifs: [block('b', 100, 100)], placings: [place('b', 50, 50)] })],
    [
      'halves laid in brick',
      recipe({
        repeat: { kind: 'brick', step: 0.5, run: 'progressive' },
        motifs: [block('b', 50, 100)],
        placings: [place('b', 25, 50), place('b', 75, 50)],
      }),
    ],
    [
      'two triangles',
      recipe({
        motifs: [drawing('t', 'M-50-50L50-50L-50 50Z'), drawing('u', 'M50-50L50 50L-50 50Z')],
        placings: [place('t', 50, 50), place('u', 50, 50)],
      }),
    ],
    ['bands from numbers', bandsOfOneColour()],
  ];

  it.each(art)('on the stage, as live SVG in Chromium, and as PNG: %s', async (_name, unit) => {
    const worst = await worstEverywhere(await publishedPattern(unit), INK, ['live']);
    expect(Math.max(...Object.values(worst)), JSON.stringify(worst)).toBeLessThanOrEqual(2);
  });

  // Fails where each picture's edge is anti-aliased on its own: the ground shone through, up to 69/255 in a PNG.
  // All repeats that a PNG samples are checked against the definition in `plane.test.ts`; here those that differ in a browser.
  it.each(['brick', 'alternating', 'mirror'])(
    'made of pictures, on the stage, as live and expanded SVG, and as PNG: %s',
    async (name) => {
      const size = { width: 50, height: 40 };
      const { asset } = await pictureAsset(size.width, size.height, () => [...INK, 255]);
      const pattern = await publishedPattern(picturePattern(planeRepeats[name]!, size, asset));
      const { expanded, ...others } = await worstEverywhere(pattern, INK, ['live', 'expanded']);
      expect(Math.max(...Object.values(others)), JSON.stringify(others)).toBeLessThanOrEqual(2);
      // Up to eight edges lie over each other at a corner, and the browser rounds each of them to eight bits.
      expect(expanded).toBeLessThanOrEqual(4);
    },
  );

  /** The largest difference from a colour in each output of 200 fills of a pattern. */
  async function worstEverywhere(
    pattern: string,
    colour: number[],
    files: ('live' | 'expanded')[],
  ): Promise<Record<string, number>> {
    const layout = await layoutWith(manyFills(pattern), { width: COLUMNS * SIDE, height: 10 * SIDE });
    const worst: Record<string, number> = { stage: await worstOnStage(layout.path, colour) };
    for (const file of files) {
      const svg = await (await fetch(at(`/api/v1/layouts/${layout.id}/svg?patterns=${file}`))).text();
      worst[file] = worstInside(await inChromium(svg, COLUMNS * SIDE, 10 * SIDE), 0, 0, colour);
    }
    worst.png = worstInside(PNG.sync.read(await exportPng(layout.id, 96)), 0, 0, colour);
    return worst;
  }

  async function worstOnStage(path: string, colour: number[]): Promise<number> {
    const { page } = session;
    await visit(page, path);
    await page.keyboard.press('1');
    await still(page);
    const origin = await page.evaluate(() => {
      const paper = document.querySelector('[data-paper]')?.getBoundingClientRect();
      const stage = document.querySelector('.stage')?.getBoundingClientRect();
      return {
        x: paper?.left ?? 0,
        y: paper?.top ?? 0,
        right: stage?.right ?? 0,
        bottom: stage?.bottom ?? 0,
      };
    });
    const stage = await pixelsOf(page);
    let worst = 0;
    let seen = 0;
    for (let index = 0; index < 200; index += 1) {
      const x0 = origin.x + (index % COLUMNS) * SIDE;
      const y0 = origin.y + Math.floor(index / COLUMNS) * SIDE;
      // Squares under the tools or outside the stage are judged in the files below.
      if (x0 < 240 || x0 + SIDE > origin.right || y0 < 100 || y0 + SIDE > origin.bottom) continue;
      seen += 1;
      for (let y = y0 + 4; y < y0 + SIDE - 4; y += 1)
        for (let x = x0 + 4; x < x0 + SIDE - 4; x += 1)
          pixelAt(stage, x, y).forEach(
            (value, channel) => (worst = Math.max(worst, Math.abs(value - (colour[channel] ?? 0)))),
          );
    }
    expect(seen).toBeGreaterThan(100);
    return worst;
  }
});

describe('one drawing in three engines', () => {
  const free = recipe({
    unit: { width: 90, height: 70 },
    repeat: { kind: 'brick', step: 0.5, run: 'progressive' },
    ground: { kind: 'slot', slot: 'paper' },
    motifs: [dot('d', 36), drawing('t', 'M0-20L17 10L-17 10Z')],
    placings: [place('d', 20, 20), place('t', 64, 48, { rotation: 20 })],
  });
  const SIZE = 400;
  const fills: [string, Partial<PatternFill>][] = [
    ['at its own size', {}],
    ['turned and scaled', { scaleX: 1.37, scaleY: 1.37, rotation: 31, offset: { x: 11, y: 7 } }],
    ['small, stretched and skewed', { scaleX: 0.6, scaleY: 0.45, rotation: -12, skew: 15 }],
  ];
  const svgOf = (fill: Partial<PatternFill>, patterns: 'live' | 'expanded'): string =>
    layoutSvg(filledPage(free, SIZE, fill), {
      patterns,
      width: String(SIZE),
      height: String(SIZE),
      scale: 1,
    });
  const inResvg = (svg: string): { data: Uint8Array } => ({ data: new Resvg(svg).render().pixels });
  const inLibrsvg = async (svg: string): Promise<{ data: Uint8Array }> => ({
    data: await sharp(Buffer.from(svg)).ensureAlpha().raw().toBuffer(),
  });

  // SVG 2, "pattern": patternUnits, patternTransform and href inheritance, as resvg, librsvg (through sharp) and Chromium read them.
  it.each(fills)('live patterns mean the same in Chromium, resvg and librsvg: %s', async (_name, fill) => {
    const svg = svgOf(fill, 'live');
    const chromium = await inChromium(svg, SIZE, SIZE);
    // resvg draws a live pattern through a raster tile, which blurs a skewed one; its place is judged below.
    expect(differing(chromium, inResvg(svg), 100), 'resvg').toBeLessThan(fill.skew ? 0.06 : 0.01);
    expect(differing(chromium, await inLibrsvg(svg), 100), 'librsvg').toBeLessThan(0.01);
  });

  // Placed by position: the middle of each engine's ink in a window of one unit lies at the same point.
  it('and lie at the same place', async () => {
    const svg = svgOf(fills[1]?.[1] ?? {}, 'live');
    const engines = [await inChromium(svg, SIZE, SIZE), inResvg(svg), await inLibrsvg(svg)];
    const [first, ...others] = engines.map((picture) =>
      inkMiddle(picture, SIZE, { x: 120, y: 120, side: 150 }),
    );
    for (const other of others)
      expect(Math.hypot((first?.x ?? 0) - (other?.x ?? 99), (first?.y ?? 0) - (other?.y ?? 99))).toBeLessThan(
        0.25,
      );
  });

  it.each(fills)('expanded shapes are the live pattern: %s', async (_name, fill) => {
    const chromium = await inChromium(svgOf(fill, 'live'), SIZE, SIZE);
    const expanded = svgOf(fill, 'expanded');
    expect(differing(chromium, await inChromium(expanded, SIZE, SIZE), 100), 'Chromium').toBeLessThan(0.005);
    expect(differing(chromium, inResvg(expanded), 100), 'resvg').toBeLessThan(0.005);
    expect(differing(chromium, await inLibrsvg(expanded), 100), 'librsvg').toBeLessThan(0.005);
  });

  // A direct analytic sampler: what colour a point has follows from the recipe alone.
  it.each(fills)('and both are what the recipe says, point by point: %s', async (_name, fill) => {
    const scene = filledPage(free, SIZE, fill);
    const { a, b, c, d, e, f } = scene.shapes.flatMap(tiledOf)[0]!.matrix;
    const det = a * d - b * c;
    const picture = inResvg(svgOf(fill, 'expanded'));
    const random = seededRandom(2);
    let wrong = 0;
    for (let count = 0; count < 3000; count += 1) {
      const px = Math.floor(random() * SIZE);
      const py = Math.floor(random() * SIZE);
      const [x, y] = [px + 0.5 - e, py + 0.5 - f];
      const inside = inkAt((d * x - c * y) / det, (a * y - b * x) / det);
      const dark = (picture.data[(py * SIZE + px) * 4] ?? 0) < 136;
      if (inside !== dark) wrong += 1;
    }
    expect(wrong / 3000).toBeLessThan(0.01);
  });

  /** The brick of `free`, from its numbers: a dot of 36 at (20, 20), a triangle at (64, 48) turned 20°. */
  function inkAt(x: number, y: number): boolean {
    for (let row = -2; row <= 2; row += 1) {
      const j = Math.floor(y / 70) + row;
      for (let column = -2; column <= 2; column += 1) {
        const i = Math.floor((x - 45 * j) / 90) + column;
        const [u, v] = [x - 90 * i - 45 * j, y - 70 * j];
        if (Math.hypot(u - 20, v - 20) <= 18) return true;
        const turn = (-20 * Math.PI) / 180;
        const [p, q] = [
          (u - 64) * Math.cos(turn) - (v - 48) * Math.sin(turn),
          (u - 64) * Math.sin(turn) + (v - 48) * Math.cos(turn),
        ];
        if (q <= 10 && q >= -20 + (30 / 17) * Math.abs(p)) return true;
      }
    }
    return false;
  }
});

describe('shadows, pictures, gradients and clips', () => {
  const SIZE = 360;
  const shadow = { slot: 'ink', angle: 45, distance: 8, blur: 3, opacity: 0.6 };
  const relief = { angle: 225, height: 3, softness: 2, strength: 0.7 };
  const raised = (motif: Motif): Motif => ({ ...motif, effects: { drop: shadow, relief } });
  const slots = [
    { id: 'ink', name: 'Ink', colour: '#102030' },
    { id: 'paper', name: 'Paper', colour: '#ffffff' },
    { id: 'sand', name: 'Sand', colour: '#e0b060' },
  ];
  const ground = { kind: 'slot' as const, slot: 'paper' };

  async function compared(of: Recipe, fill: Partial<PatternFill>, tolerance: number): Promise<number> {
    const pattern = await publishedPattern(of);
    const shape = filledShape({ x: 0, y: 0, width: SIZE, height: SIZE }, { ...fill, pattern });
    const layout = await layoutWith([shape], { width: SIZE, height: SIZE });
    const png = PNG.sync.read(await exportPng(layout.id, 96));
    const live = await (await fetch(at(`/api/v1/layouts/${layout.id}/svg?patterns=live`))).text();
    return differing(png, await inChromium(live, SIZE, SIZE), tolerance);
  }

  it.each<[string, Partial<PatternFill>]>([
    ['at its own size', {}],
    ['turned and scaled', { scaleX: 1.4, scaleY: 1.4, rotation: 25 }],
  ])('come out in a PNG as in the browser, %s', async (_name, fill) => {
    const disc = raised(dot('disc', 50, 'sand'));
    const clipped = drawing('clipped', 'M-30 -30H30V30H-30Z', 'sand');
    if (clipped.content.kind !== 'drawing') throw new Error('no drawing');
    const [element] = clipped.content.elements;
    if (!element) throw new Error('no element');
    element.clip = { d: 'M0 -28L28 20H-28Z', rule: 'nonzero' };
    element.fill = {
      kind: 'linear',
      matrix: multiply(translation(-30, 0), scaling(60)),
      spread: 'pad',
      stops: [
        { at: 0, slot: 'sand', opacity: 1 },
        { at: 1, slot: 'ink', opacity: 0.5 },
      ],
    };
    const of = recipe({
      unit: { width: 130, height: 110 },
      repeat: { kind: 'half-drop', step: 0.5, run: 'progressive' },
      slots,
      ground,
      motifs: [disc, clipped],
      // Both cross an edge of the unit.
      placings: [place('disc', 4, 50), place('clipped', 70, 108, { opacity: 0.8 })],
    });
    expect(await compared(of, fill, 60)).toBeLessThan(0.02);
  });

  it('wraps a shadow over the edge of the unit: it is the same one unit further', async () => {
    const of = recipe({
      unit: { width: 90, height: 90 },
      slots,
      ground,
      motifs: [raised(dot('disc', 40, 'sand'))],
      placings: [place('disc', 88, 88)],
    });
    const pattern = await publishedPattern(of);
    const shape = filledShape({ x: 0, y: 0, width: SIZE, height: SIZE }, { pattern });
    const layout = await layoutWith([shape], { width: SIZE, height: SIZE });
    const png = PNG.sync.read(await exportPng(layout.id, 96));
    let worst = 0;
    for (let y = 100; y < 170; y += 1)
      for (let x = 100; x < 170; x += 1)
        pixelAt(png, x, y).forEach((value, channel) => {
          worst = Math.max(worst, Math.abs(value - (pixelAt(png, x + 90, y + 90)[channel] ?? 0)));
        });
    expect(worst).toBeLessThanOrEqual(2);
    // Lower right of the disc, beyond its own edge and beyond the unit's corner, the shadow darkens the ground.
    expect(pixelAt(png, 88 + 19, 88 + 19)[0]).toBeLessThan(200);
  });

  it('draws pictures edge to edge without a line, small, turned and enlarged', async () => {
    const bytes = await sharp({ create: { width: 64, height: 64, channels: 3, background: '#8090a0' } })
      .png()
      .toBuffer();
    const answer = await fetch(at('/api/v1/motifs/pictures'), {
      method: 'POST',
      headers: { 'content-type': 'image/png', 'x-file-name': 'flat.png' },
      body: new Uint8Array(bytes),
    });
    const { asset } = (await answer.json()) as { asset: string };
    const matrix = translation(-32, -32);
    const picture = pictureElement({ asset, width: 64, height: 64, matrix });
    const of = recipe({
      unit: { width: 64, height: 64 },
      motifs: [{ id: 'p', name: 'p', content: drawingOf([picture]) }],
      placings: [place('p', 32, 32)],
    });
    const pattern = await publishedPattern(of);
    for (const [scale, rotation] of [
      [0.31, 17],
      [1.7, 45],
      [3.3, 80],
    ] as const) {
      const fill = { pattern, scaleX: scale, scaleY: scale, rotation };
      const layout = await layoutWith([filledShape({ x: 0, y: 0, width: 200, height: 200 }, fill)], {
        width: 200,
        height: 200,
      });
      const png = PNG.sync.read(await exportPng(layout.id, 96));
      let worst = 0;
      for (let y = 3; y < 197; y += 1)
        for (let x = 3; x < 197; x += 1)
          pixelAt(png, x, y).forEach((value, channel) => {
            worst = Math.max(worst, Math.abs(value - [0x80, 0x90, 0xa0][channel]!));
          });
      expect(worst, `${scale} at ${rotation}°`).toBeLessThanOrEqual(2);
    }
  });

  it('survives a small shape over a very large unit of see-through and raised pieces', async () => {
    const of = recipe({
      unit: { width: 4000, height: 4000 },
      slots,
      ground,
      motifs: [raised(dot('disc', 300, 'sand'))],
      placings: [place('disc', 100, 100, { opacity: 0.5 }), place('disc', 3900, 3000, { id: 'far' })],
    });
    const pattern = await publishedPattern(of);
    const shapes = [filledShape({ x: 5, y: 5, width: 20, height: 12 }, { pattern, scaleX: 2, scaleY: 2 })];
    const layout = await layoutWith(shapes, { width: 40, height: 30 });
    expect(PNG.sync.read(await exportPng(layout.id, 96)).width).toBe(40);
  });
});

describe('the demo', () => {
  it('has layouts whose PNG is their SVG in the browser, but for edges', async () => {
    const projects = await must<ProjectSummary[]>('GET', '/projects');
    for (const { id, name } of projects.filter((project) => /Lido|Ferry|Fair/.test(project.name))) {
      const project = await must<ProjectDetail>('GET', `/projects/${id}`);
      for (const layout of project.layoutList) {
        const ppi = (96 * 500) / Math.max(layout.width, layout.height);
        const png = PNG.sync.read(await exportPng(layout.id, ppi));
        const svg = await (await fetch(at(`/api/v1/layouts/${layout.id}/svg?patterns=expanded`))).text();
        const sized = svg.replace(
          /width="[^"]*" height="[^"]*"/,
          `width="${png.width}" height="${png.height}"`,
        );
        const share = differing(png, await inChromium(sized, png.width, png.height), 110);
        expect(share, `${name} / ${layout.name}`).toBeLessThan(0.02);
      }
    }
  });

  it('has at least 12 patterns, three projects, five layouts, and two patterns shared by two projects', async () => {
    const { patterns } = await must<FoundPatterns>('GET', '/patterns');
    const demo = patterns.filter((pattern) => pattern.description !== '');
    expect(demo.length).toBeGreaterThanOrEqual(12);
    expect(demo.filter((pattern) => pattern.projects >= 2).length).toBeGreaterThanOrEqual(2);
  });
});

function inkMiddle(
  picture: { data: Uint8Array },
  width: number,
  area: { x: number; y: number; side: number },
): { x: number; y: number } {
  let [weight, sumX, sumY] = [0, 0, 0];
  for (let y = area.y; y < area.y + area.side; y += 1)
    for (let x = area.x; x < area.x + area.side; x += 1) {
      const ink = 255 - (picture.data[(y * width + x) * 4] ?? 255);
      weight += ink;
      sumX += ink * x;
      sumY += ink * y;
    }
  return { x: sumX / weight, y: sumY / weight };
}
