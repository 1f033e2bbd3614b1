import { Resvg } from '@resvg/resvg-js';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BLEND_MODES } from '../../src/lib/core/colour/blend';
import { seededRandom } from '../../src/lib/core/num/random';
import type { Point } from '../../src/lib/core/geom/point';
import { IDENTITY, chain, rotation, scaling, translation } from '../../src/lib/core/geom/affine';
import {
  colourFill,
  coveringPicture,
  freshFill,
  gradientFill,
  type Fill,
  type PatternFill,
} from '../../src/lib/core/recipe/fill';
import type { Gradient } from '../../src/lib/core/recipe/gradient';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import type { Mask, MaskStroke } from '../../src/lib/core/recipe/mask';
import { exportPng, layoutWith, publishedPattern } from '../support/api';
import { at, openBrowser, pixelsOf, visit, type Session } from '../support/browser';
import { stagePixels } from '../support/layout-view';
import { CUT_OUT, differing, PHOTO, pictureAsset } from '../support/pictures';
import { block, dot, place, recipe } from '../support/recipes';

const WIDTH = 360;
const HEIGHT = 260;

let session: Session;
let pattern: string;
let photo: { asset: string; width: number; height: number };
let cutOut: { asset: string; width: number; height: number };
beforeAll(async () => {
  session = await openBrowser(1400, 1000);
  pattern = await publishedPattern(
    recipe({
      ground: { kind: 'slot', slot: 'paper' },
      motifs: [dot('d', 30)],
      placings: [place('d', 25, 25), place('d', 75, 70)],
    }),
  );
  photo = await pictureAsset(180, 130, PHOTO);
  cutOut = await pictureAsset(90, 90, CUT_OUT);
});
afterAll(() => session.close());

type Pixels = { data: Uint8Array };

async function inChromium(svg: string): Promise<PNG> {
  const { page } = session;
  await page.goto('about:blank');
  await page.setContent(`<style>body{margin:0}svg{display:block}</style>${svg}`);
  return pixelsOf(page, { x: 0, y: 0, width: WIDTH, height: HEIGHT });
}

/** The page as the stage shows it at 100 %. */
async function onStage(path: string): Promise<PNG> {
  await visit(session.page, path);
  return stagePixels(session.page, WIDTH, HEIGHT);
}

/** What a layout looks like on the stage, as PNG, and as SVG in three engines. */
async function everywhere(shapes: Shape[], background: string | null = '#ffffff') {
  const layout = await layoutWith(shapes, { width: WIDTH, height: HEIGHT, background });
  const png = PNG.sync.read(await exportPng(layout.id, 96));
  const svg = await (await fetch(at(`/api/v1/layouts/${layout.id}/svg?patterns=expanded`))).text();
  const live = await (await fetch(at(`/api/v1/layouts/${layout.id}/svg?patterns=live`))).text();
  return {
    png,
    stage: await onStage(layout.path),
    chromium: await inChromium(svg),
    live: await inChromium(live),
    resvg: { data: new Resvg(svg, { background: '#ffffff' }).render().pixels },
    librsvg: {
      data: await sharp(Buffer.from(svg)).flatten({ background: '#ffffff' }).ensureAlpha().raw().toBuffer(),
    },
  };
}

/** All agree but for the edges of drawn things: few pixels differ by more than a trace. */
function expectAlike(drawn: Awaited<ReturnType<typeof everywhere>>, share = 0.02, more = 24): void {
  const { png, ...others } = drawn;
  for (const [name, picture] of Object.entries(others))
    expect(differing(png, picture, more), name).toBeLessThan(share);
}

const area = (fills: Fill[], over: Partial<Shape> = {}): Shape =>
  freshShape({
    id: 'area',
    name: 'Area',
    form: { kind: 'rectangle', radius: 24 },
    x: 30,
    y: 20,
    width: 300,
    height: 220,
    fills,
    ...over,
  });
const dots = (over: Partial<PatternFill> = {}): PatternFill => ({
  ...freshFill('dots', pattern),
  scaleX: 0.7,
  scaleY: 0.7,
  rotation: 20,
  ...over,
});
const sunset: Gradient = {
  kind: 'linear',
  from: { x: 0.1, y: 0.2 },
  to: { x: 0.9, y: 0.7 },
  stops: [
    { colour: '#e5572e', at: 0, opacity: 1 },
    { colour: '#f3c14b', at: 0.4, opacity: 1 },
    { colour: '#10394d', at: 1, opacity: 1 },
  ],
};
const fading: Gradient = {
  ...sunset,
  stops: sunset.stops.map((stop, index) => ({ ...stop, opacity: 1 - index * 0.45 })),
};
const base = (): Fill => coveringPicture('photo', photo, { width: 300, height: 220 });

/** One case: a small shape that lies anyhow, with a gradient as its fill, over its motifs, or as a mask of it or its fill. */
function gradientCell(
  random: () => number,
  cell: number,
  solid: string,
): { shape: Shape; gradient: Gradient; masks: boolean } {
  const between = (least: number, most: number): number => least + random() * (most - least);
  const [width, height] = [between(26, 46), between(26, 46)];
  const from = { x: between(-0.2, 0.6), y: between(-0.2, 0.6) };
  const [direction, reach] = [between(0, 2 * Math.PI), between(0.6, 1.3)];
  const gradient: Gradient = {
    kind: random() < 0.5 ? 'linear' : 'radial',
    from,
    to: { x: from.x + reach * Math.cos(direction), y: from.y + reach * Math.sin(direction) },
    stops: [
      { colour: '#e5572e', at: 0, opacity: 1 },
      { colour: '#10394d', at: 1, opacity: cell % 4 > 1 ? 0.1 : 1 },
    ],
  };
  const ink = colourFill('c', { colour: '#10394d' });
  const mask: Mask = { kind: 'gradient', gradient };
  const motifs: PatternFill = { ...freshFill('m', solid), wash: gradient, ground: { kind: 'none' } };
  const over: Partial<Shape> = [
    { fills: [gradientFill('g', gradient)] },
    { fills: [motifs] },
    { fills: [{ ...ink, mask }] },
    { fills: [ink], mask },
  ][cell % 4]!;
  const shape = area([], {
    id: `cell-${cell}`,
    form: { kind: 'rectangle', radius: 0 },
    x: (cell % 4) * 90 + 45 - width / 2,
    y: Math.floor(cell / 4) * 86 + 43 - height / 2,
    ...{ width, height, rotation: between(-180, 180), skew: between(-30, 30) },
    ...{ reflectX: random() < 0.5, reflectY: random() < 0.5 },
    ...over,
  });
  return { shape, gradient, masks: cell % 4 > 1 };
}

/** Where a share of a shape's frame lies: reflected, then skewed along x, then turned, about its middle. */
function onPage({ x, y, width, height, rotation: turn, skew, ...flips }: Shape, share: Point): Point {
  const across = (share.x - 0.5) * width * (flips.reflectX ? -1 : 1);
  const down = (share.y - 0.5) * height * (flips.reflectY ? -1 : 1);
  const along = across + down * Math.tan((skew * Math.PI) / 180);
  const angle = (turn * Math.PI) / 180;
  return {
    x: x + width / 2 + along * Math.cos(angle) - down * Math.sin(angle),
    y: y + height / 2 + along * Math.sin(angle) + down * Math.cos(angle),
  };
}

/** The share of a frame that a point of the page is: what `onPage` takes there. */
function shareAt({ x, y, width, height, rotation: turn, skew, ...flips }: Shape, point: Point): Point {
  const angle = (turn * Math.PI) / 180;
  const [right, below] = [point.x - x - width / 2, point.y - y - height / 2];
  const down = below * Math.cos(angle) - right * Math.sin(angle);
  const across = right * Math.cos(angle) + below * Math.sin(angle) - down * Math.tan((skew * Math.PI) / 180);
  return {
    x: 0.5 + (across / width) * (flips.reflectX ? -1 : 1),
    y: 0.5 + (down / height) * (flips.reflectY ? -1 : 1),
  };
}

/** The colour on white that a gradient of two stops has at a share of the frame; a mask lets its last colour through. */
function gradientColour(
  { kind, from, to, stops }: Gradient,
  { width, height }: Shape,
  share: Point,
  masks: boolean,
): number[] {
  const along = { x: (to.x - from.x) * width, y: (to.y - from.y) * height };
  const out = { x: (share.x - from.x) * width, y: (share.y - from.y) * height };
  const reach = Math.hypot(along.x, along.y);
  const way =
    kind === 'linear' ? (out.x * along.x + out.y * along.y) / reach ** 2 : Math.hypot(out.x, out.y) / reach;
  const t = Math.min(1, Math.max(0, way));
  const [first, last] = stops.map(({ colour }) =>
    [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16)),
  );
  const opacity = stops[0]!.opacity + (stops[1]!.opacity - stops[0]!.opacity) * t;
  return last!.map((value, channel) => {
    const ink = masks ? value : first![channel]! + (value - first![channel]!) * t;
    return ink * opacity + 255 * (1 - opacity);
  });
}

describe('several fills on one shape look the same on the stage, as PNG and as SVG', () => {
  it('blended by each of the sixteen modes over a picture', async () => {
    const cells = BLEND_MODES.map((blend, index) => {
      const cell = { x: (index % 4) * 90, y: Math.floor(index / 4) * 65, width: 88, height: 63 };
      return area(
        [
          coveringPicture('photo', photo, cell),
          dots({ blend, opacity: 0.8, ground: { kind: 'none' } }),
          { ...gradientFill('over', sunset), blend, opacity: 0.5 },
        ],
        { id: blend, form: { kind: 'rectangle', radius: 0 }, ...cell },
      );
    });
    // One mode that went wrong would be a sixteenth of the page.
    expectAlike(await everywhere(cells), 0.03);
  });

  it('blended on a clear page: there is nothing to blend with, and the colours stand', async () => {
    const drawn = await everywhere(
      [
        area(
          [colourFill('c', { colour: '#8fc7cf' }), dots({ blend: 'multiply', ground: { kind: 'none' } })],
          { x: 90 },
        ),
        area([{ ...colourFill('m', { colour: '#e5572e' }), blend: 'multiply' }], {
          id: 'lone',
          x: 0,
          y: 0,
          width: 80,
          height: 60,
        }),
      ],
      null,
    );
    const [r, g, b] = drawn.png.data.slice((30 * WIDTH + 40) * 4);
    expect([r, g, b]).toEqual([0xe5, 0x57, 0x2e]);
    const { png, stage } = drawn;
    // The stage lays a clear page on white.
    expect(differing({ data: overWhite(png) }, stage, 24)).toBeLessThan(0.02);
  });

  it('gradients, straight and round, on a turned, skewed and reflected shape', async () => {
    const round: Gradient = { ...fading, kind: 'radial', from: { x: 0.4, y: 0.5 }, to: { x: 0.9, y: 0.5 } };
    for (const gradient of [sunset, fading, round])
      expectAlike(
        await everywhere([
          area([colourFill('c', { colour: '#f8f4e8' }), { ...gradientFill('g', gradient), opacity: 0.9 }], {
            ...{ x: 80, y: 40, width: 200, height: 150, rotation: 25, skew: 12, reflectX: true },
          }),
        ]),
      );
  });

  it('gradients of fills, motifs and masks as they are defined, at 204 random turns, skews and reflections', async () => {
    const solid = await publishedPattern(
      recipe({ motifs: [block('b', 100, 100)], placings: [place('b', 50, 50)] }),
    );
    const random = seededRandom(15);
    let worst = { off: 0, where: '' };
    for (let page = 0; page < 17; page += 1) {
      const cells = Array.from({ length: 12 }, (_, cell) => gradientCell(random, cell, solid));
      const drawn = await everywhere(cells.map(({ shape }) => shape));
      for (const { shape, gradient, masks } of cells)
        for (let point = 0; point < 6; point += 1) {
          const lies = onPage(shape, { x: 0.2 + 0.6 * random(), y: 0.2 + 0.6 * random() });
          const pixel = { x: Math.floor(lies.x), y: Math.floor(lies.y) };
          const share = shareAt(shape, { x: pixel.x + 0.5, y: pixel.y + 0.5 });
          const defined = gradientColour(gradient, shape, share, masks);
          for (const [name, { data }] of Object.entries(drawn)) {
            const at = (pixel.y * WIDTH + pixel.x) * 4;
            const off = Math.max(...defined.map((value, channel) => Math.abs(value - data[at + channel]!)));
            if (off > worst.off) worst = { off, where: `${name}, ${shape.id} of page ${page}` };
          }
        }
    }
    expect(worst.off, worst.where).toBeLessThan(6);
  });

  it('a picture, shrunk, enlarged, turned and reflected, and a cut-out in front', async () => {
    for (const over of [
      {},
      { scaleX: 0.31, scaleY: 0.31, rotation: 30 },
      { scaleX: 2.4, scaleY: 1.9, rotation: -70, reflectY: true, skew: 8 },
    ])
      expectAlike(
        await everywhere([
          area([{ ...base(), ...over } as Fill]),
          area([coveringPicture('cut', cutOut, { width: 120, height: 120 })], {
            ...{ id: 'cut', x: 100, y: 60, width: 120, height: 120, form: { kind: 'rectangle', radius: 0 } },
          }),
        ]),
      );
  });

  it('a stroke with a pattern, a gradient, a picture or several of them, with each kind of end and corner', async () => {
    const star = { kind: 'star' as const, points: 5, inner: 0.5 };
    const pens = [
      { width: 44, cap: 'butt', join: 'miter', dashes: [] },
      { width: 36, cap: 'round', join: 'round', dashes: [40, 60] },
      { width: 30, cap: 'square', join: 'bevel', dashes: [70, 50, 10, 50] },
    ] as const;
    const paints: Fill[][] = [
      [dots({ opacity: 0.8 })],
      [base(), { ...dots({ blend: 'multiply', ground: { kind: 'none' } }), opacity: 0.9 }],
      [{ ...gradientFill('g', fading), opacity: 0.9 }, dots({ wash: sunset, ground: { kind: 'none' } })],
    ];
    for (const [index, fills] of paints.entries()) {
      const stroke = { ...pens[index]!, fills: fills.map((fill) => ({ ...fill, id: `${fill.id}${index}` })) };
      const inner = [colourFill('inside', { colour: '#e0f0ec' })];
      expectAlike(
        await everywhere([
          area(inner, { form: star, stroke, x: 60, y: 40, width: 230, height: 180, rotation: 8 }),
        ]),
      );
    }
  });

  it('a gradient over the motifs alone, opaque and fading; the ground stays', async () => {
    const ground = { kind: 'colour' as const, colour: '#e0f0ec' };
    for (const wash of [sunset, fading]) {
      const drawn = await everywhere([area([dots({ wash, opacity: 0.9, ground })])]);
      expectAlike(drawn);
      // A point of ground between the motifs keeps the ground's own colour.
      const plain = await everywhere([area([dots({ opacity: 0.9, ground })])]);
      const grounds = (picture: Pixels): number => countOf(picture, [224, 240, 236]);
      expect(Math.abs(grounds(drawn.png) - grounds(plain.png)) / grounds(plain.png)).toBeLessThan(0.02);
    }
  });
});

describe('soft masks look the same on the stage, as PNG and as SVG', () => {
  const stroke = (over: Partial<MaskStroke>): MaskStroke => ({
    ...{ mode: 'erase', size: 90, softness: 0.7, strength: 1, points: [60, 60, 150, 120, 240, 60] },
    ...over,
  });
  const masks: [string, () => Mask][] = [
    [
      'painted',
      () => ({
        kind: 'painted',
        matrix: IDENTITY,
        strokes: [stroke({}), stroke({ mode: 'restore', size: 40, strength: 0.8, points: [150, 110] })],
      }),
    ],
    [
      'painted, then turned and stretched',
      () => ({
        kind: 'painted',
        matrix: chain(translation(40, 10), rotation(20), scaling(0.8, 1.1)),
        strokes: [stroke({ softness: 0.2 })],
      }),
    ],
    ['a gradient', () => ({ kind: 'gradient', gradient: fading })],
    ['the light of a picture', () => ({ kind: 'picture', matrix: scaling(1.7), ...photo, inverted: false })],
    ['the dark of a picture', () => ({ kind: 'picture', matrix: scaling(1.7), ...photo, inverted: true })],
  ];

  it.each(masks)('over one fill: %s', async (_name, mask) => {
    expectAlike(await everywhere([area([base(), dots({ mask: mask(), blend: 'multiply' })])]));
  });

  it.each(masks)('over a whole shape: %s', async (_name, mask) => {
    const shape = area([base(), dots({ ground: { kind: 'none' }, blend: 'screen' })], { mask: mask() });
    const under = area([colourFill('c', { colour: '#e5572e' })], { id: 'under', y: 90, height: 60 });
    expectAlike(await everywhere([under, shape]));
  });
});

function countOf({ data }: Pixels, [red, green, blue]: number[]): number {
  let count = 0;
  for (let from = 0; from < data.length; from += 4)
    if (data[from] === red && data[from + 1] === green && data[from + 2] === blue) count += 1;
  return count;
}

function overWhite({ data }: Pixels): Uint8Array {
  const out = new Uint8Array(data);
  for (let from = 0; from < out.length; from += 4) {
    const alpha = out[from + 3]! / 255;
    for (let channel = 0; channel < 3; channel += 1)
      out[from + channel] = Math.round(out[from + channel]! * alpha + 255 * (1 - alpha));
  }
  return out;
}
