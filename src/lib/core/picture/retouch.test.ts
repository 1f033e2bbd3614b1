import { describe, expect, it } from 'vitest';
import { pixelOf, rasterOf, texture } from '../../../../tests/support/rasters';
import { checkRecipe } from '../recipe/check';
import type { PicturedRecipe } from '../recipe/recipe';
import { madeAsset } from '../recipe/made';
import { freshPictured, type Pictured, type RetouchStroke } from '../recipe/pictured';
import type { Raster } from '../raster/composite';
import { makeUnit } from './make';
import { filledIn, healFrom, retouch } from './retouch';

const STRAIGHT = { kind: 'straight' } as const;
const hard = { size: 12, softness: 0, strength: 1 };
const copyOf = (raster: Raster): Raster => ({ ...raster, data: raster.data.slice() });
/** A unit in which every pixel says where it is. */
const places = rasterOf(40, 30, (x, y) => [x * 6, y * 8, 0]);

describe('a clone stroke', () => {
  it.each([
    ['laid straight', STRAIGHT],
    ['in brick', { kind: 'brick', step: 0.5 }],
    ['in half-drop', { kind: 'half-drop', step: 0.5 }],
  ] as const)('over the corner of a unit %s covers what lies there, from where it says', (_, lay) => {
    const unit = copyOf(places);
    const stroke: RetouchStroke = { does: 'clone', from: { x: 15, y: 9 }, ...hard, points: [0, 0, 3, 0] };
    retouch(unit, null, [stroke], lay, 1);
    // By the definition: a disc along a line, repeated over the plane.
    const along = lay.kind === 'brick' ? 20 : 0;
    const down = lay.kind === 'half-drop' ? 15 : 0;
    const far = (x: number, y: number): number => {
      const all: number[] = [];
      for (let i = -2; i <= 2; i += 1)
        for (let j = -2; j <= 2; j += 1) {
          const [dx, dy] = [x + 0.5 - i * 40 - j * along, y + 0.5 - j * 30 - i * down];
          all.push(Math.hypot(dx - Math.max(0, Math.min(3, dx)), dy));
        }
      return Math.min(...all);
    };
    const at = (x: number, y: number): number[] => {
      const row = lay.kind === 'half-drop' ? 0 : Math.floor(y / 30);
      const column = lay.kind === 'half-drop' ? Math.floor(x / 40) : 0;
      const modulo = (value: number, length: number): number => ((value % length) + length) % length;
      return [...pixelOf(places, modulo(x - row * along, 40), modulo(y - column * down, 30))];
    };
    let covered = 0;
    for (let y = 0; y < 30; y += 1)
      for (let x = 0; x < 40; x += 1) {
        const from = far(x, y);
        if (Math.abs(from - 6) < 0.75) continue;
        if (from < 6) covered += 1;
        expect([...pixelOf(unit, x, y)]).toEqual(from < 6 ? at(x + 15, y + 9) : at(x, y));
      }
    expect(covered).toBeGreaterThan(100);
  });

  it('half as strong is half of each', () => {
    const unit = rasterOf(40, 30, (x) => (x < 20 ? [40, 40, 40] : [200, 200, 200]));
    const stroke: RetouchStroke = {
      does: 'clone',
      from: { x: 20, y: 0 },
      ...hard,
      strength: 0.5,
      points: [10, 15],
    };
    retouch(unit, null, [stroke], STRAIGHT, 1);
    expect([...pixelOf(unit, 10, 15)].slice(0, 3)).toEqual([120, 120, 120]);
  });
});

describe('a healing stroke', () => {
  /** Grain under light that falls over the unit and comes back, and the same with a blot on it. */
  const grain = texture(96, 96, 11, { light: 0 });
  const light = (x: number): number => 40 * Math.sin((2 * Math.PI * x) / 96);
  const clean = rasterOf(96, 96, (x, y) =>
    [...pixelOf(grain, x, y)].slice(0, 3).map((value) => Math.round(60 + value * 0.4 + light(x))),
  );
  const spoilt = rasterOf(96, 96, (x, y) =>
    Math.hypot(x - 48, y - 48) < 8 ? [10, 10, 10] : [...pixelOf(clean, x, y)].slice(0, 3),
  );
  const stroke = { ...hard, size: 24, softness: 0.2, points: [48, 48] };
  const from = { x: 30, y: 0 };
  const mean = (unit: Raster): number => {
    let [sum, count] = [0, 0];
    for (let y = 38; y < 58; y += 1)
      for (let x = 38; x < 58; x += 1)
        if (Math.hypot(x - 48, y - 48) < 8) {
          sum += pixelOf(unit, x, y)[0]! - pixelOf(clean, x, y)[0]!;
          count += 1;
        }
    return sum / count;
  };

  it('takes a blot away and keeps the light of what lies around, where a clone leaves another one', () => {
    const healed = copyOf(spoilt);
    retouch(healed, null, [{ does: 'heal', from, ...stroke }], STRAIGHT, 1);
    const cloned = copyOf(spoilt);
    retouch(cloned, null, [{ does: 'clone', from, ...stroke }], STRAIGHT, 1);
    expect(Math.abs(mean(spoilt))).toBeGreaterThan(60);
    expect(Math.abs(mean(cloned))).toBeGreaterThan(15);
    expect(Math.abs(mean(healed))).toBeLessThan(7);
    // Detail is taken with it, not smeared: as much grain as before.
    const spread = (unit: Raster): number => {
      let sum = 0;
      for (let y = 42; y < 54; y += 1)
        for (let x = 42; x < 54; x += 1)
          sum += Math.abs(pixelOf(unit, x, y)[0]! - pixelOf(unit, x + 1, y)[0]!);
      return sum;
    };
    expect(spread(healed) / spread(clean)).toBeGreaterThan(0.8);
    // Nothing beside it is touched.
    clean.data.forEach((_, at) => {
      const [x, y] = [(at >> 2) % 96, Math.floor((at >> 2) / 96)];
      if (Math.hypot(x + 0.5 - 48, y + 0.5 - 48) > 13) expect(healed.data[at]).toBe(spoilt.data[at]);
    });
  });

  it('looks for its source where the surroundings are alike, and not under itself', () => {
    // Posts, 16 px apart: what lies whole posts away goes on with them.
    const posts = rasterOf(96, 96, (x, y) => {
      const post = x % 16 < 6 ? 220 : 60;
      return Math.hypot(x - 48, y - 48) < 6 ? [255, 0, 0] : [post, post, post];
    });
    const found = healFrom(posts, { ...hard, size: 16, points: [48, 48] }, STRAIGHT, 1);
    expect(Math.abs(found.x - 16 * Math.round(found.x / 16))).toBeLessThanOrEqual(1);
    expect(Math.hypot(found.x, found.y)).toBeGreaterThan(16);
  });

  it('lies at the same place however small the unit at hand is', () => {
    const half = rasterOf(48, 48, (x, y) => [...pixelOf(spoilt, 2 * x, 2 * y)].slice(0, 3));
    retouch(half, null, [{ does: 'heal', from, ...stroke }], STRAIGHT, 0.5);
    expect(pixelOf(half, 24, 24)[0]).toBeGreaterThan(60);
    expect([...pixelOf(half, 4, 4)]).toEqual([...pixelOf(spoilt, 8, 8)]);
  });
});

describe('what is not known', () => {
  it('is filled in between what is, and never beyond it', () => {
    const size = { width: 37, height: 22 };
    const known = Float32Array.from({ length: 37 * 22 }, (_, at) => (at % 37 > 8 && at % 37 < 28 ? 0 : 1));
    const values = Float32Array.from(known, (one, at) => (one === 0 ? 1e6 : at % 37 < 18 ? 10 : 90));
    const filled = filledIn({ ...size, values, known });
    filled.forEach((value, at) => {
      expect(value).toBeGreaterThanOrEqual(10);
      expect(value).toBeLessThanOrEqual(90);
      if (known[at] === 1) expect(value).toBe(values[at]);
    });
    const middle = (x: number): number => filled[11 * 37 + x]!;
    expect(middle(11)).toBeLessThan(middle(18));
    expect(middle(18)).toBeLessThan(middle(25));
  });
});

describe('the original and the joined', () => {
  const picture = texture(120, 90, 5, { light: 40 });
  const at = { picture, scale: 1 };
  const fresh = freshPictured({ asset: 'a'.repeat(64), width: 120, height: 90, name: 'Wall' });
  const pictured: Pictured = {
    ...fresh,
    region: { x: 60, y: 45, width: 60, height: 60, turn: 0 },
    join: { ...fresh.join, how: 'fade', band: 24 },
  };
  const bare = makeUnit(at, { ...pictured, join: { ...pictured.join, on: false } }, STRAIGHT);
  const joined = makeUnit(at, pictured, STRAIGHT);
  const over = { ...hard, points: [0, 30] };
  const painted = (...strokes: RetouchStroke[]): Raster =>
    makeUnit(at, { ...pictured, retouch: { on: true, strokes } }, STRAIGHT);

  it('come back under their strokes, over the edge, to the bit', () => {
    const kept = painted({ does: 'keep', ...over });
    for (const [x, y] of [
      [2, 30],
      [57, 30],
      [0, 27],
    ] as const)
      expect([...pixelOf(kept, x, y)]).toEqual([...pixelOf(bare, x, y)]);
    expect([...pixelOf(kept, 2, 50)]).toEqual([...pixelOf(joined, 2, 50)]);
    expect(kept.data).not.toEqual(joined.data);
    expect(painted({ does: 'keep', ...over }, { does: 'join', ...over, size: 20 }).data).toEqual(joined.data);
  });

  it('have a name of their own while they are on', () => {
    const strokes: RetouchStroke[] = [{ does: 'keep', ...over }];
    const name = (retouched: Pictured['retouch']): string =>
      madeAsset({ pictured: { ...pictured, ...(retouched && { retouch: retouched }) }, lay: STRAIGHT });
    expect(name({ on: true, strokes })).not.toBe(name(undefined));
    expect(name({ on: false, strokes })).toBe(name(undefined));
  });

  it('are counted before any work is done', () => {
    const said = (...strokes: RetouchStroke[]): string[] => {
      const recipe: PicturedRecipe = {
        ...{
          kind: 'pictured',
          version: 2,
          measure: 'mm',
          lay: STRAIGHT,
          ground: { kind: 'clear' },
          slots: [],
        },
        unit: { width: 60, height: 60 },
        pictured: { ...pictured, retouch: { on: true, strokes } },
      } as PicturedRecipe;
      return checkRecipe(recipe).map(({ message }) => message);
    };
    expect(said({ does: 'keep', ...over })).toEqual([]);
    expect(said({ does: 'keep', ...over, points: [0, 5000] })[0]).toContain('further than 8 repeats');
    const zigzag = Array.from({ length: 900 }, (_, index) => (index % 4 < 2 ? -400 : 400));
    const long: RetouchStroke = { does: 'join', ...over, size: 4000, points: zigzag };
    expect(said(long)[0]).toContain('More is painted');
    expect(said({ does: 'heal', from: { x: 5, y: 5 }, ...over, size: 4000, points: [0, 0] })[0]).toContain(
      'More is healed',
    );
    expect(
      said(...Array.from({ length: 201 }, (): RetouchStroke => ({ does: 'keep', ...over })))[0],
    ).toContain('at most 200');
  });
});
