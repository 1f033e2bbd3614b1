import { deflateRawSync, constants } from 'node:zlib';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../num/random';
import { alphaOf, layOver, type Raster } from '../raster/composite';
import { samplePeriodic } from '../raster/sample';
import { scaling, translation, multiply } from '../geom/affine';
import {
  adler32,
  filterRows,
  joinAdler,
  pixelsPerMetre,
  pngChunk,
  pngHead,
  ppiOf,
  ZLIB_HEADER,
  zlibTrailer,
} from './png';

const random = seededRandom(3);
const noise = (width: number, height: number, alpha: boolean): Raster => {
  const data = new Uint8Array(width * height * 4);
  for (let at = 0; at < data.length; at += 4) {
    const cover = alpha ? Math.floor(random() * 256) : 255;
    for (let channel = 0; channel < 3; channel += 1)
      data[at + channel] = Math.floor((random() * 256 * cover) / 255);
    data[at + 3] = cover;
  }
  return { width, height, data };
};

/** A PNG in three bands, as the server writes it. */
function pngOf(picture: Raster, alpha: boolean): Buffer {
  const parts: Uint8Array[] = [pngHead({ width: picture.width, height: picture.height, alpha, ppi: 300 })];
  const bands = [0, 5, 6, picture.height];
  let adler = 1;
  const deflated = bands.slice(1).map((end, index) => {
    const rows = filterRows(
      picture.data.subarray((bands[index] ?? 0) * picture.width * 4, end * picture.width * 4),
      picture.width,
      alpha,
    );
    adler = joinAdler(adler, adler32(rows), rows.length);
    return deflateRawSync(rows, {
      finishFlush: end === picture.height ? constants.Z_FINISH : constants.Z_FULL_FLUSH,
    });
  });
  parts.push(
    pngChunk('IDAT', Buffer.concat([ZLIB_HEADER, ...deflated, zlibTrailer(adler)])),
    pngChunk('IEND', new Uint8Array(0)),
  );
  return Buffer.concat(parts);
}

describe('PNG written in bands', () => {
  it('is read back pixel for pixel by another library', () => {
    const picture = noise(13, 17, false);
    expect(PNG.sync.read(pngOf(picture, false)).data.equals(Buffer.from(picture.data))).toBe(true);
  });

  it('with alpha holds straight colour', () => {
    const half: Raster = {
      width: 1,
      height: 7,
      data: new Uint8Array(28).map((_, at) => (at % 4 === 3 ? 128 : 64)),
    };
    expect([...PNG.sync.read(pngOf(half, true)).data.subarray(0, 4)]).toEqual([128, 128, 128, 128]);
  });

  // W3C PNG specification, pHYs: whole pixels per metre; 300 ppi is 11811.
  it('says its resolution', async () => {
    expect(pixelsPerMetre(300)).toBe(11_811);
    expect(ppiOf(11_811)).toBeCloseTo(300, 2);
    expect((await sharp(pngOf(noise(8, 8, false), false)).metadata()).density).toBe(300);
  });
});

describe('source-over', () => {
  // W3C Compositing and Blending Level 1; libvips' composite through sharp as a second opinion.
  it('agrees with libvips to one step', async () => {
    const straight = (picture: Raster): Buffer => {
      const data = Buffer.from(picture.data);
      for (let at = 0; at < data.length; at += 4)
        for (let channel = 0; channel < 3; channel += 1)
          data[at + channel] =
            data[at + 3] === 0
              ? 0
              : Math.min(255, Math.round(((data[at + channel] ?? 0) * 255) / (data[at + 3] ?? 1)));
      return data;
    };
    const base = noise(40, 30, false);
    const layer = noise(40, 30, true);
    const raw = { width: 40, height: 30, channels: 4 } as const;
    const theirs = await sharp(straight(base), { raw })
      .composite([{ input: straight(layer), raw }])
      .raw()
      .toBuffer();
    layOver(base, layer, 0, 0);
    let worst = 0;
    for (let at = 0; at < theirs.length; at += 1)
      worst = Math.max(worst, Math.abs((theirs[at] ?? 0) - (base.data[at] ?? 0)));
    expect(worst).toBeLessThanOrEqual(1);
  });

  it('counts mask and opacity, and stays inside the base', () => {
    const base: Raster = { width: 4, height: 4, data: new Uint8Array(64).fill(255) };
    const ink: Raster = {
      width: 4,
      height: 4,
      data: new Uint8Array(64).map((_, at) => (at % 4 === 3 ? 255 : 0)),
    };
    const mask: Raster = { ...ink, data: ink.data.map((value) => (value === 255 ? 128 : 0)) };
    layOver(base, ink, 2, 2, { cover: alphaOf(mask), opacity: 0.5 });
    expect(base.data[0]).toBe(255);
    expect(Math.abs((base.data[(3 * 4 + 3) * 4] ?? 0) - 255 * (1 - 0.25))).toBeLessThanOrEqual(1);
  });
});

it('a periodic tile of one colour is sampled solid, whatever the matrix', () => {
  const tile: Raster = { width: 7, height: 5, data: new Uint8Array(140).fill(201) };
  const seen = samplePeriodic(tile, multiply(translation(-3.3, 900.7), scaling(0.37, 1.9)), 50, 50);
  expect(seen.data.every((value) => value === 201)).toBe(true);
});
