import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { IDENTITY } from '../../src/lib/core/geom/affine';
import { strokeOutline, type InkedStroke } from '../../src/lib/core/geom/outline';
import { formatPath, movedPath, parsePath } from '../../src/lib/core/geom/path';
import { colourFill, freshFill, gradientFill, type Fill } from '../../src/lib/core/recipe/fill';
import { freshGradient, type Gradient } from '../../src/lib/core/recipe/gradient';
import { freshPage, freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import type { Mask } from '../../src/lib/core/recipe/mask';
import { lowerLayout } from '../../src/lib/core/draw/lower';
import { compiledPattern } from '../../src/lib/core/scene/pattern';
import type { DisplayList } from '../../src/lib/core/draw/list';
import { reframed } from '../../src/lib/core/draw/reframe';
import { compileUnit } from '../../src/lib/core/scene/unit';
import { maskPicture } from '../../src/lib/core/formats/mask-picture';
import { layoutSvg } from '../../src/lib/core/svg/layout';
import { differing } from '../support/pictures';
import { dot, place, recipe } from '../support/recipes';

const SIDE = 240;

const drawn = (svg: string): { data: Uint8Array } => ({
  data: new Resvg(svg, { background: '#ffffff', font: { loadSystemFonts: false } }).render().pixels,
});
const pictureOf = (scene: DisplayList, patterns: 'live' | 'expanded' = 'expanded') =>
  drawn(
    layoutSvg(scene, {
      patterns,
      width: String(SIDE),
      height: String(SIDE),
      maskPicture: (mask) => maskPicture(mask, 1),
    }),
  );

const pattern = compiledPattern(
  'p@1',
  'P',
  compileUnit(
    recipe({
      unit: { width: 30, height: 30 },
      ground: { kind: 'slot', slot: 'paper' },
      motifs: [dot('d', 16)],
      placings: [place('d', 15, 15)],
    }),
  ),
  recipe({}).slots,
);
const pageOf = (shape: Shape): DisplayList =>
  lowerLayout({ ...freshPage(SIDE, SIDE), background: '#ffffff', shapes: [shape] }, () => pattern);

const fade: Gradient = freshGradient({ colour: '#e5572e' }, { colour: '#10394d' });
const masks: Record<string, Mask> = {
  gradient: { kind: 'gradient', gradient: fade },
  painted: {
    kind: 'painted',
    matrix: IDENTITY,
    strokes: [{ mode: 'erase', size: 50, softness: 0.6, strength: 1, points: [20, 30, 110, 70] }],
  },
};
const shapeOf = (fills: Fill[], over: Partial<Shape> = {}): Shape =>
  freshShape({
    id: 's',
    name: 'S',
    form: { kind: 'star', points: 6, inner: 0.6 },
    x: 51,
    y: 37,
    width: 140,
    height: 150,
    rotation: 17,
    fills,
    ...over,
  });

describe('a shape counted from another corner', () => {
  const dots = { ...freshFill('f', 'p'), rotation: 30, offset: { x: 7, y: 3 } };
  const cases: [string, Shape][] = [
    ['a pattern and its ground', shapeOf([dots])],
    ['a gradient over the motifs', shapeOf([{ ...dots, wash: fade, ground: { kind: 'none' } }])],
    ['a gradient under a mask of its own', shapeOf([{ ...gradientFill('g', fade), mask: masks.gradient! }])],
    ['a shape that is rubbed out', shapeOf([dots], { mask: masks.painted! })],
    [
      'a dashed stroke of pattern',
      shapeOf([colourFill('c', { colour: '#8fc7cf' })], {
        stroke: { width: 14, cap: 'round', join: 'round', dashes: [20, 24], fills: [{ ...dots, id: 's' }] },
      }),
    ],
  ];

  it.each(cases)('draws the same: %s', (_name, shape) => {
    const scene = pageOf(shape);
    for (const by of [
      { x: 51, y: 37 },
      { x: -20.5, y: 300.25 },
    ]) {
      const shapes = scene.shapes.map((one) => reframed(one, by, movedPath(one.d, by)));
      expect(shapes[0]).toMatchObject({ x: 51 - by.x, y: 37 - by.y });
      expect(differing(pictureOf(scene), pictureOf({ ...scene, shapes }), 2)).toBeLessThan(0.001);
    }
  });
});

describe('a stroke', () => {
  const lines: [string, string, Partial<InkedStroke>][] = [
    ['mitred', 'M40 40H200V120L60 200Z', {}],
    ['bevelled at what is sharper than the limit', 'M30 60L210 80L30 100', { join: 'bevel' }],
    ['round along a curve', 'M30 120C60 -40 120 260 210 90', { cap: 'round', join: 'round' }],
    ['dashed with square ends', 'M30 120C60 -40 120 260 210 90', { cap: 'square', dashes: [24, 30] }],
    [
      'of two rings',
      'M40 40H120V120H40ZM90 90C90 60 200 60 200 130C200 200 90 200 90 90Z',
      { join: 'round' },
    ],
  ];

  // resvg's own stroker against the outline that Clipper makes, which a stroke that is turned into a shape has. What differs
  // by less than a third of a pixel at an edge is left alone.
  it.each(lines)('inks what its outline covers: %s', (_name, d, over) => {
    const pen: InkedStroke = { width: 16, cap: 'butt', join: 'miter', miterLimit: 4, dashes: [], ...over };
    const path = parsePath(d);
    const outline = path.ok ? strokeOutline(path.path, pen) : path;
    if (!outline.ok) throw new Error(outline.message);
    const page = (body: string) =>
      drawn(`<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE}" height="${SIDE}">${body}</svg>`);
    const line = page(
      `<path d="${d}" fill="none" stroke="#000" stroke-width="16" stroke-linecap="${pen.cap}" stroke-linejoin="${pen.join}" stroke-dasharray="${pen.dashes.join(' ') || 'none'}"/>`,
    );
    expect(differing(line, page(`<path d="${formatPath(outline.path)}"/>`), 80)).toBeLessThan(0.0005);
  });
});
