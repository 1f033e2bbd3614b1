import type { MotifEffects } from '../recipe/recipe';

/** A blur of standard deviation σ has faded below 1/255 after three σ. */
const BLUR_REACH = 3;

/** How far shadows and relief can reach beyond a motif's ink, in px of the unit. */
export function effectsReach({ drop, inner, relief }: MotifEffects): number {
  const reaches = [drop, inner].flatMap((shadow) =>
    shadow ? [shadow.distance + BLUR_REACH * shadow.blur] : [],
  );
  if (relief) reaches.push(relief.height + BLUR_REACH * relief.softness);
  return Math.max(0, ...reaches) + 1;
}
