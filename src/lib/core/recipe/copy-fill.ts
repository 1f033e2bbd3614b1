import { freshFill, freshLayer, freshPlace, isPlaced, type Fill, type PatternFill } from './fill';

/** What of a fill can be copied on its own. *Pattern* is what fills it, with the hold; *offset* takes the anchor along. */
export const FILL_PROPERTIES = [
  'pattern',
  'scale',
  'rotation',
  'skew',
  'reflection',
  'offset',
  'opacity',
  'blend',
  'ground',
  'colours',
  'gradient',
  'mask',
] as const;
export type FillProperty = (typeof FILL_PROPERTIES)[number];

/**
 * `to` with chosen properties of `from`. Without *pattern* what fills the shape stays, and takes only what it has;
 * colours belong to a pattern's slots, so they come only where the pattern is the same in the end, and go where another
 * one comes. A fill that is made anew gets `id`.
 */
export function fillLike(
  to: Fill | null,
  from: Fill,
  properties: ReadonlySet<FillProperty>,
  id: string,
): Fill | null {
  const base = properties.has('pattern') ? filledLike(to, from, id) : to;
  if (!base) return null;
  let next: Fill = { ...base };
  if (properties.has('opacity')) next.opacity = from.opacity;
  if (properties.has('blend')) next.blend = from.blend;
  if (properties.has('mask')) next.mask = from.mask;
  if (isPlaced(next) && isPlaced(from)) {
    if (properties.has('scale')) [next.scaleX, next.scaleY] = [from.scaleX, from.scaleY];
    if (properties.has('rotation')) next.rotation = from.rotation;
    if (properties.has('skew')) next.skew = from.skew;
    if (properties.has('reflection')) [next.reflectX, next.reflectY] = [from.reflectX, from.reflectY];
    if (properties.has('offset'))
      next = { ...next, offset: from.offset, anchor: from.anchor, anchored: from.anchored };
  }
  if (next.kind === 'gradient' && from.kind === 'gradient' && properties.has('gradient'))
    next.gradient = from.gradient;
  if (next.kind !== 'pattern' || from.kind !== 'pattern') return next;
  return patternLike(next, from, to, properties);
}

/** A fill of what `from` shows, with the numbers of `to` where both are of a kind. */
function filledLike(to: Fill | null, from: Fill, id: string): Fill {
  const layer = to ? { ...freshLayer(id), opacity: to.opacity } : freshLayer(id);
  switch (from.kind) {
    case 'colour':
      return { ...from, ...(to?.kind === 'colour' ? keptLayer(to) : layer) };
    case 'gradient':
      return { ...from, ...(to?.kind === 'gradient' ? keptLayer(to) : layer) };
    case 'picture': {
      const base = to?.kind === 'picture' ? to : { ...from, ...layer, ...freshPlace() };
      return { ...base, asset: from.asset, width: from.width, height: from.height };
    }
    case 'layout': {
      const base = to?.kind === 'layout' ? to : { ...from, ...layer, ...freshPlace() };
      return { ...base, layout: from.layout };
    }
    case 'pattern': {
      const base = to?.kind === 'pattern' ? to : freshFill(id, from.pattern);
      return { ...base, pattern: from.pattern, held: from.held };
    }
  }
}

const keptLayer = ({ version, id, opacity, blend, shown, mask }: Fill) => ({
  version,
  id,
  opacity,
  blend,
  shown,
  mask,
});

function patternLike(
  base: PatternFill,
  from: PatternFill,
  before: Fill | null,
  properties: ReadonlySet<FillProperty>,
): PatternFill {
  const next: PatternFill = { ...base };
  if (properties.has('ground')) [next.ground, next.groundOpacity] = [from.ground, from.groundOpacity];
  if (properties.has('gradient')) next.wash = from.wash;
  const takesColours = properties.has('colours') && next.pattern === from.pattern;
  const another = before?.kind !== 'pattern' || before.pattern !== next.pattern;
  if (takesColours || another) {
    next.colourway = takesColours ? from.colourway : null;
    next.colours = takesColours ? from.colours : {};
    delete next.look;
    if (takesColours && from.look) next.look = from.look;
  }
  return next;
}

/** What a fill looks like apart from its id: two with the same key are the same fill on two shapes. */
export const fillKey = (fill: Fill): string => JSON.stringify({ ...fill, id: '' });
