import { freshFill, type Fill, type PatternFill } from './fill';

/** What of a fill can be copied on its own. *Pattern* is what fills it, with the hold; *offset* takes the anchor along. */
export const FILL_PROPERTIES = [
  'pattern',
  'scale',
  'rotation',
  'skew',
  'offset',
  'opacity',
  'ground',
  'colours',
] as const;
export type FillProperty = (typeof FILL_PROPERTIES)[number];

/**
 * `to` with chosen properties of `from`. Without *pattern*, only fills of the same kind take anything; colours belong
 * to a pattern's slots, so they come only where the pattern is the same in the end, and go where another one comes.
 * A fill that is made anew gets `id`.
 */
export function fillLike(
  to: Fill | null,
  from: Fill,
  properties: ReadonlySet<FillProperty>,
  id: string,
): Fill | null {
  if (from.kind === 'colour') {
    const opacity = properties.has('opacity') ? from.opacity : (to?.opacity ?? 1);
    if (properties.has('pattern')) return { ...from, id: to?.kind === 'colour' ? to.id : id, opacity };
    return to?.kind === 'colour' ? { ...to, opacity } : to;
  }
  const base = to?.kind === 'pattern' ? to : properties.has('pattern') ? freshFill(id, from.pattern) : null;
  return base ? patternLike(base, from, properties) : to;
}

function patternLike(
  base: PatternFill,
  from: PatternFill,
  properties: ReadonlySet<FillProperty>,
): PatternFill {
  const next: PatternFill = { ...base };
  if (properties.has('pattern')) {
    next.pattern = from.pattern;
    next.held = from.held;
  }
  if (properties.has('scale')) [next.scaleX, next.scaleY] = [from.scaleX, from.scaleY];
  if (properties.has('rotation')) next.rotation = from.rotation;
  if (properties.has('skew')) next.skew = from.skew;
  if (properties.has('offset')) [next.offset, next.anchor] = [from.offset, from.anchor];
  if (properties.has('opacity')) next.opacity = from.opacity;
  if (properties.has('ground')) [next.ground, next.groundOpacity] = [from.ground, from.groundOpacity];
  const takesColours = properties.has('colours') && next.pattern === from.pattern;
  if (takesColours || next.pattern !== base.pattern) {
    next.colourway = takesColours ? from.colourway : null;
    next.colours = takesColours ? from.colours : {};
    delete next.look;
    if (takesColours && from.look) next.look = from.look;
  }
  return next;
}

/** What a fill looks like apart from its id: two with the same key are the same fill on two shapes. */
export const fillKey = (fill: Fill): string => JSON.stringify({ ...fill, id: '' });
