import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BLEND_MODES, blendColour, type Rgb } from '../colour/blend';
import { apply, type Affine } from '../geom/affine';
import { modulo } from '../num/tolerance';
import { layOver, type Raster } from './composite';
import { averageOf, halvings, samplePeriodic, samplePicture, spreadOf } from './sample';

/** Pixels from a seed: each byte another, alpha among them. */
function noise(width: number, height: number, seed: number): Raster {
  const data = new Uint8Array(width * height * 4);
  let state = seed;
  for (let at = 0; at < data.length; at += 1) {
    state = (state * 1103515245 + 12345) % 2147483648;
    data[at] = (state >> 8) % 256;
  }
  return { width, height, data };
}
const texel = ({ width, height, data }: Raster, x: number, y: number, channel: number): number =>
  data[(modulo(y, height) * width + modulo(x, width)) * 4 + channel]!;

/** Bilinear interpolation as textbooks have it, of a plane that repeats in both directions. */
function bilinear(tile: Raster, x: number, y: number, channel: number): number {
  const [left, top] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
  const [fx, fy] = [x - 0.5 - left, y - 0.5 - top];
  const row = (down: number): number =>
    texel(tile, left, top + down, channel) * (1 - fx) + texel(tile, left + 1, top + down, channel) * fx;
  return row(0) * (1 - fy) + row(1) * fy;
}

const anyMatrix = fc.record({
  a: fc.double({ min: -2, max: 2, noNaN: true }),
  b: fc.double({ min: -2, max: 2, noNaN: true }),
  c: fc.double({ min: -2, max: 2, noNaN: true }),
  d: fc.double({ min: -2, max: 2, noNaN: true }),
  e: fc.double({ min: -500, max: 500, noNaN: true }),
  f: fc.double({ min: -500, max: 500, noNaN: true }),
});

describe('sampling', () => {
  it('of a tile is the mean of bilinear samples, whatever the matrix and wherever the edges fall', () => {
    fc.assert(
      fc.property(
        anyMatrix,
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 9 }),
        (toTile, width, height) => {
          const tile = noise(width, height, width * 31 + height);
          const seen = samplePeriodic(tile, toTile, 6, 5);
          for (let at = 0; at < seen.data.length; at += 1) {
            const [x, y] = [(at >> 2) % 6, Math.floor((at >> 2) / 6)];
            const { a, b, c, d } = toTile;
            const spread = spreadOf(Math.sqrt(Math.abs(a * d - b * c)));
            const around = [0.5 - spread, 0.5 + spread];
            const places = around.flatMap((dy) => around.map((dx) => ({ x: x + dx, y: y + dy })));
            const mean = places
              .map((place) => apply(toTile, place))
              .reduce((sum, place) => sum + bilinear(tile, place.x, place.y, at % 4) / 4, 0);
            expect(Math.abs(seen.data[at]! - mean)).toBeLessThan(0.5 + 1e-6);
          }
        },
      ),
      { numRuns: 150, seed: 7 },
    );
  });

  it('of a flat tile is flat: no edge of it can show', () => {
    const flat: Raster = { width: 3, height: 2, data: new Uint8Array(24).fill(77) };
    fc.assert(
      fc.property(anyMatrix, (toTile: Affine) => {
        expect([...new Set(samplePeriodic(flat, toTile, 9, 9).data)]).toEqual([77]);
      }),
      { numRuns: 100, seed: 7 },
    );
  });

  it('of a picture at its own size is the picture, and nothing lies beyond it', () => {
    const picture = noise(7, 5, 3);
    const here: Affine = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };
    expect(samplePicture(picture, here, 7, 5).data).toEqual(picture.data);
    const beside = samplePicture(picture, { ...here, e: 5, f: -3 }, 4, 5);
    for (let at = 0; at < beside.data.length; at += 1) {
      const [x, y] = [(at >> 2) % 4, Math.floor((at >> 2) / 4)];
      const inside = x + 5 < 7 && y >= 3;
      expect(beside.data[at]).toBe(inside ? texel(picture, x + 5, y - 3, at % 4) : 0);
    }
  });

  // Fails where every pixel is a mean of four: a photograph at 1 : 1 kept 47 % of the energy of its gradients.
  it('keeps the sharpness of what lies 1 : 1, also where the scale is a hair off, and shrinks without a jump', () => {
    const picture = noise(32, 32, 12);
    const energy = ({ data }: Raster): number => {
      let sum = 0;
      for (let at = 4; at < data.length; at += 1)
        if ((at >> 2) % 32 > 0) sum += (data[at]! - data[at - 4]!) ** 2;
      return sum;
    };
    const at = (step: number): Affine => ({ a: step, b: 0, c: 0, d: step, e: 0, f: 0 });
    for (const hair of [1, 1 + 1e-9, 1 + 1e-5])
      for (const sample of [samplePeriodic, samplePicture])
        expect(energy(sample(picture, at(hair), 32, 32)) / energy(picture)).toBeGreaterThan(0.99);
    expect([0.5, 1, 1.0001].map(spreadOf)).toEqual([0, 0, 0]);
    expect(spreadOf(1.5)).toBe(0.25);
    expect(Math.abs(spreadOf(1.01) - spreadOf(1.011))).toBeLessThan(1e-3);
  });

  it('enlarged keeps its edge’s colour: it does not fade towards its rim', () => {
    const picture: Raster = { width: 2, height: 2, data: new Uint8Array(16).fill(200) };
    const seen = samplePicture(picture, { a: 0.1, b: 0, c: 0, d: 0.1, e: 0, f: 0 }, 20, 20);
    expect([...new Set(seen.data)]).toEqual([200]);
  });

  it('shrinks by halves until less than a half is left to do, and by the mean where nothing is left', () => {
    expect([1, 0.51, 0.5, 0.26, 0.25, 3].map(halvings)).toEqual([0, 0, 1, 1, 2, 0]);
    const tile: Raster = { width: 2, height: 1, data: Uint8Array.of(0, 100, 255, 255, 100, 0, 255, 255) };
    expect([...averageOf(tile, 1, 2).data]).toEqual([50, 50, 255, 255, 50, 50, 255, 255]);
  });
});

describe('laying one picture over another', () => {
  // The formula of W3C Compositing and Blending Level 1, section 5, on straight colours 0 to 1, which are taken to bytes.
  it.each(BLEND_MODES)('in mode %s is the standard’s formula at every pixel', (blend) => {
    const straight = ({ data }: Raster, at: number): { colour: Rgb; alpha: number } => {
      const alpha = data[at + 3]! / 255;
      const part = (channel: number): number =>
        alpha === 0 ? 0 : Math.min(255, Math.round(data[at + channel]! / alpha)) / 255;
      return { colour: [part(0), part(1), part(2)], alpha };
    };
    const premultiplied = (raster: Raster): Raster => {
      for (let at = 0; at < raster.data.length; at += 4)
        for (let channel = 0; channel < 3; channel += 1)
          raster.data[at + channel] = Math.round((raster.data[at + channel]! * raster.data[at + 3]!) / 255);
      return raster;
    };
    const layer = premultiplied(noise(12, 12, 5));
    const base = premultiplied(noise(12, 12, 9));
    const before = { ...base, data: base.data.slice() };
    const opacity = 0.6;
    layOver(base, layer, 0, 0, { blend, opacity });
    for (let at = 0; at < base.data.length; at += 4) {
      const [source, backdrop] = [straight(layer, at), straight(before, at)];
      const alpha = source.alpha * opacity;
      const mixed = blendColour(blend, backdrop.colour, source.colour);
      for (let channel = 0; channel < 3; channel += 1) {
        const expected =
          alpha * (1 - backdrop.alpha) * source.colour[channel]! +
          alpha * backdrop.alpha * mixed[channel]! +
          (1 - alpha) * backdrop.alpha * backdrop.colour[channel]!;
        expect(Math.abs(base.data[at + channel]! - 255 * expected)).toBeLessThan(1.01);
      }
      expect(Math.abs(base.data[at + 3]! - 255 * (alpha + backdrop.alpha * (1 - alpha)))).toBeLessThanOrEqual(
        1,
      );
    }
  });

  it('goes only where both are, and stops at the cover', () => {
    const base: Raster = { width: 3, height: 3, data: new Uint8Array(36) };
    const layer: Raster = { width: 2, height: 2, data: new Uint8Array(16).fill(255) };
    layOver(base, layer, -1, 2, { cover: { data: Uint8Array.of(255, 128, 255, 255), step: 1, first: 0 } });
    expect([...base.data.subarray(0, 24)].every((value) => value === 0)).toBe(true);
    expect([...base.data.subarray(24)]).toEqual([128, 128, 128, 128, 0, 0, 0, 0, 0, 0, 0, 0]);
  });
});
