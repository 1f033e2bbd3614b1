import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import type { HandOutArea } from '../../src/lib/contract/work';
import { openDatabase } from '../../src/lib/server/db/open';
import { inlinePool } from '../../src/lib/server/render/pool';
import { handOut } from '../../src/lib/server/work/handing-out';
import { openPictures } from '../../src/lib/server/work/pictures';
import { block, place, recipe } from '../support/recipes';
import { kept } from '../support/studio';

/** A checkerboard of 10 px: the unit of 20 px has its ink in two quarters. */
const CHECK = recipe({
  unit: { width: 20, height: 20 },
  motifs: [block('b', 10, 10)],
  placings: [place('b', 5, 5), place('b', 15, 15)],
});
const db = openDatabase(':memory:');
const pool = inlinePool();
const tools = { db, pool, pictures: openPictures(db, pool) };
const check = kept(db, 'Check', {}, CHECK);
const folder = mkdtempSync(join(tmpdir(), 'isle-area-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function picture(area: HandOutArea): Promise<Buffer> {
  const path = join(folder, 'out');
  const made = await handOut(tools, { ids: [check], as: 'area', scale: 1, area }, path);
  if (!made.ok) throw new Error(made.failure.message);
  return readFileSync(path);
}

describe('an area of a pattern as a picture', () => {
  it.each(['png', 'webp', 'tiff'] as const)(
    'is the pattern pixel by pixel, and knows its resolution: %s',
    async (type) => {
      // 30 × 50 px at 192 ppi are 60 × 100 px; one field of the checkerboard is 20 px.
      const file = await picture({ width: 30, height: 50, ppi: 192, type });
      const { format, density } = await sharp(file).metadata();
      expect(format).toBe(type);
      // A WebP file has no resolution of its own; what Exif says of it is not read back here.
      if (type !== 'webp') expect(density).toBeCloseTo(192, 0);
      const { data, info } = await sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
      expect([info.width, info.height]).toEqual([60, 100]);
      for (let y = 0; y < 100; y += 1)
        for (let x = 0; x < 60; x += 1) {
          const inked = (Math.floor(x / 20) + Math.floor(y / 20)) % 2 === 0;
          expect(data[(y * 60 + x) * 4 + 3]).toBe(inked ? 255 : 0);
        }
    },
  );

  it.each([
    [{ width: 9000, height: 9000, ppi: 192, type: 'png' as const }, /18000 × 18000 px; at most 64 million/],
    [
      { width: 20_000, height: 10, ppi: 96, type: 'webp' as const },
      /at most 16383 px a side; take PNG or TIFF/,
    ],
  ])('is refused where it cannot be: %j', async (area, sentence) => {
    await expect(picture(area)).rejects.toThrow(sentence);
  });
});
