import { lookKey, type PictureLook } from '../../core/colour/look';
import type { LayoutScene } from '../../core/scene/layout';
import { recolouredPictures } from '../../core/scene/pictures';
import { embedPictures, picturesIn, type ShownPicture } from '../../core/svg/paint';
import type { Db } from '../db/open';
import { assetUrl, readAsset } from '../repo/assets';
import type { PictureSource, PixelSource } from '../render/png';
import type { RenderPool } from '../render/pool';

/** Pictures of the assets, recoloured on the render threads where a fill asks for it; what was made is kept for a while. */
export type Pictures = {
  /** PNG bytes of an asset through a look, or `null` where there is no such picture. */
  recoloured(asset: string, look: PictureLook): Promise<Uint8Array | null>;
  /** Everything that a layout draws. */
  forScene(scene: LayoutScene): Promise<PictureSource>;
  /** A picture that a fill or a mask samples. */
  pixels: PixelSource;
  /** An SVG text with all its pictures inside. */
  embed(svg: string): Promise<string>;
};

/** Bytes of recoloured pictures that are kept in memory. */
const KEPT_BYTES = 200_000_000;

/** Opens the pictures of a database. */
export function openPictures(db: Db, pool: RenderPool): Pictures {
  const kept = new Map<string, { made: Promise<Uint8Array>; bytes: number }>();
  let keptBytes = 0;

  function recoloured(asset: string, look: PictureLook): Promise<Uint8Array | null> {
    const key = `${asset} ${lookKey(look)}`;
    const held = kept.get(key);
    if (held) {
      // The last asked for stands last and is forgotten last.
      kept.delete(key);
      kept.set(key, held);
      return held.made;
    }
    const file = readAsset(db, asset);
    if (!file || file.mediaType === 'image/svg+xml') return Promise.resolve(null);
    const fresh = { made: pool.recolour({ bytes: file.bytes, look }), bytes: 0 };
    kept.set(key, fresh);
    fresh.made.then(
      ({ length }) => {
        fresh.bytes = length;
        keptBytes += length;
        forget();
      },
      () => kept.delete(key),
    );
    return fresh.made;
  }

  /** Lets the longest unused go while there are too many; those still being made stay. */
  function forget(): void {
    for (const [key, { bytes }] of kept) {
      if (keptBytes <= KEPT_BYTES) return;
      if (bytes === 0) continue;
      kept.delete(key);
      keptBytes -= bytes;
    }
  }

  async function sourceOf(wanted: readonly ShownPicture[]): Promise<PictureSource> {
    const urls = new Map<string, string>();
    for (const { asset, look } of wanted) {
      const bytes = look && (await recoloured(asset, look));
      if (look && bytes)
        urls.set(
          `${asset} ${lookKey(look)}`,
          `data:image/png;base64,${Buffer.from(bytes).toString('base64')}`,
        );
    }
    return ({ asset, look }) =>
      look ? (urls.get(`${asset} ${lookKey(look)}`) ?? null) : assetUrl(db, asset);
  }

  return {
    recoloured,
    forScene: (scene) => sourceOf(recolouredPictures(scene)),
    pixels: async ({ asset, halvings, look }) => {
      const file = readAsset(db, asset);
      if (!file || file.mediaType === 'image/svg+xml') return null;
      const bytes = (look && (await recoloured(asset, look))) ?? file.bytes;
      return pool.pixels({ bytes, halvings });
    },
    embed: async (svg) => embedPictures(svg, await sourceOf(picturesIn(svg))),
  };
}
