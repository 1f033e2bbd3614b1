import type { SharedPicture } from '../../contract/render';
import { lookKey, withColours, type PictureLook } from '../../core/colour/look';
import { numberColours } from '../../core/colour/slots';
import { allLayers, itemsOf, type DisplayList, type TiledItem } from '../../core/draw/list';
import { meanScale, type Affine } from '../../core/geom/affine';
import type { Edges } from '../../core/raster/resample';
import { halvings } from '../../core/raster/sample';

/** A picture that a band samples: an asset, how it is recoloured, the share of its size it is decoded at, and what lies beside it. */
export type NeededPicture = { asset: string; share: number; look: PictureLook | null; edges: Edges };
export type PictureLookup = (needed: NeededPicture) => SharedPicture | null;

export type Scale = { x: number; y: number };

/**
 * Sizes of one picture are decoded each for itself as long as they come to no more pixels than all of its halves would,
 * in shares of its own; of more, those by halves.
 */
const MOST_PIXELS = 4 / 3;

/** The pictures that a page samples at `scale` output px to a page px, each once. */
export function picturesNeeded(scene: DisplayList, scale: Scale): NeededPicture[] {
  const found = scene.shapes.flatMap((shape) => {
    const items = itemsOf(shape);
    const masks = [...shape.masks, ...allLayers(shape).map(({ mask }) => mask)].filter(
      (one) => one?.kind === 'picture',
    );
    const pictures = items.filter((item) => item.kind === 'picture');
    const planes = items.flatMap((item) => (item.kind === 'tiled' ? planePictures(item, scale) : []));
    return [...[...pictures, ...masks].map((one) => neededPicture(one, scale)), ...planes];
  });
  const sizes = grouped(found, kindKey);
  const chosen = [...sizes.values()].flatMap((same) => {
    const shares = [...new Set(same.map(({ share }) => share))];
    return shares.reduce((sum, share) => sum + share ** 2, 0) <= MOST_PIXELS
      ? same
      : same.map((one) => ({ ...one, share: 2 ** -halvings(one.share) }));
  });
  return [...new Map(chosen.map((one) => [`${kindKey(one)} ${one.share}`, one])).values()];
}

function grouped<T>(all: readonly T[], keyOf: (one: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const one of all) {
    const held = groups.get(keyOf(one));
    if (held) held.push(one);
    else groups.set(keyOf(one), [one]);
  }
  return groups;
}

/** A name for a picture at any size: equal pictures have equal names. */
const kindKey = ({ asset, look, edges }: NeededPicture): string =>
  `${asset} ${edges} ${look ? lookKey(look) : ''}`;

/** Looks a picture up among those that were decoded: the smallest that is large enough. */
export function pictureLookup(
  decoded: readonly { needed: NeededPicture; picture: SharedPicture | null }[],
): PictureLookup {
  const kinds = grouped(decoded, ({ needed }) => kindKey(needed));
  for (const same of kinds.values()) same.sort((one, other) => one.needed.share - other.needed.share);
  return (needed) => {
    const same = kinds.get(kindKey(needed)) ?? [];
    const enough = same.find(({ needed: { share } }) => share >= needed.share - 1e-9);
    return (enough ?? same.at(-1))?.picture ?? null;
  };
}

/** The pictures of a pattern that is one plane of them, in the order of its assets. */
export function planePictures({ pattern, matrix, look, colours }: TiledItem, scale: Scale): NeededPicture[] {
  const { plane } = pattern.scene;
  if (!plane) return [];
  return plane.files.map((file, index) => {
    // One that lies there in several sizes is decoded for the largest.
    const sizes = plane.parts
      .filter(({ picture }) => picture === index)
      .map((part) => meanScale(part.matrix));
    const shown = Math.max(...sizes) * meanScale(matrix) * meanOf(scale);
    return {
      asset: file.asset,
      share: Math.min(1, shown),
      look: withColours(look, numberColours(file.slots, colours)),
      edges: plane.edges,
    };
  });
}

export const meanOf = ({ x, y }: Scale): number => Math.sqrt(x * y);

export const neededPicture = (
  { asset, matrix, look = null }: { asset: string; matrix: Affine; look?: PictureLook | null },
  scale: Scale,
): NeededPicture => ({
  asset,
  look,
  share: Math.min(1, meanScale(matrix) * meanOf(scale)),
  edges: 'clamp',
});
