import crc32 from 'crc-32';
import { straighten } from '../raster/alpha';

/**
 * Writing PNG (W3C PNG, third edition) piece by piece, so that a picture need never be in memory whole: its rows come
 * in bands, each filtered and deflated on its own; the deflated bands are joined into one zlib stream.
 */
export const PNG_SIGNATURE = Uint8Array.of(137, 80, 78, 71, 13, 10, 26, 10);

/** The zlib header for "deflate, 32 KiB window"; the bands follow, then {@link zlibTrailer}. */
export const ZLIB_HEADER = Uint8Array.of(0x78, 0x01);

export type PngHead = { width: number; height: number; alpha: boolean; ppi: number };

/** Signature, IHDR, sRGB and pHYs: everything before the picture data. Eight bits a channel, RGB or RGBA. */
export function pngHead(head: PngHead): Uint8Array {
  const ihdr = new Uint8Array(13);
  const view = new DataView(ihdr.buffer);
  view.setUint32(0, head.width);
  view.setUint32(4, head.height);
  ihdr.set([8, head.alpha ? 6 : 2, 0, 0, 0], 8);
  return concat([
    PNG_SIGNATURE,
    pngChunk('IHDR', ihdr),
    pngChunk('sRGB', Uint8Array.of(0)),
    pngChunk('pHYs', physicalPixels(head.ppi)),
  ]);
}

/** A whole file of eight-bit greys from its zlib data. */
export function greyFile(width: number, height: number, data: Uint8Array): Uint8Array {
  const ihdr = new Uint8Array(13);
  const view = new DataView(ihdr.buffer);
  view.setUint32(0, width);
  view.setUint32(4, height);
  ihdr.set([8, 0, 0, 0, 0], 8);
  return concat([
    PNG_SIGNATURE,
    pngChunk('IHDR', ihdr),
    pngChunk('IDAT', data),
    pngChunk('IEND', new Uint8Array(0)),
  ]);
}

/** One chunk: length, type, data, CRC-32 of type and data. */
export function pngChunk(type: string, data: Uint8Array): Uint8Array {
  const chunk = new Uint8Array(data.length + 12);
  const view = new DataView(chunk.buffer);
  view.setUint32(0, data.length);
  for (let index = 0; index < 4; index += 1) chunk[4 + index] = type.charCodeAt(index);
  chunk.set(data, 8);
  view.setUint32(data.length + 8, crc32.buf(chunk.subarray(4, data.length + 8)) >>> 0);
  return chunk;
}

/** ppi → the PNG's whole pixels per metre: 300 ppi is 11811. Inverse of {@link ppiOf} up to rounding. */
export const pixelsPerMetre = (ppi: number): number => Math.round((ppi * 10_000) / 254);

/** Pixels per metre → ppi. */
export const ppiOf = (perMetre: number): number => (perMetre * 254) / 10_000;

/** A PNG file that states its resolution, ppi across and down; a pHYs chunk of its own is not looked for. */
export function withResolution(png: Uint8Array, across: number, down = across): Uint8Array {
  const head = 8 + 25;
  return concat([png.subarray(0, head), pngChunk('pHYs', physicalPixels(across, down)), png.subarray(head)]);
}

function physicalPixels(across: number, down = across): Uint8Array {
  const data = new Uint8Array(9);
  const view = new DataView(data.buffer);
  view.setUint32(0, pixelsPerMetre(across));
  view.setUint32(4, pixelsPerMetre(down));
  data[8] = 1;
  return data;
}

/**
 * Premultiplied RGBA rows (as a renderer gives them) → PNG rows: straight alpha or none, each row behind its filter
 * byte. Every row uses the filter Up, except the first of a band, which has no row above it and uses none.
 */
export function filterRows(rgba: Uint8Array, width: number, alpha: boolean): Uint8Array {
  const pixels = alpha ? straight(rgba) : rgba;
  const step = width * 4;
  const height = rgba.length / step;
  const stride = width * (alpha ? 4 : 3) + 1;
  const rows = new Uint8Array(height * stride);
  const nothing = new Uint8Array(step);
  for (let y = 0; y < height; y += 1) {
    const row = pixels.subarray(y * step, (y + 1) * step);
    const above = y === 0 ? nothing : pixels.subarray((y - 1) * step, y * step);
    let to = y * stride;
    rows[to++] = y === 0 ? 0 : 2;
    for (let from = 0; from < step; from += 4) {
      rows[to++] = row[from]! - above[from]!;
      rows[to++] = row[from + 1]! - above[from + 1]!;
      rows[to++] = row[from + 2]! - above[from + 2]!;
      if (alpha) rows[to++] = row[from + 3]! - above[from + 3]!;
    }
  }
  return rows;
}

/** A copy with straight alpha. */
function straight(rgba: Uint8Array): Uint8Array {
  const copy = rgba.slice();
  straighten(copy);
  return copy;
}

const ADLER_MODULUS = 65_521;

/** Adler-32 of `data` (RFC 1950). */
export function adler32(data: Uint8Array): number {
  let a = 1;
  let b = 0;
  for (let start = 0; start < data.length; start += 3800) {
    const end = Math.min(start + 3800, data.length);
    for (let at = start; at < end; at += 1) {
      a += data[at]!;
      b += a;
    }
    a %= ADLER_MODULUS;
    b %= ADLER_MODULUS;
  }
  return ((b << 16) | a) >>> 0;
}

/** Adler-32 of two pieces of data one after the other, from the sums of each and the second one's length (as zlib's adler32_combine). */
export function joinAdler(first: number, second: number, secondLength: number): number {
  const length = secondLength % ADLER_MODULUS;
  const a1 = first & 0xffff;
  const b1 = first >>> 16;
  const a2 = second & 0xffff;
  const b2 = second >>> 16;
  const a = (a1 + a2 + ADLER_MODULUS - 1) % ADLER_MODULUS;
  const b = (b1 + b2 + length * a1 + ADLER_MODULUS - length) % ADLER_MODULUS;
  return ((b << 16) | a) >>> 0;
}

/** The end of the zlib stream: the checksum of all rows. */
export function zlibTrailer(adler: number): Uint8Array {
  const data = new Uint8Array(4);
  new DataView(data.buffer).setUint32(0, adler);
  return data;
}

function concat(parts: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}
