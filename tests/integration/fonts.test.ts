import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import * as fontkit from 'fontkit';
import { beforeAll, describe, expect, it } from 'vitest';
import { readFont } from '../../src/lib/server/render/font-file';
import { ShapedFont } from '../../src/lib/server/render/shaping';
import { pathArea } from '../support/areas';
import { formatPath } from '../../src/lib/core/geom/path';

const find = createRequire(import.meta.url);
const file = (name: string): Buffer => readFileSync(find.resolve(`@fontsource/${name}`));
const BITTER = 'bitter/files/bitter-latin-700-normal';

let bytes: Uint8Array;
let shaped: ShapedFont;
beforeAll(async () => {
  const read = await readFont(file(`${BITTER}.woff`), 'bitter.woff');
  if (!read.ok) throw new Error(read.failure.message);
  ({ bytes } = read.value);
  shaped = new ShapedFont(bytes, 1000);
});

/** The same font with bytes of one of its tables changed. */
function changed(tag: string, change: (view: DataView, at: number, entry: number) => void): Uint8Array {
  const copy = Uint8Array.from(bytes);
  const view = new DataView(copy.buffer);
  for (let index = 0; index < view.getUint16(4); index += 1) {
    const entry = 12 + 16 * index;
    if (String.fromCharCode(...copy.subarray(entry, entry + 4)) === tag)
      change(view, view.getUint32(entry + 8), entry);
  }
  return copy;
}

describe('a font that comes in', () => {
  it.each(['woff', 'woff2'])('is read from %s, with its own name', async (kind) => {
    const read = await readFont(file(`${BITTER}.${kind}`), `x.${kind}`);
    expect(read.ok && read.value.name).toMatch(/^Bitter .*Bold$|^Bitter Bold$/);
    const font = fontkit.create(Buffer.from(read.ok ? read.value.bytes : [])) as fontkit.Font;
    expect([font.numGlyphs, font.unitsPerEm]).toEqual([313, 1000]);
    // As TrueType it is itself.
    const again = await readFont(read.ok ? read.value.bytes : new Uint8Array(), 'x.ttf');
    expect(again.ok && again.value.name).toMatch(/^Bitter/);
  });

  it.each([
    [
      'a text',
      () => Buffer.from('this is no font at all'),
      /“x” is no font; Isle reads WOFF2, WOFF, OTF and TTF/,
    ],
    ['nothing', () => Buffer.alloc(0), /is no font/],
    ['several in one', () => Buffer.from('ttcf0000000000'), /holds several fonts/],
    ['half of one', () => file(`${BITTER}.woff2`).subarray(0, 4000), /is a damaged font/],
    ['half of an old one', () => file(`${BITTER}.woff`).subarray(0, 4000), /is a damaged font/],
    [
      'one of pictures alone',
      () => changed('glyf', (view, _at, entry) => view.setUint8(entry, 120)),
      /has no outlines/,
    ],
    [
      'one that must not be embedded',
      () => changed('OS/2', (view, at) => view.setUint16(at + 8, 2)),
      /must not be embedded/,
    ],
    [
      'one that unpacks to gigabytes',
      () => {
        const bomb = Buffer.from(file(`${BITTER}.woff`));
        bomb.writeUInt32BE(4_000_000_000, 16);
        return bomb;
      },
      /comes to more than 40 MB/,
    ],
  ])('is refused with a sentence: %s', async (_what, made, says) => {
    const read = await readFont(made(), 'x');
    expect(read.ok).toBe(false);
    expect(!read.ok && read.failure.message).toMatch(says);
  });
});

describe('a line set by HarfBuzz', () => {
  // fontkit reads the same tables by other code, and kerns by them.
  it.each(['AVATAR Toy', 'Échelle, first floor', 'Wave 17'])(
    'is what a second library makes of it: %s',
    (text) => {
      const font = fontkit.create(Buffer.from(bytes)) as fontkit.Font;
      const run = font.layout(text);
      const own = shaped.line(text, 1000);
      let at = 0;
      const theirs = run.glyphs.map(({ id }, index) => {
        const { xAdvance, xOffset } = run.positions[index]!;
        const x = at + xOffset;
        at += xAdvance;
        return [id, x];
      });
      expect(own.glyphs.map(({ glyph, x }) => [glyph, x])).toEqual(theirs);
      expect(own.width).toBe(at);
      const areas = run.glyphs.map(({ path }) => pathArea(path.toSVG()));
      const area = areas.reduce((sum, value) => sum + value, 0);
      // The em is 1000 px, and areas of several letters are those of each.
      expect(Math.abs(pathArea(formatPath(own.path)))).toBeCloseTo(Math.abs(area), -2);
      expect(own.missing).toEqual([]);
    },
  );

  it('is kerned', () => {
    const apart = shaped.line('A', 100).width + shaped.line('V', 100).width;
    expect(shaped.line('AV', 100).width).toBeLessThan(apart - 1);
  });

  it('says which letters its font lacks', () => {
    expect(shaped.line('Aא中', 40).missing).toEqual(['א', '中']);
  });

  it('runs from right to left where its letters do', async () => {
    const read = await readFont(file('bitter/files/bitter-cyrillic-700-normal.woff2'), 'x.woff2');
    const cyrillic = new ShapedFont(read.ok ? read.value.bytes : new Uint8Array(), 1000);
    // Cyrillic runs forwards: letters begin one after the other.
    expect(cyrillic.line('Маяк', 40).glyphs.map(({ cluster }) => cluster)).toEqual([0, 1, 2, 3]);
    // Hebrew backwards, also where its glyphs are missing.
    expect(shaped.line('אבג', 40).glyphs.map(({ cluster }) => cluster)).toEqual([2, 1, 0]);
  });
});
