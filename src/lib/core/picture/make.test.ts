import { describe, expect, it } from 'vitest';
import { noisePicture, pixelOf, rasterOf, texture } from '../../../../tests/support/rasters';
import { channelsOf, hexOf } from '../colour/parse';
import { toOklch, type Oklch } from '../colour/space';
import { apply } from '../geom/affine';
import { PLANE_GROUPS, groupOperations, latticeKind, type PlaneGroup } from '../lattice/groups';
import type { Raster } from '../raster/composite';
import { madeAsset, madeSize } from '../recipe/made';
import { freshPictured, PLAIN_TONE, type ColourAlone, type Pictured } from '../recipe/pictured';
import { foldOf, mirrorEdges, regionFor, timesSeen } from '../lattice/fold';
import { makeUnit } from './make';
import { sampleCubic } from './patch';
import { seamsOf } from './seam';

const STRAIGHT = { kind: 'straight' } as const;
const start = (picture: Raster, over: Partial<Pictured> = {}): Pictured => {
  const { width, height } = picture;
  const fresh = freshPictured({ asset: 'a'.repeat(64), width, height, name: 'Photo' });
  return { ...fresh, join: { ...fresh.join, on: false }, ...over };
};
const at = (picture: Raster) => ({ picture, scale: 1 });

describe('a region as it is', () => {
  const photo = noisePicture(80, 60, 7);

  it('upright on whole pixels is cut out to the bit', () => {
    const pictured = start(photo, { region: { x: 40, y: 30, width: 30, height: 20, turn: 0 } });
    const made = makeUnit(at(photo), pictured, STRAIGHT);
    expect([made.width, made.height]).toEqual([30, 20]);
    for (let y = 0; y < 20; y += 1)
      for (let x = 0; x < 30; x += 1) expect(pixelOf(made, x, y)).toEqual(pixelOf(photo, x + 25, y + 20));
  });

  it('turned by a quarter is cut out turned', () => {
    const pictured = start(photo, { region: { x: 40, y: 30, width: 20, height: 20, turn: 90 } });
    const made = makeUnit(at(photo), pictured, STRAIGHT);
    for (let y = 0; y < 20; y += 1)
      for (let x = 0; x < 20; x += 1) expect(pixelOf(made, x, y)).toEqual(pixelOf(photo, 49 - y, 20 + x));
  });

  // Keys 1981: cubic convolution with a = −1/2 gives back polynomials of the second degree.
  it('is sampled by an interpolation that is exact for parabolas', () => {
    const value = (x: number, y: number): number => 0.02 * x * x + 0.5 * x - 0.03 * y * y + 2 * y + 40;
    const soft = {
      width: 40,
      height: 40,
      data: Float64Array.from({ length: 6400 }, (_, index) =>
        value(((index >> 2) % 40) + 0.5, Math.floor((index >> 2) / 40) + 0.5),
      ),
    };
    const sample = new Float64Array(4);
    for (const [x, y] of [
      [7.3, 11.9],
      [20.01, 5.5],
      [30.77, 33.2],
    ] as const) {
      sampleCubic(soft as unknown as Raster, x, y, sample);
      expect(sample[0]).toBeCloseTo(value(x, y), 9);
    }
  });
});

describe('a symmetry', () => {
  const photo = texture(160, 160, 2);
  const region = { x: 80, y: 80, width: 48, height: 48, turn: 0 };

  it.each(PLANE_GROUPS)('covers the cell once with images of the region: %s', (group) => {
    const sized = regionFor(region, group);
    const { cell, part } = foldOf(group, sized);
    const area = Math.abs(
      part.reduce((sum, { x, y }, index) => {
        const next = part[(index + 1) % part.length]!;
        return sum + (x * next.y - next.x * y) / 2;
      }, 0),
    );
    expect((area * timesSeen(group)) / (cell.width * cell.height)).toBeCloseTo(1, 6);
  });

  // International Tables for Crystallography, volume A, part 6: the operations that a pattern of the group is invariant under.
  it.each(PLANE_GROUPS)('is invariant under every operation of its group: %s', (group: PlaneGroup) => {
    const pictured = start(photo, { region: regionFor(region, group), symmetry: { on: true, group } });
    const made = makeUnit(at(photo), pictured, STRAIGHT);
    const { cell } = foldOf(group, pictured.region);
    const exact = latticeKind(group) !== 'hexagonal';
    const unit = {
      width: cell.width,
      height: latticeKind(group) === 'hexagonal' ? cell.height / 2 : cell.height,
    };
    const [sx, sy] = [made.width / cell.width, made.height / cell.height];
    let worst = 0;
    const sample = new Float64Array(4);
    const periodic = (x: number, y: number): number => {
      const [u, v] = [
        ((x % made.width) + made.width) % made.width,
        ((y % made.height) + made.height) % made.height,
      ];
      if (exact) return pixelOf(made, Math.floor(u), Math.floor(v))[0]!;
      sampleCubic(made, u, v, sample);
      return sample[0]!;
    };
    const off: number[] = [];
    for (const operation of groupOperations(group, unit))
      for (let y = 3; y < made.height - 3; y += 3)
        for (let x = 3; x < made.width - 3; x += 3) {
          const image = apply(operation, { x: (x + 0.5) / sx, y: (y + 0.5) / sy });
          const [u, v] = [image.x * sx, image.y * sy];
          const rest = ((v % made.height) + made.height) % made.height;
          const side = ((u % made.width) + made.width) % made.width;
          // Interpolation at the rim of the unit would take the mirrored pixels beyond it.
          if (!exact && (rest < 3 || side < 3 || rest > made.height - 3 || side > made.width - 3)) continue;
          const difference = Math.abs(pixelOf(made, x, y)[0]! - periodic(u, v));
          off.push(difference);
          worst = Math.max(worst, difference);
        }
    expect(off.length).toBeGreaterThan(100);
    if (exact) expect(worst).toBeLessThanOrEqual(1);
    // Turned by 60° the pixels do not lie on pixels; the comparison itself interpolates between them.
    else expect(off.reduce((sum, one) => sum + one, 0) / off.length).toBeLessThan(4);
  });

  // The mirror lines of International Tables for Crystallography, volume A, part 6, that bound the asymmetric unit.
  it.each([
    ['p2', 0],
    ['pm', 2],
    ['pg', 0],
    ['p2mm', 4],
    ['p2gg', 0],
    ['p4', 0],
    ['p4mm', 3],
    ['p3', 0],
    ['p3m1', 3],
    ['p6mm', 3],
  ] as const)('has its part bounded by mirrors where its group has them: %s', (group, count) => {
    expect(mirrorEdges(foldOf(group, regionFor(region, group)))).toHaveLength(count);
  });

  describe('with its mirror lines healed', () => {
    /** Art whose outermost two pixels are a dark line: its halves do not quite meet. */
    const art = rasterOf(60, 60, (x, y) => {
      const edge = Math.min(x, y, 59 - x, 59 - y) < 2;
      return edge ? [20] : [150 + 40 * Math.sin(x / 5) * Math.cos(y / 7)];
    });
    const whole = { x: 30, y: 30, width: 60, height: 60, turn: 0 };
    const mirroredArt = (heal?: number): Raster =>
      makeUnit(at(art), start(art, { region: whole, symmetry: { on: true, group: 'p2mm', heal } }), STRAIGHT);

    it('shows no line any more, and nothing else is touched', () => {
      const [before, after] = [mirroredArt(), mirroredArt(4)];
      expect(Math.min(...before.data)).toBe(20);
      expect(Math.min(...after.data)).toBeGreaterThan(100);
      for (let y = 0; y < 120; y += 1)
        for (let x = 0; x < 120; x += 1) {
          const far = Math.min(x % 60, 59 - (x % 60), y % 60, 59 - (y % 60));
          if (far >= 12) expect(pixelOf(after, x, y)).toEqual(pixelOf(before, x, y));
        }
      // It is still mirrored, pixel by pixel.
      for (let x = 0; x < 120; x += 1) expect(pixelOf(after, x, 30)).toEqual(pixelOf(after, 119 - x, 30));
    });

    it('has a seam before, and none after', () => {
      const seam = (unit: Raster): string => seamsOf(unit, STRAIGHT).word;
      expect(seam(mirroredArt(4))).toBe('none');
      expect(madeAsset({ pictured: start(art), lay: STRAIGHT })).toBe(
        madeAsset({
          pictured: start(art, { symmetry: { on: false, group: 'p2mm', heal: 4 } }),
          lay: STRAIGHT,
        }),
      );
    });
  });

  it('doubles the sides of a picture that is mirrored twice: 1000 px become 2000 px', () => {
    const pictured = start(photo, {
      symmetry: { on: true, group: 'p2mm' },
      region: { x: 500, y: 500, width: 1000, height: 1000, turn: 0 },
    });
    expect(madeSize(pictured)).toEqual({ width: 2000, height: 2000 });
  });
});

describe('a join', () => {
  const photo = texture(240, 200, 11, { light: 25 });
  const pictured = start(photo, { region: { x: 120, y: 100, width: 150, height: 120, turn: 0 } });

  it.each(['fade', 'cut', 'level'] as const)(
    'takes a plain seam away and leaves the middle to the bit: %s',
    (how) => {
      const before = seamsOf(makeUnit(at(photo), pictured, STRAIGHT), STRAIGHT);
      expect(before.word).toBe('plain');
      const joined = { ...pictured, join: { ...pictured.join, on: true, how, band: 40 } };
      const made = makeUnit(at(photo), joined, STRAIGHT);
      const after = seamsOf(made, STRAIGHT, 40);
      expect(after.figure).toBeLessThan(before.figure / 1.25);
      expect(after.word).not.toBe('plain');
      for (let y = 20; y < 100; y += 1)
        for (let x = 20; x < 130; x += 1) expect(pixelOf(made, x, y)).toEqual(pixelOf(photo, x + 45, y + 40));
    },
  );

  it.each(['brick', 'half-drop'] as const)('meets the shifted neighbours of a %s', (kind) => {
    const lay = { kind, step: 0.5 };
    const joined = { ...pictured, join: { ...pictured.join, on: true, how: 'cut' as const, band: 40 } };
    expect(seamsOf(makeUnit(at(photo), pictured, lay), lay).word).toBe('plain');
    expect(seamsOf(makeUnit(at(photo), joined, lay), lay, 40).word).not.toBe('plain');
  });

  it('makes the same bytes of the same numbers', () => {
    const joined = { ...pictured, join: { ...pictured.join, on: true, how: 'fade' as const, band: 30 } };
    expect(makeUnit(at(photo), joined, STRAIGHT).data).toEqual(makeUnit(at(photo), joined, STRAIGHT).data);
  });
});

describe('the seam meter', () => {
  const drawn = rasterOf(96, 72, (x, y) =>
    Math.hypot(x - 30, y - 30) < 18 || Math.hypot(x - 74, y - 44) < 14 ? [200, 80, 40] : [240, 230, 210],
  );
  const shifted = (by: number, down: number): Raster => {
    const plane = (x: number, y: number): number[] => pixelOf(drawn, (x + by) % 96, (y + down) % 72);
    return rasterOf(96, 72, plane);
  };
  const cropped = (width: number, height: number): Raster =>
    rasterOf(width, height, (x, y) => pixelOf(drawn, x % 96, y % 72));

  it('finds none where a picture repeats by itself, wherever it is cut', () => {
    for (const unit of [shifted(0, 0), shifted(33, 0), shifted(70, 41), cropped(192, 144)])
      expect(seamsOf(unit, STRAIGHT).word).toBe('none');
  });

  it('finds a plain one where the region is off by a third of the unit', () => {
    expect(seamsOf(cropped(128, 72), STRAIGHT).across.word).toBe('plain');
    expect(seamsOf(cropped(96, 96), STRAIGHT).down.word).toBe('plain');
  });

  it('says that a flat picture has no seam to find', () => {
    expect(
      seamsOf(
        rasterOf(64, 64, () => [90, 120, 80]),
        STRAIGHT,
      ).word,
    ).toBe('flat');
  });

  it('finds a slow change of light that no single pixel shows', () => {
    const slow = seamsOf(texture(200, 200, 9, { light: 20, seamless: true }), STRAIGHT);
    expect([slow.across.word, slow.down.word]).toEqual(['plain', 'none']);
  });

  it('finds none in a texture that repeats, whatever its grain, and one where its edges have nothing to do with each other', () => {
    for (let seed = 0; seed < 12; seed += 1) {
      expect(seamsOf(texture(160, 120, seed, { light: 0, seamless: true }), STRAIGHT, 30).word).toBe('none');
      expect(seamsOf(texture(160, 120, seed, { light: 0 }), STRAIGHT).word).not.toBe('none');
    }
  });

  it('points at the place where a join is worst', () => {
    const patched = rasterOf(160, 160, (x, y) => {
      const value = 120 + 20 * Math.sin((2 * Math.PI * x) / 20) + (y > 100 && y < 120 && x < 12 ? 60 : 0);
      return [value];
    });
    const { line } = seamsOf(patched, STRAIGHT).across;
    const worst = line.reduce((most, one) => (one.figure > most.figure ? one : most));
    expect(Math.abs(worst.at * 160 - 110)).toBeLessThan(12);
  });
});

describe('a tone', () => {
  const ramp = rasterOf(256, 16, (x) => [x, 255 - x, 128]);
  const region = { x: 128, y: 8, width: 256, height: 16, turn: 0 };
  const toned = (over: Partial<typeof PLAIN_TONE>): Raster =>
    makeUnit(at(ramp), start(ramp, { region, tone: { ...PLAIN_TONE, ...over } }), STRAIGHT);

  it('that says nothing leaves every pixel', () => {
    expect(toned({}).data).toEqual(ramp.data);
    expect(toned({ on: false, black: 200 }).data).toEqual(ramp.data);
  });

  it('by levels puts what is between black and white between low and high', () => {
    const made = toned({ black: 50, white: 150, low: 20, high: 220 });
    const red = (x: number): number => pixelOf(made, x, 3)[0]!;
    expect([red(0), red(50), red(100), red(150), red(255)]).toEqual([20, 20, 120, 220, 220]);
    // A middle of 2 is the square root of the share: √0.25 = 0.5.
    expect(pixelOf(toned({ middle: 2, black: 0, white: 200 }), 50, 3)[0]).toBe(Math.round(255 * 0.5));
  });

  it('by the levels of one channel changes no other, and those of all come after', () => {
    const red = { black: 0, middle: 1, white: 200, low: 40, high: 240 };
    const made = toned({ channels: { red } });
    expect(pixelOf(made, 100, 3)).toEqual([140, 155, 128, 255]);
    // 100 → 140 by the channel, (140 − 20) / 200 of 255 by all.
    expect(pixelOf(toned({ channels: { red }, black: 20, white: 220 }), 100, 3)[0]).toBe(153);
  });

  it('changes one colour alone, and neither another nor a grey', () => {
    const colours = ['#3f8f3a', '#b03a2e', '#808080', '#3a5fb0'];
    const patches = rasterOf(40, 10, (x) => channelsOf(colours[Math.floor(x / 10)]!));
    const whole = { x: 20, y: 5, width: 40, height: 10, turn: 0 };
    const made = (over: Partial<ColourAlone>): Oklch[] => {
      const alone = [{ colour: '#3f8f3a', reach: 40, hue: 0, chroma: 0, light: 0, ...over }];
      const unit = makeUnit(
        at(patches),
        start(patches, { region: whole, tone: { ...PLAIN_TONE, alone } }),
        STRAIGHT,
      );
      return [5, 15, 25, 35].map((x) =>
        toOklch(hexOf(pixelOf(unit, x, 5).slice(0, 3) as [number, number, number])),
      );
    };
    const before = colours.map(toOklch);
    // As OKLCH of another library says (culori, by colour/space.ts).
    const [green, ...others] = made({ hue: -30, chroma: -0.5, light: 0.2 });
    expect(green!.c / before[0]!.c).toBeCloseTo(0.5, 1);
    expect(green!.h - before[0]!.h).toBeCloseTo(-30, -0.5);
    expect(green!.l - before[0]!.l).toBeCloseTo(0.2 * (1 - before[0]!.l), 2);
    others.forEach((one, index) => expect(one.l).toBeCloseTo(before[index + 1]!.l, 2));
    expect(made({ hue: 180, reach: 180 })[2]!.c).toBeLessThan(0.005);
    // A blue 120° away is reached by half a circle and no sooner.
    const blue = (reach: number): number => made({ chroma: -1, reach })[3]!.c;
    expect(blue(60)).toBeCloseTo(before[3]!.c, 2);
    expect(blue(180)).toBeLessThan(before[3]!.c * 0.8);
  });

  it('by a stop of exposure doubles the light', () => {
    // sRGB (IEC 61966-2-1): 0.2 of the light is 123.6 of 255, twice that is 0.4 and 169.6; from 124: 170.
    expect(pixelOf(toned({ exposure: 1 }), 124, 3)[0]).toBe(170);
  });

  it('makes the colour that was pointed at a grey', () => {
    const tinted = rasterOf(20, 20, () => [180, 150, 120]);
    const made = makeUnit(
      at(tinted),
      start(tinted, { tone: { ...PLAIN_TONE, neutral: '#b49678' } }),
      STRAIGHT,
    );
    const [r, g, b] = pixelOf(made, 5, 5);
    expect(Math.max(r!, g!, b!) - Math.min(r!, g!, b!)).toBeLessThanOrEqual(1);
  });

  it('takes all colour out, or makes it stronger about the same light', () => {
    const [r, g, b] = pixelOf(toned({ grey: true }), 40, 3);
    expect(r === g && g === b).toBe(true);
    expect(pixelOf(toned({ saturation: 0.5 }), 100, 3)[1]!).toBeGreaterThan(pixelOf(ramp, 100, 3)[1]!);
  });

  it('evens a slow change of light over the region', () => {
    const photo = texture(200, 150, 5, { light: 60 });
    const whole = { x: 100, y: 75, width: 200, height: 150, turn: 0 };
    const side = (made: Raster, from: number): number => {
      let sum = 0;
      for (let y = 0; y < 150; y += 1)
        for (let x = from; x < from + 20; x += 1) sum += pixelOf(made, x, y)[0]!;
      return sum / 3000;
    };
    const made = (even: number): Raster =>
      makeUnit(at(photo), start(photo, { region: whole, tone: { ...PLAIN_TONE, even } }), STRAIGHT);
    const fall = (one: Raster): number => side(one, 180) - side(one, 0);
    expect(fall(made(0))).toBeGreaterThan(90);
    expect(Math.abs(fall(made(1)))).toBeLessThan(15);
    expect(seamsOf(made(1), STRAIGHT).across.figure).toBeLessThan(
      seamsOf(made(0), STRAIGHT).across.figure / 2,
    );
  });
});
