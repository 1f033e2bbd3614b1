import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { animatedWebp } from '../../src/lib/core/formats/webp-frames';

const COLOURS = ['#d02020', '#20a040', '#2040c0'];
const frame = (colour: string, alpha: boolean): Promise<Buffer> =>
  sharp({
    create: {
      width: 40,
      height: 30,
      channels: 4,
      background: alpha ? { r: 200, g: 30, b: 30, alpha: 0.5 } : colour,
    },
  })
    .webp({ lossless: true })
    .toBuffer();

describe('a moving WebP', () => {
  // libvips (LGPL, through sharp, Apache-2.0) reads what we wrote.
  it('is read by a second library: its frames, their time, their colours, for ever from the start', async () => {
    const frames = await Promise.all(COLOURS.map((colour) => frame(colour, false)));
    const bytes = animatedWebp(frames, { width: 40, height: 30, ms: 90 });
    const { pages, delay, loop, width, pageHeight, format } = await sharp(bytes, {
      animated: true,
    }).metadata();
    expect([format, pages, delay, loop, width, pageHeight]).toEqual(['webp', 3, [90, 90, 90], 0, 40, 30]);
    const { data, info } = await sharp(bytes, { animated: true })
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const at = (page: number): string => {
      const from = (page * 30 + 15) * info.width * info.channels + 20 * info.channels;
      return `#${[...data.subarray(from, from + 3)].map((one) => one.toString(16).padStart(2, '0')).join('')}`;
    };
    expect([at(0), at(1), at(2)]).toEqual(COLOURS);
  });

  it('keeps what one can see through, and refuses what is no WebP', async () => {
    const clear = animatedWebp([await frame('', true), await frame('', true)], {
      width: 40,
      height: 30,
      ms: 40,
    });
    const { data } = await sharp(clear, { animated: true }).raw().toBuffer({ resolveWithObject: true });
    expect(data[3]).toBeGreaterThan(120);
    expect(data[3]).toBeLessThan(136);
    expect(() => animatedWebp([new Uint8Array(40)], { width: 4, height: 4, ms: 1 })).toThrow(
      'must be a WebP',
    );
  });
});
