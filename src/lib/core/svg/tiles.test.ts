import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { block, dot, place, recipe } from '../../../../tests/support/recipes';
import { resolveSlots } from '../colour/slots';
import { IDENTITY, scaling } from '../geom/affine';
import { parsePath, pathBox, type Path } from '../geom/path';
import type { DrawingElement, MotifEffects } from '../recipe/recipe';
import { compileUnit } from '../scene/unit';
import type { Drawn } from './art-drawn';
import { effectsFilter } from './effects';
import { blendText, gradientPaint, isOpaqueGradient, maskMarkup } from './fill';
import { groundOf, withinTile } from './tile-edges';
import { patternCss, tileSvg } from './tile';

const TILE = { width: 100, height: 80 };

function piece(d: string, over: Partial<DrawingElement> = {}): Drawn {
  const read = parsePath(d);
  if (!read.ok) throw new Error(read.message);
  const box = pathBox(read.path)!;
  const element = { d, fill: 'ink', fillRule: 'nonzero' as const, stroke: null, opacity: 1, ...over };
  return { element, box, path: read.path, clip: null };
}
const square = (x: number, y: number, side: number, over: Partial<DrawingElement> = {}): Drawn =>
  piece(`M ${x} ${y} L ${x + side} ${y} L ${x + side} ${y + side} L ${x} ${y + side} Z`, over);

const pixelsOf = (svg: string): { width: number; height: number; at: (x: number, y: number) => number[] } => {
  const { width, height, pixels } = new Resvg(svg, { font: { loadSystemFonts: false } }).render();
  return { width, height, at: (x, y) => [...pixels.subarray((y * width + x) * 4, (y * width + x) * 4 + 4)] };
};

describe('the ground of a tile that comes in', () => {
  const paper = piece('M 0 0 L 100 0 L 100 80 L 0 80 Z', { fill: 'paper' });

  it('is the plain rectangle under everything that covers the tile', () => {
    expect(groundOf([paper, square(10, 10, 5)], TILE)).toBe('paper');
    expect(groundOf([piece('M -5 -5 L 105 -5 L 105 85 L -5 85 Z', { fill: 'paper' })], TILE)).toBe('paper');
  });

  it('is not one that is see-through, stroked, round, cut, short, or over something', () => {
    const stroke = { slot: 'ink', width: 1, cap: 'butt', join: 'miter', miterLimit: 4, dashes: [] } as const;
    const clip = { path: paper.path, rule: 'nonzero' as const };
    for (const first of [
      { ...paper, element: { ...paper.element, opacity: 0.9 } },
      { ...paper, element: { ...paper.element, stroke: { ...stroke, dashes: [] } } },
      { ...paper, element: { ...paper.element, fill: null } },
      { ...paper, clip },
      piece('M 0 0 L 100 0 L 100 70 L 0 70 Z', { fill: 'paper' }),
      piece('M 0 0 C 30 -9 60 -9 100 0 L 100 80 L 0 80 Z', { fill: 'paper' }),
    ])
      expect(groundOf([first], TILE)).toBeNull();
    expect(groundOf([square(10, 10, 5), paper], TILE)).toBeNull();
    expect(groundOf([], TILE)).toBeNull();
  });
});

describe('pieces at the edges of a tile that comes in', () => {
  it('are one piece where their other half comes in on the other side', () => {
    const kept = withinTile([square(-5, 20, 10), square(95, 20, 10), square(40, 40, 10)], TILE);
    expect(kept.map(({ box }) => box.x)).toEqual([-5, 40]);
    expect(kept[0]?.clip).toBeNull();
  });

  it('are one piece of four corners, and cut at the edge where one of the four is missing', () => {
    const corners = [square(-5, -5, 10), square(95, -5, 10), square(-5, 75, 10), square(95, 75, 10)];
    expect(withinTile(corners, TILE)).toHaveLength(1);
    const three = withinTile(corners.slice(0, 3), TILE);
    expect(three).toHaveLength(3);
    for (const { box } of three) {
      expect(box.x).toBeGreaterThanOrEqual(0);
      expect(box.x + box.width).toBeLessThanOrEqual(TILE.width);
      expect(box.width * box.height).toBe(25);
    }
  });

  it('are no twins where their paint differs or they lie a little off', () => {
    expect(withinTile([square(-5, 20, 10), square(95, 20, 10, { fill: 'paper' })], TILE)).toHaveLength(2);
    expect(withinTile([square(-5, 20, 10), square(95, 20.5, 10)], TILE)).toHaveLength(2);
  });

  it('are left out outside, cut for good where plain, and clipped where they are stroked', () => {
    expect(withinTile([square(100, 0, 10), square(-30, 0, 20), square(0, 80, 10)], TILE)).toEqual([]);
    const [cut] = withinTile([square(-4, 10, 10)], TILE);
    expect(pathBox(cut!.path)).toMatchObject({ x: 0, y: 10, width: 6, height: 10 });
    const stroke = {
      ...{ slot: 'ink', width: 1, cap: 'butt' as const, join: 'miter' as const, miterLimit: 4, dashes: [] },
    };
    const [clipped] = withinTile([square(-4, 10, 10, { stroke })], TILE);
    expect(pathBox(clipped!.path)?.x).toBe(-4);
    expect(pathBox(clipped!.clip!.path as Path)).toEqual({ x: 0, y: 0, ...TILE });
  });

  it('are not held against each other without an end where one reaches over many tiles', () => {
    const wide = piece('M -9000 10 L 9000 10 L 9000 12 L -9000 12 Z');
    const kept = withinTile([wide], TILE);
    expect(pathBox(kept[0]!.path)).toMatchObject({ x: 0, width: 100 });
  });
});

describe('a tile that is handed out', () => {
  const art = recipe({
    ground: { kind: 'slot', slot: 'paper' },
    motifs: [dot('d', 40)],
    placings: [place('d', 0, 0)],
  });
  const colours = resolveSlots(art.slots, {});

  it('shows at its four corners the quarters of a motif that lies on one, and the ground up to its edges', () => {
    const tile = tileSvg(compileUnit(art), colours, { title: 'Dots & "more"' });
    if (!tile.ok) throw new Error(tile.message);
    expect([tile.width, tile.height]).toEqual([100, 100]);
    expect(tile.svg).toContain('<title>Dots &amp; &quot;more&quot;</title>');
    const { at } = pixelsOf(tile.svg);
    for (const [x, y] of [
      [2, 2],
      [97, 2],
      [2, 97],
      [97, 97],
    ] as const)
      expect(at(x, y)).toEqual([0x10, 0x20, 0x30, 255]);
    expect(at(50, 0)).toEqual([255, 255, 255, 255]);
    expect(at(50, 50)).toEqual([255, 255, 255, 255]);
  });

  it('has just the pixels asked for, holds two units of a half-drop, and is refused where no rectangle repeats', () => {
    const dropped = compileUnit({ ...art, repeat: { kind: 'half-drop', step: 0.5, run: 'progressive' } });
    const tile = tileSvg(dropped, colours, { title: 't', pixels: { width: 64, height: 32 } });
    if (!tile.ok) throw new Error(tile.message);
    expect([tile.width, tile.height]).toEqual([200, 100]);
    const { width, height, at } = pixelsOf(tile.svg);
    expect([width, height]).toEqual([64, 32]);
    // The second column lies half a unit further down: its motif is in the middle of the tile.
    expect(at(32, 16)).toEqual([0x10, 0x20, 0x30, 255]);
    const slanted = compileUnit({
      ...art,
      repeat: { kind: 'brick', step: 0.3183098861, run: 'progressive' },
    });
    const refused = tileSvg(slanted, colours, { title: 't' });
    expect(refused.ok ? '' : refused.message).toMatch(/repeats in no upright rectangle/);
  });

  it('stands in a style sheet that no name can break out of', () => {
    const tile = tileSvg(compileUnit(art), colours, { title: "'); } body { display: none } /*" });
    if (!tile.ok) throw new Error(tile.message);
    const name = 'Night */ body { display: none } /*';
    const css = patternCss(compileUnit(art), colours, { name, className: 'night', tile });
    expect(css.replace(/\/\*[\s\S]*?\*\//g, '').replace(/"[^"]*"/g, '""')).not.toContain('body');
    expect(css).toContain('background-size: 100px 100px;');
    expect(css).toContain('background-color: #ffffff;');
    const clear = compileUnit({ ...art, ground: { kind: 'clear' } });
    expect(patternCss(clear, colours, { name, className: 'night', tile })).toContain(
      'background-color: transparent;',
    );
  });
});

describe('gradients and masks of fills', () => {
  const scene = (opacity: number) => ({
    kind: 'linear' as const,
    spread: 'pad' as const,
    matrix: scaling(100, 1),
    stops: [
      { at: 0, colour: '#ff0000' as const, opacity },
      { at: 1, colour: '#0000ff' as const, opacity: 1 },
    ],
  });
  const page = (drawing: string): ReturnType<typeof pixelsOf> =>
    pixelsOf(`<svg xmlns="http://www.w3.org/2000/svg" width="100" height="10">${drawing}</svg>`);

  it('run from their first colour to their last over the length of their matrix', () => {
    const { value, defs } = gradientPaint(scene(1));
    const { at } = page(`<defs>${defs}</defs><rect width="100" height="10" fill="${value}"/>`);
    for (const x of [5, 50, 95]) {
      const share = (x + 0.5) / 100;
      expect(Math.abs(at(x, 5)[0]! - 255 * (1 - share))).toBeLessThan(2);
      expect(Math.abs(at(x, 5)[2]! - 255 * share)).toBeLessThan(2);
    }
    expect(isOpaqueGradient(scene(1))).toBe(true);
    expect(isOpaqueGradient(scene(0.99))).toBe(false);
  });

  it('show as a mask what they let through', () => {
    const box = { x: 0, y: 0, width: 100, height: 10 };
    const mask = maskMarkup('m', { kind: 'gradient', gradient: scene(0) }, box, () => null);
    const { at } = page(`<defs>${mask}</defs><rect width="100" height="10" mask="url(#m)"/>`);
    for (const x of [5, 50, 95]) expect(Math.abs(at(x, 5)[3]! - (255 * (x + 0.5)) / 100)).toBeLessThan(3);
  });

  it('show everything or nothing before a brush has touched them', () => {
    const box = { x: 0, y: 0, width: 100, height: 10 };
    const bare = { kind: 'painted' as const, matrix: IDENTITY, strokes: [] };
    const alpha = (mask: Parameters<typeof maskMarkup>[1]): number =>
      page(
        `<defs>${maskMarkup('m', mask, box, () => null)}</defs><rect width="100" height="10" mask="url(#m)"/>`,
      ).at(50, 5)[3]!;
    expect(alpha(bare)).toBe(255);
    expect(alpha({ ...bare, starts: 'hidden' })).toBe(0);
  });

  it('name a mode of blending only where there is one', () => {
    expect(blendText('normal')).toBe('');
    expect(blendText('multiply')).toBe(' style="mix-blend-mode:multiply"');
  });
});

describe('shadows and relief', () => {
  const colours = { ink: '#102030' as const, shade: '#ff0000' as const };
  const box = { x: 40, y: 40, width: 20, height: 20 };
  const shown = (effects: MotifEffects): ReturnType<typeof pixelsOf> => {
    const { id, markup } = effectsFilter(effects, box, colours);
    return pixelsOf(
      `<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100"><defs>${markup}</defs><g filter="url(#${id})"><rect x="40" y="40" width="20" height="20" fill="#808080"/></g></svg>`,
    );
  };

  it('fall the way of their angle, as far as they are set, in their own colour and opacity', () => {
    const { at } = shown({ drop: { slot: 'shade', angle: 0, distance: 15, blur: 0, opacity: 0.5 } });
    // The renderer gives its pixels premultiplied.
    expect(at(67, 50)).toEqual([128, 0, 0, 128]);
    expect(at(77, 50)[3]).toBe(0);
    expect(at(50, 50)).toEqual([128, 128, 128, 255]);
    expect(at(37, 50)[3]).toBe(0);
  });

  it('darken the side that faces the light when they fall inside, and leave nothing outside', () => {
    const { at } = shown({ inner: { slot: 'shade', angle: 90, distance: 6, blur: 0, opacity: 1 } });
    expect(at(50, 42)).toEqual([255, 0, 0, 255]);
    expect(at(50, 55)).toEqual([128, 128, 128, 255]);
    expect(at(50, 37)[3]).toBe(0);
  });

  it('lift a motif with a light edge towards the light and a dark one away from it', () => {
    const { at } = shown({ relief: { angle: 180, height: 3, softness: 0, strength: 0.5 } });
    const [left, right] = [at(41, 50)[0]!, at(58, 50)[0]!];
    expect(Math.min(left, right)).toBeLessThan(90);
    expect(Math.max(left, right)).toBeGreaterThan(160);
    expect(at(50, 50)[0]).toBe(128);
    expect(at(36, 50)[3]).toBe(0);
  });
});

it('a block that meets itself at all four edges leaves no line of the ground in a larger tile', () => {
  const art = recipe({
    ground: { kind: 'slot', slot: 'paper' },
    motifs: [block('b', 100, 100)],
    placings: [place('b', 37.3, 61.9)],
  });
  const pixels = { width: 173, height: 173 };
  const tile = tileSvg(compileUnit(art), resolveSlots(art.slots, {}), { title: 't', pixels });
  if (!tile.ok) throw new Error(tile.message);
  const { at } = pixelsOf(tile.svg);
  for (let x = 0; x < 173; x += 1)
    expect(Math.max(at(x, 86)[0]! - 0x10, at(86, x)[0]! - 0x10)).toBeLessThan(4);
});
