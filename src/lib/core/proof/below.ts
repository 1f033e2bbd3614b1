import type { Hex } from '../colour/parse';
import { boxesMeet, type Box } from '../geom/box';
import { coloursOfInk, type DrawnShape, type Ink, type Layer } from '../draw/list';
import { factsOf } from './facts';

/** What of a layer is seen: colours added to `found`; whether one sees through it, or cannot tell. */
type Seen = 'through' | 'closed' | 'unknown';

/** Whether something covers all below it, so far as a proof has to know. */
export const isFull = (opacity: number): boolean => opacity >= 0.995;

/** The colours of an ink that covers; `null` of one that one sees through. */
export const inkColours = (ink: Ink): Hex[] | null =>
  typeof ink === 'string' || ink.stops.every(({ opacity }) => isFull(opacity)) ? coloursOfInk(ink) : null;

function lookAt({ blend, mask, items }: Layer, found: Hex[]): Seen {
  if (blend !== 'normal') return 'unknown';
  let seen: Seen = 'through';
  for (const item of [...items].reverse()) {
    if (!isFull(item.opacity)) return 'unknown';
    switch (item.kind) {
      case 'picture':
      case 'page':
        return 'unknown';
      case 'tiled':
        if (item.wash || item.pattern.scene.sampled) return 'unknown';
        found.push(...factsOf(item.pattern.scene).slots.flatMap((slot) => item.colours[slot] ?? []));
        break;
      case 'path': {
        const colours = inkColours(item.ink);
        if (!colours) return 'unknown';
        found.push(...colours);
        seen = 'closed';
      }
    }
    if (seen === 'closed') break;
  }
  return seen === 'closed' && mask ? 'unknown' : seen;
}

const holds = (outer: Box, inner: Box): boolean =>
  outer.x <= inner.x + 0.01 &&
  outer.y <= inner.y + 0.01 &&
  outer.x + outer.width >= inner.x + inner.width - 0.01 &&
  outer.y + outer.height >= inner.y + inner.height - 0.01;

/**
 * The colours that lie straight below a layer of a shape (its index among all, bottom first; `layer` counts within the shape), and
 * of all below them that shows between; `null` where they cannot be told: pictures, blends, what is half clear. A shape counts as far as its box reaches.
 */
export function coloursBelow(
  shapes: readonly DrawnShape[],
  at: number,
  layer: number,
  background: Hex | null,
): Hex[] | null {
  const own = shapes[at];
  if (!own) return null;
  const found: Hex[] = [];
  for (let below = layer - 1; below >= 0; below -= 1) {
    const seen = lookAt(own.layers[below]!, found);
    if (seen !== 'through') return seen === 'closed' ? found : null;
  }
  for (let index = at - 1; index >= 0; index -= 1) {
    const other = shapes[index]!;
    if (other.layers.length === 0 || !boxesMeet(other.box, own.box)) continue;
    if (other.masks.length > 0) return null;
    for (const one of [...other.layers].reverse()) {
      const seen = lookAt(one, found);
      if (seen === 'unknown') return null;
      if (seen === 'closed') {
        if (holds(other.box, own.box)) return found;
        break;
      }
    }
  }
  return background === null ? null : [...found, background];
}
