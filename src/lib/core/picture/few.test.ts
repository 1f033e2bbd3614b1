import { describe, expect, it } from 'vitest';
import { pixelOf, rasterOf } from '../../../../tests/support/rasters';
import { lookKey, PLAIN_LOOK, readLookKey, withColours } from '../colour/look';
import { channelsOf, hexOf } from '../colour/parse';
import { deltaOk, toOklab } from '../colour/space';
import { seededRandom } from '../num/random';
import type { Raster } from '../raster/composite';
import { colourNumbered } from '../raster/numbered';
import type { Few } from '../recipe/pictured';
import { findColours, numbered } from './few';

const STRAIGHT = { kind: 'straight' } as const;
const INKS = ['#1d2b4a', '#a33a2c', '#5f9e8f', '#f1e6c8'];
const flat = (over: Partial<Few> = {}): Few => ({ on: true, how: 'flat', colours: INKS, speck: 0, ...over });
const coloured = (unit: Raster, few: Few, colours = few.colours, lay = STRAIGHT as never): Raster => {
  const told = numbered(unit, few, lay);
  colourNumbered(told, colours);
  return told as Raster;
};

describe('a unit of four colours with grain', () => {
  const random = seededRandom(5);
  const unit = rasterOf(64, 48, (x, y) => {
    const ink = channelsOf(INKS[(x < 32 ? 0 : 1) + (y < 24 ? 0 : 2)]!);
    return ink.map((channel) => channel + (random() - 0.5) * 24);
  });

  it('is told by the four, dark first', () => {
    const found = findColours(unit, 'flat', 4);
    expect(found).toHaveLength(4);
    found.forEach((colour, index) =>
      expect(deltaOk(toOklab(colour), toOklab(INKS[index]!))).toBeLessThan(0.02),
    );
  });

  it('has at each pixel the nearest of its colours, against a search of all', () => {
    const made = coloured(unit, flat());
    for (const [x, y] of [
      [5, 5],
      [20, 40],
      [50, 10],
      [60, 45],
    ] as const) {
      const own = toOklab(hexOf(pixelOf(unit, x, y).slice(0, 3) as [number, number, number]));
      const nearest = [...INKS].sort(
        (one, other) => deltaOk(own, toOklab(one)) - deltaOk(own, toOklab(other)),
      )[0]!;
      expect(pixelOf(made, x, y).slice(0, 3)).toEqual(channelsOf(nearest));
    }
  });

  it('takes other colours pixel by pixel', () => {
    const other = ['#000000', '#ff0000', '#00ff00', '#ffffff'];
    const made = coloured(unit, flat(), other);
    expect(pixelOf(made, 5, 5)).toEqual([0, 0, 0, 255]);
    expect(pixelOf(made, 50, 5)).toEqual([255, 0, 0, 255]);
    expect(pixelOf(made, 5, 40)).toEqual([0, 255, 0, 255]);
    expect(pixelOf(made, 50, 40)).toEqual([255, 255, 255, 255]);
  });

  // The binomial filter of three across a straight edge: a quarter of the neighbour, three quarters of its own.
  it('has smooth edges, over the edges of the unit too', () => {
    const made = coloured(unit, flat(), ['#000000', '#ffffff', '#000000', '#ffffff']);
    const row = [31, 32, 63, 0].map((x) => pixelOf(made, x, 10)[0]);
    expect(row).toEqual([64, 191, 191, 64]);
    expect(pixelOf(made, 30, 10)[0]).toBe(0);
  });
});

describe('spots', () => {
  const dark = channelsOf(INKS[0]!);
  const light = channelsOf(INKS[3]!);
  /** A spot of six pixels: three at the lower edge, three where they go on in the next unit. */
  const spotted = (shift: number): Raster =>
    rasterOf(40, 30, (x, y) =>
      (y === 29 && x >= 10 && x < 13) || (y === 0 && x >= 10 - shift && x < 13 - shift) ? light : dark,
    );
  const lightAt = (unit: Raster, speck: number, lay: unknown): boolean =>
    coloured(unit, flat({ speck }), INKS, lay as never).data.some((value, at) => at % 4 === 0 && value > 120);

  it('under a size become what lies around them', () => {
    expect(lightAt(spotted(0), 6, STRAIGHT)).toBe(true);
    expect(lightAt(spotted(0), 7, STRAIGHT)).toBe(false);
  });

  it('are counted whole where a brick goes on shifted', () => {
    const brick = { kind: 'brick', step: 0.1 };
    expect(lightAt(spotted(4), 6, brick)).toBe(true);
    expect(lightAt(spotted(4), 6, STRAIGHT)).toBe(false);
  });
});

describe('a blend', () => {
  const ramp = rasterOf(256, 4, (x) => [x]);
  const few: Few = { on: true, how: 'blend', colours: ['#202020', '#808080', '#e0e0e0'], speck: 0 };

  it('mixes the two colours between which a lightness lies', () => {
    const told = numbered(ramp, few, STRAIGHT);
    const placeOf = (value: number): number => {
      const [one = 0, other = 0, share = 0] = pixelOf(told as Raster, value, 1);
      expect(other).toBe(one + 1);
      return one + share / 255;
    };
    for (const value of [0x20, 0x50, 0x80, 0xb0, 0xe0]) {
      const [low, high] = value < 0x80 ? [0, 1] : [1, 2];
      const light = (hex: string): number => toOklab(hex).l;
      const [from, to] = [light(few.colours[low]!), light(few.colours[high]!)];
      const share = (light(hexOf([value, value, value])) - from) / (to - from);
      expect(placeOf(value)).toBeCloseTo(low + share, 2);
    }
    expect(placeOf(0)).toBe(0);
    expect(placeOf(255)).toBe(2);
  });

  it('is found at even steps of lightness, from the darkest to the lightest', () => {
    const found = findColours(ramp, 'blend', 3).map((hex) => channelsOf(hex)[0]);
    expect(found[0]).toBeLessThan(10);
    expect(found[2]).toBeGreaterThan(245);
    expect(Math.abs(found[1]! - 128)).toBeLessThan(6);
  });
});

it('a look names the colours of the numbers, and is read back with them', () => {
  const look = withColours({ ...PLAIN_LOOK, map: [{ colour: '#000000' }, { colour: '#ffffff' }] }, INKS)!;
  expect(lookKey(look)).toBe('1d2b4a.a33a2c.5f9e8f.f1e6c8~000000.ffffff_0,0,1_');
  expect(readLookKey(lookKey(look))).toEqual(look);
  expect(withColours(PLAIN_LOOK, null)).toBeNull();
  expect(readLookKey(`${Array.from({ length: 9 }, () => '000000').join('.')}~_0,0,1_`)).toBeNull();
});
