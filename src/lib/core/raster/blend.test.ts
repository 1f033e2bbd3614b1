import sharp, { type Blend } from 'sharp';
import { describe, expect, it } from 'vitest';
import { BLEND_MODES, blendColour, type BlendMode, type Rgb } from '../colour/blend';
import { seededRandom } from '../num/random';
import { alphaOf, joinCovers, layOver, type Raster } from './composite';
import { samplePicture } from './sample';
import type { MaskStroke } from '../recipe/mask';
import { luminanceMask, paintedMask } from './soft-mask';

const random = seededRandom(7);

/** Random premultiplied pixels; opaque ones, or of any alpha. */
function noise(width: number, height: number, alphas: boolean): Raster {
  const data = new Uint8Array(width * height * 4);
  for (let at = 0; at < data.length; at += 4) {
    const alpha = alphas ? Math.floor(random() * 256) : 255;
    for (let channel = 0; channel < 3; channel += 1)
      data[at + channel] = Math.floor(((random() * 256) | 0) * (alpha / 255));
    data[at + 3] = alpha;
  }
  return { width, height, data };
}

function straight({ data }: Raster): Buffer {
  const out = Buffer.from(data);
  for (let at = 0; at < out.length; at += 4) {
    const alpha = out[at + 3] ?? 0;
    for (let channel = 0; channel < 3; channel += 1)
      out[at + channel] =
        alpha === 0 ? 0 : Math.min(255, Math.round(((out[at + channel] ?? 0) * 255) / alpha));
  }
  return out;
}

const flat = (colour: readonly number[], side = 4): Raster => ({
  width: side,
  height: side,
  data: new Uint8Array(side * side * 4).map((_, at) => colour[at % 4] ?? 255),
});

/** What libvips calls the modes that it has. */
const THEIRS: Partial<Record<BlendMode, Blend>> = {
  multiply: 'multiply',
  screen: 'screen',
  overlay: 'overlay',
  darken: 'darken',
  lighten: 'lighten',
  'color-dodge': 'colour-dodge',
  'color-burn': 'colour-burn',
  'hard-light': 'hard-light',
  'soft-light': 'soft-light',
  difference: 'difference',
  exclusion: 'exclusion',
};

describe('blending (W3C Compositing and Blending Level 1)', () => {
  it.each(Object.entries(THEIRS))('%s over an opaque page agrees with libvips', async (mode, theirs) => {
    const base = noise(40, 30, false);
    const layer = noise(40, 30, false);
    const raw = { width: 40, height: 30, channels: 4 } as const;
    const expected = await sharp(straight(base), { raw })
      .composite([{ input: straight(layer), raw, blend: theirs }])
      .raw()
      .toBuffer();
    layOver(base, layer, 0, 0, { blend: mode as BlendMode });
    let worst = 0;
    base.data.forEach((value, at) => (worst = Math.max(worst, Math.abs(value - (expected[at] ?? 0)))));
    expect(worst).toBeLessThanOrEqual(1);
  });

  // Worked by hand from the text of the standard, section 9: opaque colours, in 255ths.
  it.each<[BlendMode, Rgb, Rgb, Rgb]>([
    ['multiply', [200, 100, 0], [100, 100, 100], [78, 39, 0]],
    ['screen', [200, 100, 0], [100, 100, 100], [222, 161, 100]],
    ['color', [60, 60, 60], [200, 100, 50], [104, 42, 11]],
    ['luminosity', [200, 100, 50], [60, 60, 60], [104, 37, 4]],
    ['saturation', [200, 100, 50], [90, 90, 90], [125, 125, 125]],
  ])('%s gives the worked colour', (mode, backdrop, source, expected) => {
    const unit = (colour: Rgb) => colour.map((value) => value / 255) as unknown as Rgb;
    const mixed = blendColour(mode, unit(backdrop), unit(source));
    if (mode === 'color' || mode === 'luminosity') {
      // What these two promise: the luminosity of one, and no channel out of range.
      const lum = ([r, g, b]: Rgb) => 0.3 * r + 0.59 * g + 0.11 * b;
      expect(lum(mixed) * 255).toBeCloseTo(lum(mode === 'color' ? backdrop : source), 6);
      expect(Math.min(...mixed)).toBeGreaterThanOrEqual(-1e-9);
      return;
    }
    mixed.forEach((value, at) => expect(Math.abs(value * 255 - expected[at]!)).toBeLessThan(0.6));
  });

  it('leaves the source as it is on a clear page, in every mode', () => {
    for (const blend of BLEND_MODES) {
      const base = flat([0, 0, 0, 0]);
      layOver(base, flat([40, 80, 120, 200]), 0, 0, { blend });
      expect([...base.data.slice(0, 4)]).toEqual([40, 80, 120, 200]);
    }
  });

  // A pattern at 33 to 40 % screened over a picture leaves its black areas: screen with black changes nothing.
  it('a screened black leaves every pixel unchanged at any opacity', () => {
    const base = noise(30, 30, false);
    const before = base.data.slice();
    layOver(base, flat([0, 0, 0, 255], 30), 0, 0, { blend: 'screen', opacity: 0.35 });
    expect(base.data).toEqual(before);
  });

  it('a 20 % watermark changes each channel by 20 % of the difference', () => {
    const base = noise(30, 30, false);
    const before = base.data.slice();
    const ink = [10, 200, 90, 255];
    layOver(base, flat(ink, 30), 0, 0, { opacity: 0.2 });
    base.data.forEach((value, at) => {
      const exact = before[at]! + 0.2 * (ink[at % 4]! - before[at]!);
      expect(Math.abs(value - exact)).toBeLessThanOrEqual(0.5 + 1e-9);
    });
  });
});

describe('soft masks', () => {
  const stroke: MaskStroke = {
    mode: 'erase',
    size: 40,
    softness: 0.5,
    strength: 1,
    points: [50, 50, 50, 50],
  };
  const at = (mask: Uint8Array, x: number, y: number): number => mask[y * 100 + x]!;
  const identity = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

  it('fade from the core of the brush to its rim, the same at any resolution', () => {
    const mask = paintedMask([stroke], identity, 100, 100);
    expect(at(mask, 50, 50)).toBe(0);
    expect(at(mask, 58, 50)).toBe(0);
    expect(at(mask, 72, 50)).toBe(255);
    expect(at(mask, 63, 50)).toBeLessThan(at(mask, 65, 50));
    // Half way between core (10 px) and rim (20 px) the fade is half done.
    const half = (at(mask, 64, 50) + at(mask, 65, 50)) / 2;
    expect(Math.abs(half - 127.5)).toBeLessThan(10);
    const twice = paintedMask([stroke], { ...identity, a: 0.5, d: 0.5 }, 200, 200);
    for (const x of [52, 60, 63, 66, 69]) {
      const mean = (twice[100 * 200 + 2 * x]! + twice[100 * 200 + 2 * x + 1]!) / 2;
      expect(Math.abs(mean - at(mask, x, 50))).toBeLessThan(8);
    }
  });

  it('never add up where a stroke crosses itself, restore what was erased, and count by strength', () => {
    const crossing = { ...stroke, strength: 0.5, points: [30, 50, 70, 50, 50, 30, 50, 70] };
    expect(at(paintedMask([crossing], identity, 100, 100), 50, 50)).toBe(128);
    const restored = paintedMask([stroke, { ...stroke, mode: 'restore', size: 80 }], identity, 100, 100);
    expect(Math.min(...restored)).toBeGreaterThanOrEqual(254);
  });

  it('are what the distance to every segment says, pixel by pixel, through any matrix', () => {
    const about = (reach: number): number => (random() - 0.5) * reach;
    let worst = 0;
    for (let round = 0; round < 60; round += 1) {
      const lines = Array.from(
        { length: 8 + (round % 9) * 2 },
        () => 50 + about(round % 3 === 0 ? 4000 : 120),
      );
      const [size, softness, strength] = [10 ** (random() * 3 - 1), random(), 0.2 + 0.8 * random()];
      const line: MaskStroke = { mode: 'erase', size, softness, strength, points: lines };
      const toMask = {
        ...{ a: 2 + about(3), b: about(1), c: about(1), d: 2 + about(3) },
        ...{ e: about(60), f: about(60) },
      };
      const pixel = Math.sqrt(Math.abs(toMask.a * toMask.d - toMask.b * toMask.c));
      const outer = size / 2 + pixel / 2;
      const inner = Math.max(0, Math.min((size / 2) * (1 - softness), outer - pixel));
      const mask = paintedMask([line], toMask, 50, 40);
      for (let y = 0; y < 40; y += 1)
        for (let x = 0; x < 50; x += 1) {
          const px = toMask.a * (x + 0.5) + toMask.c * (y + 0.5) + toMask.e;
          const py = toMask.b * (x + 0.5) + toMask.d * (y + 0.5) + toMask.f;
          let nearest = Infinity;
          for (let step = 0; step < lines.length; step += 2) {
            const [ax, ay] = lines.slice(Math.max(0, step - 2)) as [number, number];
            const [bx, by] = lines.slice(step) as [number, number];
            const [dx, dy] = [bx - ax, by - ay];
            const along = ((px - ax) * dx + (py - ay) * dy) / (dx * dx + dy * dy || 1);
            const kept = Math.min(1, Math.max(0, along));
            nearest = Math.min(nearest, Math.hypot(px - ax - kept * dx, py - ay - kept * dy));
          }
          const t = Math.min(1, Math.max(0, (nearest - inner) / (outer - inner)));
          const cover = nearest >= outer ? 0 : strength * (1 - 3 * t * t + 2 * t * t * t);
          worst = Math.max(worst, Math.abs(mask[y * 50 + x]! - 255 * (1 - cover)));
        }
    }
    expect(worst).toBeLessThan(0.6);
  });

  it('weigh a picture by its luminance, or by what is left of it', () => {
    const picture = flat([255, 0, 0, 255]);
    expect(luminanceMask(picture, false)[0]).toBe(Math.round(0.2125 * 255));
    expect(luminanceMask(picture, true)[0]).toBe(Math.round(0.7875 * 255));
    expect(luminanceMask(flat([0, 0, 0, 0]), true)[0]).toBe(0);
  });

  it('join with an outline: what either hides is hidden', () => {
    const outline = alphaOf(flat([0, 0, 0, 128]));
    const joined = joinCovers(outline, { data: new Uint8Array(16).fill(128), step: 1, first: 0 });
    expect(joined?.data[0]).toBe(64);
    expect(joinCovers(null, outline)).toBe(outline);
  });
});

it('a picture laid once keeps its colours to the edge, at any size, and is clear beyond it', () => {
  const picture = flat([90, 60, 30, 255], 8);
  for (const scale of [0.7, 1, 3.3]) {
    const drawn = samplePicture(picture, { a: 1 / scale, b: 0, c: 0, d: 1 / scale, e: 0, f: 0 }, 40, 40);
    const last = Math.floor(8 * scale) - 1;
    expect([...drawn.data.slice((last * 40 + last) * 4, (last * 40 + last) * 4 + 4)]).toEqual([
      90, 60, 30, 255,
    ]);
    expect(drawn.data[(39 * 40 + 39) * 4 + 3]).toBe(0);
  }
});
