import { describe, expect, it } from 'vitest';
import { texture } from '../../../../tests/support/rasters';
import { seededRandom } from '../num/random';
import { smoothPart, transform2, transformOf, type Plane } from './fourier';

const random = seededRandom(5);
const row = (size: number) => Float64Array.from({ length: size }, () => random() - 0.5);

describe('the Fourier transform', () => {
  // The definition: X(k) = Σ x(n) e^(−2πi kn/N).
  it.each([1, 2, 3, 4, 5, 8, 12, 17, 30, 64, 97, 100])(
    'of %i values is the direct sum, and goes back',
    (size) => {
      const [re, im] = [row(size), row(size)];
      const turned = transformOf(size).forward({ re, im });
      for (let k = 0; k < size; k += 1) {
        let [sumRe, sumIm] = [0, 0];
        for (let n = 0; n < size; n += 1) {
          const angle = (-2 * Math.PI * ((k * n) % size)) / size;
          sumRe += re[n]! * Math.cos(angle) - im[n]! * Math.sin(angle);
          sumIm += re[n]! * Math.sin(angle) + im[n]! * Math.cos(angle);
        }
        expect(Math.hypot(turned.re[k]! - sumRe, turned.im[k]! - sumIm)).toBeLessThan(1e-11 * size);
      }
      const back = transformOf(size).backward(turned);
      for (let n = 0; n < size; n += 1)
        expect(Math.hypot(back.re[n]! - re[n]!, back.im[n]! - im[n]!)).toBeLessThan(1e-12 * size);
    },
  );

  it('of a picture goes back to it, rows and columns of any size', () => {
    const [width, height] = [15, 22];
    const values = row(width * height);
    const turned = transform2(values, new Float64Array(values.length), width, height, 'forward');
    const back = transform2(turned.re, turned.im, width, height, 'backward').re;
    expect(Math.max(...back.map((value, at) => Math.abs(value - values[at]!)))).toBeLessThan(1e-12);
  });
});

// Moisan 2011, "Periodic plus smooth image decomposition".
describe('the smooth part of a picture', () => {
  const { width, height, data } = texture(90, 70, 4, { light: 70 });
  const plane: Plane = {
    width,
    height,
    values: Float64Array.from({ length: width * height }, (_, at) => data[at * 4]!),
  };
  const { values: smooth } = smoothPart(plane);
  const at = (values: Float64Array, x: number, y: number): number =>
    values[((y + height) % height) * width + ((x + width) % width)]!;

  it('solves the equation that defines it: its periodic Laplacian is the jump at the border and nothing else', () => {
    const { values } = plane;
    for (let y = 0; y < height; y += 1)
      for (let x = 0; x < width; x += 1) {
        const laplacian =
          at(smooth, x - 1, y) +
          at(smooth, x + 1, y) +
          at(smooth, x, y - 1) +
          at(smooth, x, y + 1) -
          4 * at(smooth, x, y);
        let jump = 0;
        if (x === 0) jump += at(values, -1, y) - at(values, 0, y);
        if (x === width - 1) jump += at(values, 0, y) - at(values, -1, y);
        if (y === 0) jump += at(values, x, -1) - at(values, x, 0);
        if (y === height - 1) jump += at(values, x, 0) - at(values, x, -1);
        expect(Math.abs(laplacian - jump)).toBeLessThan(1e-8);
      }
    expect(Math.abs(smooth.reduce((sum, value) => sum + value, 0))).toBeLessThan(1e-6);
  });

  it('leaves a periodic part whose step over the border is that within', () => {
    const step = (values: Float64Array, columns: readonly number[]): number => {
      let sum = 0;
      for (const x of columns)
        for (let y = 0; y < height; y += 1) sum += (at(values, x, y) - at(values, x - 1, y)) ** 2;
      return Math.sqrt(sum / (columns.length * height));
    };
    const inside = Array.from({ length: width - 2 }, (_, x) => x + 1);
    const periodic = plane.values.map((value, index) => value - smooth[index]!);
    expect(step(plane.values, [0]) / step(plane.values, inside)).toBeGreaterThan(3);
    expect(step(periodic, [0]) / step(periodic, inside)).toBeLessThan(1.15);
  });
});
