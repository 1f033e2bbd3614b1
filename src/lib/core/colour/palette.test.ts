import Color from 'colorjs.io';
import { filterDeficiencyDeuter, filterDeficiencyProt, filterDeficiencyTrit } from 'culori';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../num/random';
import { clusterColours, clusterCost } from './cluster';
import { proposeColourways } from './colourway';
import { contrastRatio } from './contrast';
import { deltaE2000 } from './difference';
import { lookKey, readLookKey } from './look';
import { nearDuplicates, orderColours } from './order';
import { hexOf } from './parse';
import { schemeOf, shifted } from './scheme';
import {
  fromOklab,
  fromOklch,
  isInSrgb,
  mostChroma,
  readColour,
  toOklab,
  toOklch,
  type Oklab,
} from './space';
import { SIGHT_MATRICES } from './vision';

const random = seededRandom(31);
const randomHex = (): string => hexOf([random() * 255, random() * 255, random() * 255]);
const hexes = (count: number): string[] => Array.from({ length: count }, randomHex);

describe('OKLab and OKLCH', () => {
  // CSS Color 4; colorjs.io as an independent library.
  it('agree with an independent library and go both ways', () => {
    for (const hex of hexes(200)) {
      const [l, c, h] = new Color(hex).to('oklch').coords as [number, number, number];
      const own = toOklch(hex);
      expect(own.l).toBeCloseTo(l, 4);
      expect(own.c).toBeCloseTo(c, 4);
      if (c > 0.002) expect(Math.cos(((own.h - h) * Math.PI) / 180)).toBeCloseTo(1, 4);
      expect(fromOklch(own)).toBe(hex);
      expect(fromOklab(toOklab(hex))).toBe(hex);
    }
  });

  // CSS Color 4, section 13.2 (gamut mapping), as colorjs.io does it with its method "css".
  it('map what lies outside sRGB as CSS Color 4 does', () => {
    for (let round = 0; round < 60; round += 1) {
      const [l, c, h] = [0.2 + random() * 0.7, 0.2 + random() * 0.2, random() * 360];
      const read = readColour(`oklch(${l} ${c} ${h})`);
      const theirs = new Color('oklch', [l, c, h]).to('srgb').toGamut({ space: 'srgb', method: 'css' });
      const hex = hexOf(
        theirs.coords.map((channel) => Math.min(1, Math.max(0, channel ?? 0)) * 255) as [
          number,
          number,
          number,
        ],
      );
      expect(read.ok && deltaE2000(read.hex, hex)).toBeLessThan(0.6);
      expect(read.ok && read.outside).toBe(!new Color('oklch', [l, c, h]).inGamut('srgb'));
    }
  });

  it('find the limit of sRGB on the plane', () => {
    for (const hex of hexes(50)) {
      const { l, h, c } = toOklch(hex);
      const limit = mostChroma(l, h);
      expect(limit).toBeGreaterThanOrEqual(c - 2e-3);
      expect(isInSrgb({ l, c: limit + 2e-3, h })).toBe(false);
    }
  });

  it.each(['color(display-p3 1 0 0)', 'lab(50 120 0)'])('%s is kept and marked as outside', (text) => {
    expect(readColour(text)).toMatchObject({ ok: true, outside: true });
  });
  it.each(['', 'oklch(nan 0 0)', 'url(x)', 'rgb(1 2 3 / 0.5)', 'x'.repeat(500)])('%j is refused', (text) => {
    expect(readColour(text).ok).toBe(false);
  });
});

describe('schemes', () => {
  it('turn the hue and keep the perceived lightness', () => {
    for (const hex of hexes(40)) {
      const base = toOklch(hex);
      for (const kind of ['complementary', 'triad', 'tetrad', 'split', 'analogous'] as const)
        for (const other of schemeOf(hex, kind))
          expect(Math.abs(toOklch(other).l - base.l)).toBeLessThan(0.012);
    }
    const [, opposite] = schemeOf('#b5462f', 'complementary');
    const turn = toOklch(opposite!).h - toOklch('#b5462f').h;
    expect(Math.cos((turn * Math.PI) / 180)).toBeCloseTo(-1, 3);
    const tones = schemeOf('#2f8fab', 'monochrome').map((hex) => toOklch(hex).l);
    expect(tones).toEqual([...tones].sort());
  });

  it('shift and leave a colour alone when nothing is shifted', () => {
    expect(shifted('#2f8fab', { hue: 0, lightness: 0, chroma: 1 })).toBe('#2f8fab');
    expect(toOklch(shifted('#2f8fab', { hue: 0, lightness: 0.1, chroma: 1 })).l).toBeCloseTo(
      toOklch('#2f8fab').l + 0.1,
      2,
    );
    expect(toOklch(shifted('#2f8fab', { hue: 0, lightness: 0, chroma: 0 })).c).toBeLessThan(0.003);
  });
});

describe('clusters', () => {
  // k-means on small sets against the best of all ways to part them (brute force).
  it('reach the brute-force optimum on small sets', () => {
    for (let round = 0; round < 12; round += 1) {
      const points = Array.from({ length: 8 }, (): Oklab => ({
        l: random(),
        a: random() * 0.4,
        b: random() * 0.4,
      }));
      for (const k of [2, 3]) {
        const centres = clusterColours(points, k, { seed: 7 }).map((cluster) => cluster.centre);
        expect(clusterCost(points, centres)).toBeLessThanOrEqual(bestCost(points, k) + 1e-9);
      }
    }
  });

  it('are the same for the same seed, and no more than there are colours', () => {
    const points = hexes(50).map(toOklab);
    expect(clusterColours(points, 5, { seed: 3 })).toEqual(clusterColours(points, 5, { seed: 3 }));
    const two = [...Array(9).fill(toOklab('#ff0000')), toOklab('#0000ff')];
    expect(clusterColours(two, 4).map(({ centre, share }) => [fromOklab(centre), share])).toEqual([
      ['#ff0000', 0.9],
      ['#0000ff', 0.1],
    ]);
    expect(clusterColours([], 3)).toEqual([]);
  });
});

/** The least cost over all ways to give every point to one of k groups. */
function bestCost(points: readonly Oklab[], k: number): number {
  let best = Number.POSITIVE_INFINITY;
  for (let way = 0; way < k ** points.length; way += 1) {
    const groups: Oklab[][] = Array.from({ length: k }, () => []);
    let rest = way;
    for (const point of points) {
      groups[rest % k]!.push(point);
      rest = Math.floor(rest / k);
    }
    const centres = groups.flatMap((group) => {
      if (group.length === 0) return [];
      const mean = (key: keyof Oklab) => group.reduce((sum, point) => sum + point[key], 0) / group.length;
      return [{ l: mean('l'), a: mean('a'), b: mean('b') }];
    });
    const cost = groups.reduce(
      (sum, group, index) =>
        sum +
        (group.length === 0
          ? 0
          : clusterCost(group, [
              centres[index - groups.slice(0, index).filter((one) => one.length === 0).length]!,
            ])),
      0,
    );
    best = Math.min(best, cost);
  }
  return best;
}

describe('proposed colourways', () => {
  const slots = [
    { id: 'ground', name: 'Ground', colour: '#ffffff' },
    { id: 'ink', name: 'Ink', colour: '#303030' },
    { id: 'tint', name: 'Tint', colour: '#b0b0b0' },
  ];
  const palette = ['#10394d', '#2f8fab', '#e0f0ec', '#f3c14b'].map((hex) => ({ id: hex.slice(1), hex }));

  it('rank by contrast and by keeping the lightness order, as a look at all ways does', () => {
    const found = proposeColourways(slots, palette, { ground: 'ground', most: 24 });
    expect(found).toHaveLength(24);
    const [first] = found;
    expect(first?.colours.ground?.colour).toBe('#e0f0ec');
    expect(first?.colours.ink?.colour).toBe('#10394d');
    expect(first?.order).toBe(1);
    const scores = found.map((way) => way.score);
    expect(scores).toEqual([...scores].sort((one, other) => other - one));
    const grounds = ['ink', 'tint'].map((slot) =>
      contrastRatio(first!.colours.ground!.colour, first!.colours[slot]!.colour),
    );
    expect(first?.contrast).toBeCloseTo(Math.min(...grounds), 9);
    expect(new Set(Object.values(first!.colours).map((tint) => tint.link)).size).toBe(3);
  });

  it('use a colour twice only where there are too few', () => {
    const [way] = proposeColourways(slots, palette.slice(0, 2));
    expect(Object.keys(way!.colours)).toHaveLength(3);
    expect(proposeColourways(slots, [])).toEqual([]);
  });
});

describe('palettes', () => {
  it('are sorted, and near duplicates found', () => {
    const entries = ['#808080', '#101010', '#f0f0f0', '#111111'].map((hex) => ({ hex }));
    expect(orderColours(entries, 'lightness').map(({ hex }) => hex)).toEqual([
      '#101010',
      '#111111',
      '#808080',
      '#f0f0f0',
    ]);
    expect(nearDuplicates(entries, 2)).toEqual([[{ hex: '#101010' }, { hex: '#111111' }]]);
  });
});

describe('seen with other eyes', () => {
  // Machado, Oliveira and Fernandes (2009), severity 1.0, in culori's copy of the authors' tables.
  it.each([
    ['protan', filterDeficiencyProt],
    ['deutan', filterDeficiencyDeuter],
    ['tritan', filterDeficiencyTrit],
  ] as const)('%s has the published matrix', (kind, filter) => {
    const m = SIGHT_MATRICES[kind];
    for (const channel of [0, 1, 2]) {
      const unit = {
        mode: 'rgb' as const,
        r: Number(channel === 0),
        g: Number(channel === 1),
        b: Number(channel === 2),
      };
      const seen = filter(1)(unit) as unknown as { r: number; g: number; b: number };
      expect([seen.r, seen.g, seen.b].map((value) => +value.toFixed(6))).toEqual([
        m[channel],
        m[channel + 3],
        m[channel + 6],
      ]);
    }
  });

  it('leaves white white', () => {
    for (const matrix of Object.values(SIGHT_MATRICES))
      for (const row of [0, 3, 6])
        expect(matrix[row]! + matrix[row + 1]! + matrix[row + 2]!).toBeCloseTo(1, 5);
  });
});

describe('the look of a picture', () => {
  it('goes into an address and back', () => {
    const look = {
      map: [{ colour: '#102030' }, { colour: '#f0e0d0', link: 'x' }],
      shift: { hue: -30, lightness: 0.1, chroma: 0.5 },
      tint: { colour: '#aa0000', amount: 0.25 },
    };
    expect(readLookKey(lookKey(look))).toEqual({
      ...look,
      map: [{ colour: '#102030' }, { colour: '#f0e0d0' }],
    });
    for (const wrong of ['', 'x', '_0,0,1', '123456_0,0,1_', '..%2f', `${'112233.'.repeat(6)}112233_0,0,1_`])
      expect(readLookKey(wrong), wrong).toBeNull();
  });
});
