import { describe, expect, it } from 'vitest';
import { pixelOf, rasterOf } from '../../../../tests/support/rasters';
import { LINEAR } from '../colour/contrast';
import { colourNumbered } from '../raster/numbered';
import type { Raster } from '../raster/composite';
import type { PictureLay, Screen } from '../recipe/pictured';
import { cellsOf, halftone } from './halftone';

const STRAIGHT: PictureLay = { kind: 'straight' };
const INKS = ['#101820', '#f4efe2'];
const screen = (over: Partial<Screen> = {}): Screen => ({ across: 10, turn: 0, form: 'round', ...over });
/** The halftone in its colours. */
function shown(unit: Raster, by: Screen, lay = STRAIGHT): Raster {
  const told = halftone(unit, INKS, by, lay);
  colourNumbered(told, INKS);
  return { ...told, data: new Uint8Array(told.data) };
}
const grey = (value: number, width = 120, height = 90): Raster => rasterOf(width, height, () => [value]);
const lightOf = (raster: Raster): number => {
  let sum = 0;
  for (let at = 0; at < raster.data.length; at += 4)
    sum += [0.2126, 0.7152, 0.0722].reduce(
      (part, weight, channel) => part + weight * LINEAR[raster.data[at + channel]!]!,
      0,
    );
  return sum / (raster.data.length / 4);
};

describe('the cells of a screen', () => {
  it.each([
    [STRAIGHT, 0, 0],
    [{ kind: 'brick', step: 0.3 }, 36, 0],
    [{ kind: 'half-drop', step: 0.5 }, 0, 45],
  ] as [PictureLay, number, number][])(
    '%j are whole from unit to unit, whatever their turn',
    (lay, along, down) => {
      for (const turn of [0, 7, 22.5, 45, -60, 90]) {
        const { px, py, qx, qy } = cellsOf({ width: 120, height: 90 }, lay, screen({ across: 11, turn }));
        for (const [x, y] of [
          [120, down],
          [along, 90],
        ] as const)
          for (const cells of [x * px + y * py, x * qx + y * qy])
            expect(Math.abs(cells - Math.round(cells))).toBeLessThan(1e-9);
        // About as many as were asked for, turned about as far.
        expect(Math.hypot(px, qx) * 120).toBeGreaterThan(9);
        expect(Math.hypot(px, qx) * 120).toBeLessThan(13);
      }
    },
  );
});

describe('a halftone', () => {
  // The area law of Murray and Davies (1936): light is that of ink and paper by their areas.
  it.each(['round', 'line'] as const)('of %s covers as much as is as light as the picture was', (form) => {
    for (const value of [60, 110, 150, 200, 225]) {
      const unit = grey(value);
      const made = halftone(unit, INKS, screen({ form, turn: 15 }), STRAIGHT);
      const [ink, paper] = INKS.map((colour) => lightOf(rasterOf(1, 1, () => channels(colour))));
      let share = 0;
      for (let at = 2; at < made.data.length; at += 4) share += made.data[at]! / 255;
      share /= made.data.length / 4;
      const light = ink! * (1 - share) + paper! * share;
      expect(Math.abs(light - lightOf(unit))).toBeLessThan(0.012);
    }
  });

  it('has round dots in the middles of its cells, holes in the dark, and only its two colours but at edges', () => {
    const light = shown(grey(200), screen());
    const dark = shown(grey(70), screen());
    // Cells of 12 px: the middle of a dot lies at 0, the middle between four at 6.
    expect(pixelOf(light, 0, 0).slice(0, 3)).toEqual(channels(INKS[0]!));
    expect(pixelOf(light, 6, 6).slice(0, 3)).toEqual(channels(INKS[1]!));
    expect(pixelOf(dark, 6, 6).slice(0, 3)).toEqual(channels(INKS[1]!));
    expect(pixelOf(dark, 6, 0).slice(0, 3)).toEqual(channels(INKS[0]!));
    const inside = (raster: Raster): number => {
      let count = 0;
      for (let at = 0; at < raster.data.length; at += 4)
        if (
          INKS.some((colour) =>
            channels(colour).every((value, channel) => value === raster.data[at + channel]),
          )
        )
          count += 1;
      return count / (raster.data.length / 4);
    };
    expect(inside(light)).toBeGreaterThan(0.6);
  });

  it('is wholly ink where it is as dark as the ink, and wholly paper where it is as light', () => {
    const made = halftone(
      rasterOf(60, 20, (x) => (x < 30 ? channels(INKS[0]!) : channels(INKS[1]!))),
      INKS,
      screen(),
      STRAIGHT,
    );
    for (let x = 0; x < 60; x += 1) expect(made.data[(7 * 60 + x) * 4 + 2]).toBe(x < 30 ? 0 : 255);
  });

  it('keeps what is clear clear', () => {
    const unit = grey(120);
    unit.data[3] = 0;
    expect(halftone(unit, INKS, screen(), STRAIGHT).data[3]).toBe(0);
  });
});

function channels(hex: string): number[] {
  return [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16));
}
