import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { recipe } from '../../../../tests/support/recipes';
import { resolveSlots } from '../colour/slots';
import { seededRandom } from '../num/random';
import { startMeasured, type Measured, type MeasuredForm } from '../recipe/measured';
import type { MeasuredRecipe } from '../recipe/recipe';
import { tileSvg } from '../svg/tile';
import { buildMeasured } from './measured';
import { compileUnit } from './unit';

/** How much of the plane each kind covers, from its definition alone, against the share of dark pixels of its tile. */
const TILE = 600;

function make(
  form: MeasuredForm,
  numbers: Record<string, number>,
  over: Partial<Measured> = {},
): MeasuredRecipe {
  const { slots, version, measure } = recipe();
  const start = startMeasured(form, ['ink']);
  const measured = {
    ...start,
    numbers: { ...start.numbers, angle: 0, ...numbers },
    inks: Object.fromEntries(Object.keys(start.inks).map((key) => [key, 'ink'])),
    ...over,
  };
  return { kind: 'measured', version, measure, measured, slots, ground: { kind: 'slot', slot: 'paper' } };
}

function covered(art: MeasuredRecipe): number {
  const scene = compileUnit(art);
  const { width, height } = scene.cell;
  const scale = TILE / Math.max(width, height);
  const tile = tileSvg(scene, resolveSlots(art.slots, { ink: '#000000', paper: '#ffffff' }), {
    title: 't',
    pixels: { width: Math.round(width * scale), height: Math.round(height * scale) },
  });
  if (!tile.ok) throw new Error(tile.message);
  const { pixels } = new Resvg(tile.svg, { font: { loadSystemFonts: false } }).render();
  let dark = 0;
  for (let at = 0; at < pixels.length; at += 4) dark += 1 - (pixels[at] ?? 0) / 255;
  return dark / (pixels.length / 4);
}

const random = seededRandom(9);
const between = (low: number, high: number): number => low + (high - low) * random();

type Case = [MeasuredForm, Record<string, number>, number, Partial<Measured>?];
const CASES: Case[] = [];
for (let round = 0; round < 3; round += 1) {
  const [w, p, d, q] = [between(1, 5), between(8, 20), between(4, 8), between(10, 30)];
  CASES.push(
    ['stripes', { width: w, pitch: p }, w / p],
    ['hatch', { width: w, pitch: p }, w / p],
    ['hatch', { width: w, pitch: p, dash: d, space: q }, ((w / p) * d) / (d + q)],
    [
      'hatch',
      { width: w, pitch: p, width2: d, pitch2: q, turn: 90 },
      1 - (1 - w / p) * (1 - d / q),
      { choices: { second: 'yes' } },
    ],
    ['dots', { diameter: d, pitch: p }, (Math.PI * d * d) / 4 / (p * p), { choices: { layout: 'straight' } }],
    ['dots', { diameter: d, pitch: p }, (Math.PI * d * d) / 4 / (p * p), { choices: { layout: 'brick' } }],
    [
      'dots',
      { diameter: d, pitch: p },
      (Math.PI * d * d) / 4 / (p * p * (Math.sqrt(3) / 2)),
      { choices: { layout: 'hexagonal' } },
    ],
    // One ring: the disc without the one inside it.
    [
      'rings',
      { diameter: d, width: 1, count: 1, pitch: p },
      (Math.PI * (d * d - (d - 2) ** 2)) / 4 / (p * p),
      { choices: { layout: 'straight' } },
    ],
    ['checks', { side: d, down: p }, 0.5],
    ['grid', { across: p, down: q, width: w }, 1 - (1 - w / p) * (1 - w / q)],
    ['triangles', { side: d, height: p }, 0.5],
    ['diamond', { across: p, down: q, size: 0.7 }, (0.7 * 0.7) / 2],
    ['bricks', { length: q, height: p, joint: w, step: 0.5, radius: 0 }, (q * p) / ((q + w) * (p + w))],
    ['planks', { length: q, height: p, joint: w, step: 1 / 3 }, (q * p) / ((q + w) * (p + w))],
    [
      'dashes',
      { length: d, space: q, width: w, pitch: p, step: 0.5 },
      ((w / p) * d) / (d + q),
      { choices: { cap: 'butt' } },
    ],
    // A slanted line covers its width over the cosine of its slope.
    [
      'zigzag',
      { length: q, height: p / 4, width: w / 2, pitch: p },
      ((w / 2) * Math.hypot(q / 2, p / 4)) / (q / 2) / p,
    ],
    [
      'bands',
      {},
      (w + d) / (w + d + q),
      {
        bands: [
          { width: w, slot: 'ink' },
          { width: q, slot: null },
          { width: d, slot: 'ink' },
        ],
      },
    ],
  );
}

describe('a measured pattern', () => {
  it.each(CASES)('%s %j covers what its numbers say', (form, numbers, share, over) => {
    expect(covered(make(form, numbers, over))).toBeCloseTo(share, 1.9);
  });

  it('of gingham covers once where threads lie alone and solid where they cross', () => {
    const [band, gap, tint] = [8, 12, 0.5];
    const cross = band * band;
    const alone = 2 * band * gap;
    expect(covered(make('gingham', { band, gap, tint }))).toBeCloseTo(
      (cross + alone * tint) / (band + gap) ** 2,
      1.9,
    );
  });

  it('of waves runs through a sine, to 0.02 % of its height', () => {
    const [endless] = buildMeasured(
      make('wave', { length: 100, height: 40, width: 1, pitch: 50 }).measured,
    ).endless;
    const path = endless?.element.path ?? [];
    const points = path.flatMap((segment) => ('to' in segment ? [segment.to] : []));
    for (const { x, y } of points) expect(y).toBeCloseTo(-20 * Math.sin((2 * Math.PI * x) / 100), 6);
    expect(points).toHaveLength(13);
  });

  it('is turned as a whole by its angle, whatever it is', () => {
    const art = make('hatch', { width: 1, pitch: 6, angle: 30 });
    const { lattice } = buildMeasured(art.measured);
    const upright = buildMeasured(make('hatch', { width: 1, pitch: 6 }).measured).lattice;
    expect(Math.hypot(lattice.b.x, lattice.b.y)).toBeCloseTo(Math.hypot(upright.b.x, upright.b.y), 9);
    expect((Math.atan2(lattice.a.y, lattice.a.x) * 180) / Math.PI).toBeCloseTo(30, 9);
  });
});
