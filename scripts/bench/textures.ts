import sharp from 'sharp';
import { channelOf, channelsOf, cutOut, edgeColour, suggestCut } from '../../src/lib/core/picture/matte';
import { makeTexture } from '../../src/lib/core/picture/texture/make';
import { freshTexture, TEXTURE_KINDS, TEXTURES } from '../../src/lib/core/recipe/texture';
import { median, print, sized, type Row } from './measure';

const SIDE = sized(4096, 128);
/** A matte is seen with so many px a side at most while it is set. */
const SEEN = { width: sized(720, 90), height: sized(480, 60) };

/** Textures from numbers, beside noise and a blur of the same size by libvips; and a cut-out as it is seen while it is set. */
export async function benchTextures(): Promise<void> {
  const noise = { type: 'gaussian', mean: 128, sigma: 30 } as const;
  const libvips = await median(
    () =>
      sharp({ create: { width: SIDE, height: SIDE, channels: 3, background: '#000000', noise } })
        .extractChannel(0)
        .blur(10)
        .raw()
        .toBuffer(),
    3,
  );
  const rows: Row[] = [{ what: 'libvips, noise and a Gaussian blur (σ 10)', ms: libvips }];
  for (const kind of TEXTURE_KINDS) {
    const ms = await median(() => makeTexture(freshTexture(kind, SIDE)), 1);
    const { label } = TEXTURES[kind];
    rows.push({ what: label, ms, ratio: ms / libvips, reference: 'of it (goal ≤ 1.5)' });
  }
  print(`A texture of ${SIDE} × ${SIDE} px`, rows);
  const data = await sharp({ create: { ...SEEN, channels: 3, background: '#000000', noise } })
    .ensureAlpha()
    .raw()
    .toBuffer();
  const picture = { ...SEEN, data };
  const behind = edgeColour(picture);
  const cut = { ...suggestCut(picture, channelsOf(picture, behind), behind), feather: 2 };
  const values = channelOf(picture, cut.channel, cut.colour);
  const matte = await median(() => cutOut(picture, cut, 0.24, values));
  print('A cut-out as it is seen while its levels are dragged', [
    {
      what: `${SEEN.width} × ${SEEN.height} px`,
      ms: matte,
      ratio: matte / 16.7,
      reference: 'frames (goal ≤ 1)',
    },
  ]);
}
