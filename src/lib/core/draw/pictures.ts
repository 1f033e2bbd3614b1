import { withColours, type PictureLook } from '../colour/look';
import { numberColours } from '../colour/slots';
import { drawnPictures } from '../scene/pictures';
import { tiledOf, type DisplayList } from './list';

/** The pictures that patterns on a page draw, each with how it is recoloured; those of one plane are sampled instead. */
export const shownPictures = ({ shapes }: DisplayList): { asset: string; look: PictureLook | null }[] =>
  shapes.flatMap(tiledOf).flatMap(({ pattern, look, colours }) =>
    pattern.scene.plane
      ? []
      : drawnPictures(pattern.scene).map(({ asset, slots }) => ({
          asset,
          look: withColours(look, numberColours(slots, colours)),
        })),
  );
