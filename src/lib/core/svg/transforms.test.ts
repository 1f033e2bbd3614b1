import { describe, expect, it } from 'vitest';
import { apply, IDENTITY } from '../geom/affine';
import { importSvg } from './import';
import { lengthOf, shareOf } from './lengths';
import { ownTransform, transformOf } from './transforms';

const MEASURES = { fontSize: 20, viewport: { width: 300, height: 400 } };

describe('lengths (CSS Values and Units; SVG 2, section 8.9)', () => {
  it.each([
    ['1in', 96],
    ['25.4mm', 96],
    ['2.54cm', 96],
    ['6pc', 96],
    ['72pt', 96],
    ['101.6q', 96],
    ['2em', 40],
    ['1ex', 10],
    ['1rem', 16],
    ['1e1', 10],
    [' -.5px ', -0.5],
  ])('%s is %d px', (text, px) => expect(lengthOf(text, MEASURES)).toBeCloseTo(px, 9));

  it('takes shares of the side that they are along, or of the diagonal over √2', () => {
    expect(lengthOf('10%', MEASURES, 'x')).toBe(30);
    expect(lengthOf('10%', MEASURES, 'y')).toBe(40);
    expect(lengthOf('10%', MEASURES)).toBeCloseTo(50 / Math.SQRT2, 9);
    expect(shareOf('150%', 0)).toBe(1);
    expect(shareOf('150%', 0, false)).toBe(1.5);
  });

  it('takes what is no length as nothing, however long it is, at once', () => {
    for (const text of ['', 'wide', '1furlong', '1px 2px', '9'.repeat(2_000_000), '1'.repeat(70)])
      expect(lengthOf(text, MEASURES, 'x', 7)).toBe(7);
  });
});

describe('transform lists (CSS Transforms 1)', () => {
  const moved = (text: string, x = 10, y = 0): number[] => {
    const point = apply(transformOf(text, MEASURES), { x, y });
    return [point.x, point.y].map((value) => Math.round(value * 1e6) / 1e6 + 0);
  };

  it('are applied from the right to the left, in numbers or with units', () => {
    expect(moved('translate(5 7) rotate(90)')).toEqual([5, 17]);
    expect(moved('rotate(90),translate(5,7)')).toEqual([-7, 15]);
    expect(moved('translate(30px, 20px) rotate(.25turn) scaleX(2)')).toEqual([30, 40]);
    expect(moved('rotate(100grad)')).toEqual([0, 10]);
    expect(moved('rotate(1.5707963267948966rad)')).toEqual([0, 10]);
    expect(moved('rotate(90 10 10)')).toEqual([20, 10]);
    expect(moved('translate(50%, 25%)')).toEqual([160, 100]);
    expect(moved('skewX(45)', 0, 10)).toEqual([10, 10]);
    expect(moved('matrix(1 0 0 1 3 4)')).toEqual([13, 4]);
    expect(moved('scale(3)', 2, 5)).toEqual([6, 15]);
  });

  it('count as none where they cannot be read', () => {
    for (const text of [
      'rotate(10',
      'wobble(3)',
      'translate(a)',
      'rotate(1) x',
      'scale(1e400)',
      '9'.repeat(9e5),
    ])
      expect(transformOf(text, MEASURES)).toEqual(IDENTITY);
  });

  it('turn about their origin', () => {
    const turned = ownTransform({ transform: 'rotate(90deg)', 'transform-origin': '10px 20px' }, MEASURES);
    expect(apply(turned, { x: 20, y: 20 }).x).toBeCloseTo(10, 9);
    expect(apply(turned, { x: 20, y: 20 }).y).toBeCloseTo(30, 9);
    const middle = ownTransform({ transform: 'scale(-1)', 'transform-origin': 'center' }, MEASURES);
    expect(apply(middle, { x: 0, y: 0 })).toEqual({ x: 300, y: 400 });
  });
});

describe('a stroke that does not scale', () => {
  it('keeps its width whatever the transform, but for that of the file', () => {
    const read = importSvg(
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="300"><rect transform="scale(8 3)" width="8" height="20" fill="none" stroke="#000" stroke-width="4" vector-effect="non-scaling-stroke"/></svg>',
      () => 's',
    );
    expect(read.ok && read.content.elements[0]?.stroke?.width).toBeCloseTo(12, 9);
  });
});
