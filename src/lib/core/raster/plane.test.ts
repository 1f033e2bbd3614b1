import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { picturePattern, planeRepeats } from '../../../../tests/support/picture-patterns';
import { apply, chain, invert, rotation, scaling, translation, type Affine } from '../geom/affine';
import type { PicturePlane } from '../geom/plane';
import type { Point } from '../geom/point';
import { seededRandom } from '../num/random';
import { compileUnit } from '../scene/unit';
import type { Raster } from './composite';
import { samplePlane } from './plane';
import { spreadOf } from './sample';

/** Opaque pixels from a seed. */
function noise(width: number, height: number, seed: number): Raster {
  const random = seededRandom(seed);
  const data = Uint8Array.from({ length: width * height * 4 }, (_, at) =>
    at % 4 === 3 ? 255 : Math.floor(random() * 256),
  );
  return { width, height, data };
}

/** The picture's pixel at a place of the plane, found by trying every part at every offset; the nearest where none holds it. */
function texelAt({ a, b, parts }: PicturePlane, pictures: readonly Raster[], at: Point): Texel {
  let best: { off: number; texel: Texel } | null = null;
  const det = a.x * b.y - a.y * b.x;
  const home = {
    i: Math.floor((at.x * b.y - at.y * b.x) / det),
    j: Math.floor((a.x * at.y - a.y * at.x) / det),
  };
  for (const part of parts)
    for (let i = home.i - 3; i <= home.i + 3; i += 1)
      for (let j = home.j - 3; j <= home.j + 3; j += 1) {
        const laid = chain(translation(i * a.x + j * b.x, i * a.y + j * b.y), part.matrix);
        const { x, y } = apply(invert(laid)!, at);
        const off = Math.max(-x, -y, x - part.width, y - part.height);
        if (best && best.off <= off) continue;
        best = { off, texel: { picture: pictures[part.picture]!, laid, x, y } };
      }
  return best!.texel;
}
type Texel = { picture: Raster; laid: Affine; x: number; y: number };

const value = ({ picture: { width, height, data }, x, y }: Texel, channel: number): number => {
  const column = Math.min(width - 1, Math.max(0, Math.floor(x)));
  const row = Math.min(height - 1, Math.max(0, Math.floor(y)));
  return data[(row * width + column) * 4 + channel]!;
};

/** Bilinear interpolation between the four pixels of the plane round a place, in the grid of the picture that `middle` lies in. */
function defined(plane: PicturePlane, pictures: readonly Raster[], middle: Point, at: Point): number[] {
  const { laid } = texelAt(plane, pictures, middle);
  const { x, y } = apply(invert(laid)!, at);
  const [left, top] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
  const [fx, fy] = [x - 0.5 - left, y - 0.5 - top];
  return [0, 1, 2, 3].map((channel) => {
    const pixel = (dx: number, dy: number): number =>
      value(texelAt(plane, pictures, apply(laid, { x: left + dx + 0.5, y: top + dy + 0.5 })), channel);
    return (
      (pixel(0, 0) * (1 - fx) + pixel(1, 0) * fx) * (1 - fy) +
      (pixel(0, 1) * (1 - fx) + pixel(1, 1) * fx) * fy
    );
  });
}

const SIZE = { width: 9, height: 6 };
const planeOf = (name: string): PicturePlane => compileUnit(picturePattern(planeRepeats[name]!, SIZE)).plane!;

describe('a plane of pictures', () => {
  it.each(Object.keys(planeRepeats))('is sampled as it is defined, whatever the matrix: %s', (name) => {
    const plane = planeOf(name);
    const pictures = [noise(SIZE.width, SIZE.height, 5)];
    const numbers = fc.record({
      turn: fc.double({ min: -180, max: 180, noNaN: true }),
      step: fc.double({ min: 0.2, max: 2, noNaN: true }),
      x: fc.double({ min: -300, max: 300, noNaN: true }),
      y: fc.double({ min: -300, max: 300, noNaN: true }),
    });
    fc.assert(
      fc.property(numbers, ({ turn, step, x, y }) => {
        const toPlane = chain(translation(x, y), rotation(turn), scaling(step));
        const seen = samplePlane(plane, pictures, toPlane, 7, 5);
        const spread = spreadOf(step);
        for (let pixel = 0; pixel < 35; pixel += 1) {
          const middle = { x: (pixel % 7) + 0.5, y: Math.floor(pixel / 7) + 0.5 };
          // At the very edge of two pictures either may have the pixel.
          const here = texelAt(plane, pictures, apply(toPlane, middle));
          if (Math.min(here.x, here.y, SIZE.width - here.x, SIZE.height - here.y) < 1e-6) continue;
          const places = [-spread, spread].flatMap((dy) =>
            [-spread, spread].map((dx) => apply(toPlane, { x: middle.x + dx, y: middle.y + dy })),
          );
          const samples = places.map((at) => defined(plane, pictures, apply(toPlane, middle), at));
          for (let channel = 0; channel < 4; channel += 1) {
            const mean = samples.reduce((sum, sample) => sum + sample[channel]!, 0) / 4;
            // Weights have eight bits, and each of three roundings half a step.
            expect(Math.abs(seen.data[pixel * 4 + channel]! - mean)).toBeLessThanOrEqual(2.6);
          }
        }
      }),
      { numRuns: 10, seed: 11 },
    );
  });

  it.each(Object.keys(planeRepeats))(
    'of one colour is of one colour at 200 scales and angles: %s',
    (name) => {
      const plane = planeOf(name);
      const flat: Raster = { ...SIZE, data: new Uint8Array(SIZE.width * SIZE.height * 4).fill(201) };
      const random = seededRandom(3);
      for (let round = 0; round < 200; round += 1) {
        const step = 0.1 * 20 ** random();
        const toPlane = chain(
          translation(random() * 99, random() * 99),
          rotation(random() * 360),
          scaling(step),
        );
        expect(new Set(samplePlane(plane, [flat], toPlane, 40, 8).data)).toEqual(new Set([201]));
      }
    },
  );

  it('copies the very pixels where they lie on those of the output, upright, turned by quarters and turned over', () => {
    const picture = noise(SIZE.width, SIZE.height, 9);
    const plane = planeOf('mirror');
    const pixel = (x: number, y: number): number[] => [
      ...picture.data.subarray((y * SIZE.width + x) * 4).subarray(0, 4),
    ];
    for (const [turn, toPicture] of [
      [0, (x: number, y: number) => [x, y]],
      [90, (x: number, y: number) => [-1 - y, x]],
      [180, (x: number, y: number) => [-1 - x, -1 - y]],
    ] as const) {
      const seen = samplePlane(plane, [picture], rotation(turn), 30, 20);
      for (let at = 0; at < 600; at += 1) {
        const [x, y] = toPicture(at % 30, Math.floor(at / 30)) as [number, number];
        // Every second picture is turned over, across and down.
        const fold = (place: number, size: number): number => {
          const rest = ((place % (2 * size)) + 2 * size) % (2 * size);
          return rest < size ? rest : 2 * size - 1 - rest;
        };
        expect([...seen.data.subarray(at * 4, at * 4 + 4)]).toEqual(
          pixel(fold(x, SIZE.width), fold(y, SIZE.height)),
        );
      }
    }
  });

  it('is not taken for one where something is left open, overlaps, is cut, or is seen through', () => {
    const full = picturePattern({ kind: 'straight' }, SIZE);
    const [placing] = full.placings;
    const changed = (over: object) => compileUnit({ ...full, ...over }).plane;
    expect(compileUnit(full).plane?.parts).toHaveLength(1);
    expect(changed({ gap: { across: 1, down: 0 } })).toBeNull();
    expect(changed({ placings: [{ ...placing!, scaleX: 1.2 }] })).toBeNull();
    expect(changed({ placings: [{ ...placing!, rotation: 10 }] })).toBeNull();
    expect(changed({ placings: [{ ...placing!, opacity: 0.5 }] })).toBeNull();
  });
});
