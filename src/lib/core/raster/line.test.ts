import { describe, expect, it } from 'vitest';
import { judgeLine, meanPicture } from './line';
import type { StraightPicture } from './recolour';

const SIDE = 25;

/** A grey picture by a function of its pixels. */
function picture(grey: (x: number, y: number) => number, side = SIDE): StraightPicture {
  const data = new Uint8Array(side * side * 4);
  for (let y = 0; y < side; y += 1)
    for (let x = 0; x < side; x += 1) data.set([grey(x, y), grey(x, y), grey(x, y), 255], (y * side + x) * 4);
  return { width: side, height: side, data };
}

describe('a line that is asked about', () => {
  const plain = picture(() => 90);
  const furrow = (depth: number) => picture((x) => (x === 13 ? 90 + depth : 90));
  const slanted = picture((x, y) => (Math.abs(x + y - 24) < 1 ? 130 : 90));
  const step = picture((x) => (x < 12 ? 60 : x === 12 ? 130 : 200));

  it.each([
    ['that only the screen shows', furrow(40), plain, { kind: 'screen', depth: 0, shown: 40 }],
    ['that both show', furrow(40), furrow(38), { kind: 'real', depth: 38, shown: 40 }],
    ['that slants', slanted, plain, { kind: 'screen', depth: 0, shown: 40 }],
    ['that the screen makes much deeper', furrow(60), furrow(9), { kind: 'screen', depth: 9, shown: 60 }],
    ['that is no line but rounding', furrow(2), plain, { kind: 'none' }],
    ['where two areas meet', step, step, { kind: 'edge' }],
    [
      'between two areas',
      picture((x) => (x < 12 ? 60 : x === 12 ? 240 : 200)),
      step,
      { kind: 'screen', depth: 0, shown: 40 },
    ],
    ['beside the place that was pressed', picture((x) => (x === 22 ? 250 : 90)), plain, { kind: 'none' }],
  ] as const)('%s', (_name, shown, exact, verdict) => {
    expect(judgeLine(shown, exact)).toEqual(verdict);
  });

  it('is sampled as the mean of each pixel', () => {
    const fine = picture((x, y) => (x % 4 === 0 && y % 4 === 0 ? 160 : 0), 40);
    const { width, data } = meanPicture(fine, 4);
    expect([width, ...data.slice(0, 4)]).toEqual([10, 10, 10, 10, 255]);
  });
});
