import { withColours, type PictureLook } from '../colour/look';
import { numberColours } from '../colour/slots';
import { drawnPictures } from '../scene/pictures';
import { allLayers, listsIn, tiledOf, type DisplayList, type DrawnShape, type TiledItem } from './list';

type Shown = { asset: string; look: PictureLook | null };

const ofPattern = ({ pattern, look, colours }: TiledItem): Shown[] =>
  drawnPictures(pattern.scene).map(({ asset, slots }) => ({
    asset,
    look: withColours(look, numberColours(slots, colours)),
  }));

/** The pictures that a shape shows by itself, and as masks. */
const ofShape = (shape: DrawnShape): Shown[] =>
  [
    ...shape.masks,
    ...allLayers(shape).flatMap(({ mask, items }) => [
      ...(mask ? [mask] : []),
      ...items.filter((item) => item.kind === 'picture'),
    ]),
  ].flatMap((one) =>
    one.kind === 'picture' ? [{ asset: one.asset, look: 'look' in one ? one.look : null }] : [],
  );

/**
 * The pictures that stand in the drawings of a page, each with how it is recoloured: those of its patterns, but for planes, which are
 * sampled instead; and all of the pages that lie in it, which are drawings as a whole.
 */
export function shownPictures(list: DisplayList): Shown[] {
  const [page, ...within] = listsIn(list);
  return [
    ...page!.list.shapes
      .flatMap(tiledOf)
      .filter(({ pattern }) => !pattern.scene.plane)
      .flatMap(ofPattern),
    ...within.flatMap(({ list: { shapes } }) => [
      ...shapes.flatMap(tiledOf).flatMap(ofPattern),
      ...shapes.flatMap(ofShape),
    ]),
  ];
}
