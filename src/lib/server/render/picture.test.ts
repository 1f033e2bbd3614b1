import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { readPicture } from './picture';

describe('a picture with colours of its own profile', () => {
  const red = sharp({ create: { width: 8, height: 8, channels: 3, background: '#c83c28' } });

  it('is taken into sRGB, and that is said; one in sRGB stays to the byte', async () => {
    const wide = await red.clone().withIccProfile('p3').png().toBuffer();
    const read = await readPicture(wide, 'wide.png');
    if (!read.ok) throw new Error(read.failure.message);
    expect(read.value.notes.join(' ')).toContain('profile of their own; they were taken into sRGB');
    const pixel = await sharp(read.value.bytes, { ignoreIcc: true }).raw().toBuffer();
    const wanted = [200, 60, 40];
    for (let channel = 0; channel < 3; channel += 1)
      expect(Math.abs(pixel[channel]! - wanted[channel]!)).toBeLessThanOrEqual(3);
    const plain = await red.clone().withIccProfile('srgb').png().toBuffer();
    const kept = await readPicture(plain, 'plain.png');
    expect(kept.ok && [kept.value.notes, Buffer.compare(kept.value.bytes, plain)]).toEqual([[], 0]);
  });
});
