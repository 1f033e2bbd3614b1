import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { block, dot, place, recipe } from '../../../../tests/support/recipes';
import { filledPage, filledShape } from '../../../../tests/support/scenes';
import { maskPicture } from '../../core/formats/mask-picture';
import { apply } from '../../core/geom/affine';
import { colourFill, freshFill, coveringPicture } from '../../core/recipe/fill';
import { freshMask } from '../../core/recipe/mask';
import { freshPage, freshShape, type Layout, type Shape } from '../../core/recipe/layout';
import type { ComposedRecipe } from '../../core/recipe/recipe';
import { lowerLayout } from '../../core/draw/lower';
import { compiledPattern } from '../../core/scene/pattern';
import { tiledOf, type DisplayList, type TiledItem } from '../../core/draw/list';
import { withBleed } from '../../core/draw/reframe';
import { compileUnit } from '../../core/scene/unit';
import { layoutSvg } from '../../core/svg/layout';
import { renderPng, type PngOptions, type PngSize } from './png';
import { inlinePool, type RenderPool } from './pool';
import { pictureLookup, picturesNeeded } from './pictures-needed';
import { bandSteps } from './steps';
import { isFine, tileOf } from './tile';

const dots = (over: Partial<ComposedRecipe> = {}): ComposedRecipe =>
  recipe({
    ground: { kind: 'slot', slot: 'paper' },
    motifs: [dot('d', 60)],
    placings: [place('d', 50, 50)],
    ...over,
  });
const tiledIn = (scene: DisplayList): TiledItem => {
  const [item] = scene.shapes.flatMap(tiledOf);
  if (!item) throw new Error('no pattern');
  return item;
};
const pageOf = (shapes: Shape[], side = 100, background: string | null = '#ffffff'): DisplayList => {
  const pattern = compiledPattern('p@1', 'P', compileUnit(dots()), dots().slots);
  const layout: Layout = { ...freshPage(side, side), background, shapes };
  return lowerLayout(layout, () => pattern);
};

async function png(
  scene: DisplayList,
  size: PngSize,
  over: Partial<PngOptions> & { pool?: RenderPool } = {},
): Promise<Buffer> {
  const parts: Uint8Array[] = [];
  const write = (bytes: Uint8Array): Promise<void> => {
    parts.push(Uint8Array.from(bytes));
    return Promise.resolve();
  };
  await renderPng(scene, over.pool ?? inlinePool(), { size, write, ...over });
  return Buffer.concat(parts);
}

type Pixels = { width: number; height: number; channels: number; at: (x: number, y: number) => number[] };

async function pixelsOf(file: Buffer): Promise<Pixels> {
  const { data, info } = await sharp(file).raw().toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  const at = (x: number, y: number): number[] => [
    ...data.subarray((y * width + x) * channels, (y * width + x + 1) * channels),
  ];
  return { width, height, channels, at };
}

describe('units too small to be drawn one by one', () => {
  const fine = (scale: number, side = 1000): boolean => {
    const scene = filledPage(dots(), side, { scaleX: scale, scaleY: scale });
    return isFine(scene.shapes[0]!, tiledIn(scene), { x: 0, y: 0, width: side, height: side }, 1);
  };

  it('are those of which a layer would need more than 20,000', () => {
    // 1000 px across at 0.07 of 100 px: 143 × 143 units, 20,400 in all; at 0.08, 125 × 125.
    expect(fine(0.065)).toBe(true);
    expect(fine(0.08)).toBe(false);
  });

  it('are drawn as a block of whole pixels that a matrix takes back to where each unit lies', () => {
    const scene = filledPage(dots(), 1000, { scaleX: 0.0511, scaleY: 0.0511 });
    const shape = scene.shapes[0]!;
    const box = { x: 200, y: 300, width: 400, height: 200 };
    const tile = tileOf(shape, tiledIn(scene), box, { x: 1, y: 1 });
    const [, width, height] = /width="(\d+)" height="(\d+)"/.exec(tile.svg) ?? [];
    const { matrix } = tiledIn(scene);
    const cell = 100 * 0.0511;
    const unit = Math.round(Number(width) / cell);
    expect(Number(width)).toBe(Math.round(cell * unit));
    expect(Number(height)).toBe(Math.round(cell * unit));
    // The corner of a unit is a corner of the block's grid of units, wherever the layer begins.
    for (const [i, j] of [
      [60, 70],
      [61, 83],
    ] as const) {
      const corner = apply(matrix, { x: i * 100, y: j * 100 });
      const { x, y } = apply(tile.toTile!, { x: corner.x - box.x, y: corner.y - box.y });
      const step = Number(width) / unit;
      expect(Math.abs(x / step - Math.round(x / step))).toBeLessThan(1e-6);
      expect(Math.abs(y / step - Math.round(y / step))).toBeLessThan(1e-6);
    }
  });

  it('are seen as their mean colour where they are finer than the pixels', async () => {
    const page = filledPage(dots(), 100, { scaleX: 0.005, scaleY: 0.005 });
    const scene = page.shapes[0]!;
    const box = { x: 0, y: 0, width: 100, height: 100 };
    expect(tileOf(scene, tiledIn(page), box, { x: 1, y: 1 }).toTile).toBeNull();
    const { at } = await pixelsOf(await png(page, { width: 100, height: 100, ppi: 96 }));
    const share = (Math.PI * 30 * 30) / 10_000;
    const mean = [0x10, 0x20, 0x30].map((ink) => ink * share + 255 * (1 - share));
    for (const [x, y] of [
      [3, 7],
      [50, 50],
      [99, 98],
    ] as const)
      mean.forEach((value, channel) => expect(Math.abs(at(x, y)[channel]! - value)).toBeLessThan(4));
  });
});

describe('the steps of a band', () => {
  const band = { x: 0, y: 0, width: 100, height: 100 };
  const steps = (scene: DisplayList): ReturnType<typeof bandSteps> =>
    bandSteps(scene, band, { x: 1, y: 1 }, () => null);
  const shape = (over: Partial<Shape> = {}): Shape =>
    freshShape({
      ...{ id: 's', name: 'S', form: { kind: 'ellipse' }, x: 20, y: 20, width: 60, height: 60 },
      fills: [freshFill('f', 'p')],
      ...over,
    });

  it('gather plain outlines in one drawing', () => {
    const plain = shape({ fills: [colourFill('f', { colour: '#aa0000' })] });
    const { base, steps: layers } = steps(pageOf([plain, { ...plain, id: 't' }]));
    expect(layers).toEqual([]);
    expect(base.match(/<path /g)).toHaveLength(2);
  });

  it('part them where a pattern lies between: what is over it stays over it', () => {
    const plain = shape({ fills: [colourFill('f', { colour: '#aa0000' })] });
    const { base, steps: layers } = steps(pageOf([plain, shape({ id: 'm' }), { ...plain, id: 't' }]));
    expect(base.match(/<path /g)).toHaveLength(1);
    expect(layers).toHaveLength(2);
    expect(layers[0]).toMatchObject({ kind: 'layer', x: 20, y: 20, width: 60, height: 60 });
    expect(layers[0]?.kind === 'layer' && layers[0].outline).toContain('<path');
  });

  it('put a masked shape together before it is masked, and leave out what lies outside the band', () => {
    const masked = shape({ mask: freshMask() });
    const { steps: layers } = steps(pageOf([masked, shape({ id: 'off', x: 300 })]));
    expect(layers.map(({ kind }) => kind)).toEqual(['group']);
  });

  it('ask for each picture once, at the size that is seen, and by halves where many sizes are', () => {
    const asset = 'b'.repeat(64);
    const fill = coveringPicture('f', { asset, width: 800, height: 800 }, { width: 100, height: 100 });
    const scene = pageOf([shape({ fills: [fill] }), shape({ id: 't', fills: [fill] })]);
    const needed = picturesNeeded(scene, { x: 1, y: 1 });
    expect(needed).toHaveLength(1);
    expect(needed[0]?.asset).toBe(asset);
    expect(needed[0]!.share).toBeCloseTo(1 / 8, 9);
    expect(picturesNeeded(scene, { x: 0.25, y: 0.25 })[0]!.share).toBeCloseTo(1 / 32, 9);
    expect(picturesNeeded(scene, { x: 20, y: 20 })[0]!.share).toBe(1);
    const many = Array.from({ length: 9 }, (_, index) => {
      const sized = { ...fill, scaleX: 0.1 * (index + 1), scaleY: 0.1 * (index + 1) };
      return shape({ id: `s${index}`, fills: [sized] });
    });
    const shares = picturesNeeded(pageOf(many), { x: 1, y: 1 }).map(({ share }) => share);
    expect(shares.every((share) => Number.isInteger(Math.log2(share)))).toBe(true);
    expect(Math.max(...shares)).toBe(1);
    // Four large sizes would be nearly four pictures in memory, where its halves are one and a third.
    const large = [0.91, 0.93, 0.95, 0.97].map((scale, index) =>
      shape({ id: `l${index}`, fills: [{ ...fill, scaleX: scale, scaleY: scale }] }),
    );
    expect(picturesNeeded(pageOf(large), { x: 1, y: 1 }).map(({ share }) => share)).toEqual([1]);
    const picture = { width: 1, height: 1, pixels: new SharedArrayBuffer(4) };
    const decoded = [0.25, 0.5, 1].map((share) => ({
      needed: { ...needed[0]!, share },
      picture: { ...picture, width: share },
    }));
    const found = (share: number): number | undefined =>
      pictureLookup(decoded)({ ...needed[0]!, share })?.width;
    expect([0.1, 0.25, 0.3, 0.9, 2].map(found)).toEqual([0.25, 0.25, 0.5, 1, 1]);
  });
});

describe('a picture that is written band by band', () => {
  const scene = filledPage(dots(), 100);

  it('shows no more of its bands than the renderer rounds at the rims of curves', async () => {
    const size = { width: 640, height: 640, ppi: 300 };
    const one = await pixelsOf(await png(scene, size));
    const many = await pixelsOf(await png(scene, size, { pool: { ...inlinePool(), threads: 4 } }));
    let most = 0;
    let rims = 0;
    for (let y = 0; y < 640; y += 1)
      for (let x = 0; x < 640; x += 1) {
        const off = Math.abs(one.at(x, y)[0]! - many.at(x, y)[0]!);
        most = Math.max(most, off);
        if (off > 1) rims += 1;
      }
    // Steps of a sixteenth of a pixel's cover, at a few pixels of the rim; along the bands' edges there are no more.
    expect(most).toBeLessThanOrEqual(4 * 15);
    expect(rims / 640 ** 2).toBeLessThan(0.003);
  });

  it('has the pixels and the resolution asked for, and keeps its alpha only without a background', async () => {
    const file = await png(scene, { width: 123, height: 77, ppi: 300 });
    const { width, height, density, hasAlpha } = await sharp(file).metadata();
    expect([width, height, density, hasAlpha]).toEqual([123, 77, 300, true]);
    const solid = await png(filledPage(dots(), 100, {}, '#ffffff'), { width: 10, height: 10, ppi: 72 });
    expect((await sharp(solid).metadata()).hasAlpha).toBe(false);
  });

  it('tells how far it is, and stops when it is told to', async () => {
    const told: number[] = [];
    const pool = { ...inlinePool(), threads: 2 };
    const size = { width: 64, height: 2000, ppi: 96 };
    await png(scene, size, { pool, progress: (share) => told.push(share) });
    expect(told.length).toBeGreaterThan(2);
    expect(told).toEqual([...told].sort((one, other) => one - other));
    expect(told[told.length - 1]).toBe(1);
    const stop = new AbortController();
    const going = png(scene, size, { pool, signal: stop.signal, progress: () => stop.abort() });
    await expect(going).rejects.toThrow(/abort/i);
  });

  it('goes on where a picture is gone', async () => {
    const asset = 'c'.repeat(64);
    const fill = coveringPicture('f', { asset, width: 10, height: 10 }, { width: 100, height: 100 });
    const gone = pageOf([{ ...filledShape({ x: 0, y: 0, width: 100, height: 100 }), fills: [fill] }]);
    const { at } = await pixelsOf(await png(gone, { width: 20, height: 20, ppi: 96 }));
    expect(at(10, 10)).toEqual([255, 255, 255]);
  });
});

describe('a page with bleed', () => {
  const BLEED = 12;
  const art = dots({ motifs: [block('b', 30, 30)], placings: [place('b', 50, 50)] });
  // The shape reaches over the page: its bleed is there to be shown.
  const over = (): DisplayList => {
    const pattern = compiledPattern('p@1', 'P', compileUnit(art), art.slots);
    const shape = filledShape({ x: -20, y: -20, width: 140, height: 140 }, { scaleX: 0.4, scaleY: 0.4 });
    return lowerLayout({ ...freshPage(100, 100), background: '#ffeecc', shapes: [shape] }, () => pattern);
  };

  it('is larger by the bleed on every side, and shows the page itself unchanged within it', async () => {
    const page = await pixelsOf(await png(over(), { width: 200, height: 200, ppi: 192 }));
    const wide = await pixelsOf(await png(withBleed(over(), BLEED), { width: 248, height: 248, ppi: 192 }));
    expect(withBleed(over(), BLEED)).toMatchObject({ width: 124, height: 124 });
    let off = 0;
    for (let y = 0; y < 200; y += 1)
      for (let x = 0; x < 200; x += 3)
        for (let channel = 0; channel < 3; channel += 1)
          off = Math.max(off, Math.abs(page.at(x, y)[channel]! - wide.at(x + 24, y + 24)[channel]!));
    expect(off).toBeLessThanOrEqual(2);
  });

  it('goes on with the pattern in the bleed: the unit beyond the edge is the one within it', async () => {
    const wide = await pixelsOf(await png(withBleed(over(), BLEED), { width: 248, height: 248, ppi: 192 }));
    const unit = 0.4 * 100 * 2;
    for (let x = 0; x < 24; x += 1)
      for (let channel = 0; channel < 3; channel += 1)
        expect(Math.abs(wide.at(x, 60)[channel]! - wide.at(x + unit, 60)[channel]!)).toBeLessThanOrEqual(2);
  });

  it('is the same as SVG', async () => {
    const scene = withBleed(over(), BLEED);
    const svg = layoutSvg(scene, {
      patterns: 'expanded',
      width: '248',
      height: '248',
      maskPicture: (mask) => maskPicture(mask, 1),
    });
    const drawn = await pixelsOf(Buffer.from(await inlinePool().png(svg)));
    const file = await pixelsOf(await png(scene, { width: 248, height: 248, ppi: 192 }));
    let far = 0;
    for (let y = 0; y < 248; y += 2)
      for (let x = 0; x < 248; x += 2) if (Math.abs(drawn.at(x, y)[0]! - file.at(x, y)[0]!) > 24) far += 1;
    expect(far / (124 * 124)).toBeLessThan(0.01);
  });

  it('leaves a page without bleed as it is', () => {
    const scene = over();
    expect(withBleed(scene, 0)).toBe(scene);
  });
});
