import { lookKey, type PictureLook } from '../../core/colour/look';
import type { DisplayList } from '../../core/draw/list';
import { shownPictures } from '../../core/draw/pictures';
import { embedPictures, picturesIn, type ShownPicture } from '../../core/svg/paint';
import type { Db } from '../db/open';
import type { PictureSource, PixelSource } from '../render/png';
import type { RenderPool } from '../render/pool';
import { pictureBytes } from './making';

/** Pictures of the assets, recoloured on the render threads where a fill asks for it; what was made is kept for a while. */
export type Pictures = {
  /** PNG bytes of an asset through a look, or `null` where there is no such picture. */
  recoloured(asset: string, look: PictureLook): Promise<Uint8Array | null>;
  /** Everything that a layout draws. */
  forScene(scene: DisplayList): Promise<PictureSource>;
  /** A picture that a fill or a mask samples. */
  pixels: PixelSource;
  /** An SVG text with all its pictures inside. */
  embed(svg: string): Promise<string>;
};

/** Bytes of recoloured pictures that are kept in memory. */
const KEPT_BYTES = 200_000_000;

/** Opens the pictures of a database. */
export function openPictures(db: Db, pool: RenderPool): Pictures {
  const kept = new Map<string, { made: Promise<Uint8Array | null>; bytes: number }>();
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
    const made = pictureFile(asset).then((file) => file && pool.recolour({ bytes: file.bytes, look }));
    const fresh = { made, bytes: 0 };
    kept.set(key, fresh);
    made.then(
      (bytes) => {
        if (!bytes) return void kept.delete(key);
        fresh.bytes = bytes.length;
        keptBytes += bytes.length;
        forget();
      },
      () => kept.delete(key),
    );
    return made;
  }

  /** The file of a picture; one that is made and is not there yet is made. */
  async function pictureFile(asset: string): Promise<{ bytes: Uint8Array; mediaType: string } | null> {
    const file = await pictureBytes(db, asset);
    return file.ok ? file.value : null;
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
    const keyOf = ({ asset, look }: ShownPicture): string => `${asset} ${look ? lookKey(look) : ''}`;
    for (const one of wanted) {
      if (urls.has(keyOf(one))) continue;
      const { asset, look } = one;
      const recolouredBytes = look && (await recoloured(asset, look));
      const file = look
        ? recolouredBytes && { bytes: recolouredBytes, mediaType: 'image/png' }
        : await pictureFile(asset);
      if (file)
        urls.set(keyOf(one), `data:${file.mediaType};base64,${Buffer.from(file.bytes).toString('base64')}`);
    }
    return (one) => urls.get(keyOf(one)) ?? null;
  }

  return {
    recoloured,
    forScene: (scene) => sourceOf(shownPictures(scene)),
    pixels: async ({ asset, look, share, edges }) => {
      const bytes = (look && (await recoloured(asset, look))) ?? (await pictureFile(asset))?.bytes;
      return bytes ? pool.pixels({ bytes, share, edges }) : null;
    },
    embed: async (svg) => embedPictures(svg, await sourceOf(picturesIn(svg))),
  };
}
