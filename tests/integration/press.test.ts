import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { PressTable, DELTA_UNIT, INK_UNIT, tableColours } from '../../src/lib/core/colour/press-table';
import { hexOf } from '../../src/lib/core/colour/parse';
import { seededRandom } from '../../src/lib/core/num/random';
import { Press, readProfile } from '../../src/lib/server/render/press';
import { screenProfile } from '../../src/lib/server/work/press/intent';

const COATED = readFileSync('assets/press/coated-offset.icc');
const open = async (by: Parameters<typeof Press.open>[1]): Promise<Press> => (await Press.open(COATED, by))!;

/** Colours all over the screen's, three bytes to each. */
const random = seededRandom(71);
const COLOURS = Uint8Array.from({ length: 30_000 }, () => Math.floor(random() * 256));

/** The pixels of a TIFF file that is not packed, as they stand in it (TIFF 6.0: its first directory, tags 273 and 279). */
function pixelsOf(tiff: Buffer): Uint8Array {
  const directory = tiff.readUInt32LE(4);
  const values = (tag: number): number[] => {
    for (let index = 0; index < tiff.readUInt16LE(directory); index += 1) {
      const at = directory + 2 + 12 * index;
      if (tiff.readUInt16LE(at) !== tag) continue;
      const [kind, count] = [tiff.readUInt16LE(at + 2), tiff.readUInt32LE(at + 4)];
      const wide = kind === 3 ? 2 : 4;
      const from = count * wide <= 4 ? at + 8 : tiff.readUInt32LE(at + 8);
      return Array.from({ length: count }, (_one, place) => tiff.readUIntLE(from + place * wide, wide));
    }
    throw new Error(`The TIFF has no tag ${tag}.`);
  };
  const counts = values(279);
  return Buffer.concat(values(273).map((at, index) => tiff.subarray(at, at + counts[index]!)));
}

describe('colours as inks of a press', () => {
  it('are within 1 of 255 those of libvips for 10,000 colours, by the perceptual way', async () => {
    const raw = { width: 100, height: 100, channels: 3 } as const;
    const tiff = await sharp(COLOURS, { raw })
      .withIccProfile('assets/press/coated-offset.icc')
      .tiff({ compression: 'none' })
      .toBuffer();
    const data = pixelsOf(tiff);
    const press = await open({ intent: 'perceptual', blackPoint: false });
    const own = press.toInks(COLOURS);
    expect(data).toHaveLength(own.length);
    const worst = own.reduce((most, value, at) => Math.max(most, Math.abs(value - data[at]!)), 0);
    expect(worst).toBeLessThanOrEqual(1);
  });

  it('paper is no ink, and the darkest with the black point kept is darker than without', async () => {
    const press = await open({ intent: 'relative', blackPoint: true });
    expect([...press.toInks(Uint8Array.of(255, 255, 255))]).toEqual([0, 0, 0, 0]);
    expect([...press.toScreen(Uint8Array.of(0, 0, 0, 0))]).toEqual([255, 255, 255]);
    const light = (one: Press, grey: number): number =>
      one.toScreen(one.toInks(Uint8Array.of(grey, grey, grey)))[0]!;
    const plain = await open({ intent: 'relative', blackPoint: false });
    // Without it all near-blacks are one; with it they are told apart.
    expect(light(press, 24) - light(press, 0)).toBeGreaterThan(light(plain, 24) - light(plain, 0));
  });

  it('a pure blue of the screen is far out of gamut, a middling brown is not', async () => {
    const press = await open({ intent: 'relative', blackPoint: true });
    const [blue, brown] = press.differences(Uint8Array.of(0, 0, 255, 150, 110, 80));
    expect(blue).toBeGreaterThan(10);
    expect(brown).toBeLessThan(2);
  });

  it('a table of 25 steps tells them without the profile, nearly', async () => {
    const press = await open({ intent: 'relative', blackPoint: true });
    const all = tableColours();
    const inks = press.toInks(all);
    const sums = Uint8Array.from({ length: all.length / 3 }, (_one, at) =>
      Math.round(inks.subarray(4 * at, 4 * at + 4).reduce((sum, value) => sum + value, 0) / 255 / INK_UNIT),
    );
    const deltas = Uint8Array.from(press.differences(all), (delta) => Math.round(delta / DELTA_UNIT));
    const table = new PressTable(sums, deltas);
    const few = COLOURS.subarray(0, 3000);
    const [own, far] = [press.toInks(few), press.differences(few)];
    const off = Array.from(far, (delta, at) => {
      const found = table.of(hexOf([few[3 * at]!, few[3 * at + 1]!, few[3 * at + 2]!]));
      const ink = own.subarray(4 * at, 4 * at + 4).reduce((sum, value) => sum + value, 0) / 255;
      return { ink: Math.abs(found.ink - ink), delta: Math.abs(found.delta - delta) };
    });
    const mean = (of: 'ink' | 'delta'): number => off.reduce((sum, one) => sum + one[of], 0) / off.length;
    expect(mean('ink')).toBeLessThan(0.03);
    expect(mean('delta')).toBeLessThan(0.6);
  });
});

describe('a press profile that comes in', () => {
  let screen: Uint8Array;
  beforeAll(async () => {
    screen = await screenProfile();
  });
  const changed = (at: number, text: string): Uint8Array => {
    const bytes = Uint8Array.from(COATED);
    for (let index = 0; index < text.length; index += 1) bytes[at + index] = text.charCodeAt(index);
    return bytes;
  };

  it('is known by its own name', async () => {
    expect(await readProfile(COATED, 'x.icc')).toEqual({ ok: true, value: { name: 'Coated offset' } });
  });

  it.each([
    ['a text', () => new TextEncoder().encode('no profile '.repeat(40)), /“x.icc” is no ICC profile/],
    ['nothing', () => new Uint8Array(0), /is no ICC profile/],
    ['the profile of a screen', () => screen, /is the profile of a screen; Isle needs that of a press/],
    ['that of a camera', () => changed(12, 'scnr'), /of a camera or scanner/],
    ['that of a printer with six inks', () => changed(16, '6CLR'), /with other inks \(6CLR\)/],
    ['half of one', () => COATED.subarray(0, COATED.length / 2), /ends before its last part/],
    ['one without a way in', () => changedTag('B2A'), /not how colours become inks/],
  ])('is refused with a sentence: %s', async (_what, bytes, says) => {
    const read = await readProfile(bytes(), 'x.icc');
    expect(read.ok).toBe(false);
    expect(!read.ok && read.failure.message).toMatch(says);
  });

  /** A profile whose tables of one direction are called something else. */
  function changedTag(from: string): Uint8Array {
    const bytes = Uint8Array.from(COATED);
    const view = new DataView(bytes.buffer);
    for (let tag = 0; tag < view.getUint32(128); tag += 1) {
      const at = 132 + 12 * tag;
      if (String.fromCharCode(...bytes.subarray(at, at + 3)) === from) bytes[at] = 'x'.charCodeAt(0);
    }
    return bytes;
  }
});
