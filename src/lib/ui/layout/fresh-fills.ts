import { nanoid } from 'nanoid';
import {
  colourFill,
  coveringLayout,
  coveringPicture,
  freshFill,
  gradientFill,
  type Fill,
  type PatternFill,
} from '$lib/core/recipe/fill';
import { freshGradient } from '$lib/core/recipe/gradient';
import type { Shape, ShapeStroke } from '$lib/core/recipe/layout';

/** The colour that new fills start with. */
export const FRESH_COLOUR = '#2f8fab';

/** What can be laid over a shape's fills. */
export type NewFill =
  | { kind: 'colour' | 'gradient' }
  /** As a watermark: at 20 %, without its ground. */
  | { kind: 'pattern'; pattern: string; watermark?: boolean }
  | { kind: 'picture'; asset: string; width: number; height: number }
  | { kind: 'layout'; layout: string; width: number; height: number };

/** A fill as it starts on a shape. */
export function freshOf(what: NewFill, shape: Shape): Fill {
  const id = nanoid(12);
  switch (what.kind) {
    case 'colour':
      return colourFill(id, { colour: FRESH_COLOUR });
    case 'gradient':
      return gradientFill(id, freshGradient({ colour: FRESH_COLOUR }, { colour: '#ffffff' }));
    case 'pattern':
      // What is laid over others shows them through: its own ground would hide them.
      return {
        ...freshFill(id, what.pattern),
        opacity: what.watermark ? 0.2 : 1,
        ground: shape.fills.length > 0 ? { kind: 'none' } : { kind: 'own' },
      };
    case 'picture': {
      const { asset, width, height } = what;
      return coveringPicture(id, { asset, width, height }, shape);
    }
    case 'layout':
      return coveringLayout(id, what.layout, what, shape);
  }
}

/** A fill of `patternId` that keeps what can be kept of the fill before; colours and hold belong to the old pattern. */
export function refilled(before: Fill | null, patternId: string): PatternFill {
  if (before?.kind !== 'pattern') {
    const { opacity = 1, blend = 'normal', mask = null } = before ?? {};
    return { ...freshFill(nanoid(12), patternId), opacity, blend, mask };
  }
  return before.pattern === patternId
    ? before
    : { ...before, pattern: patternId, held: null, colourway: null, colours: {} };
}

/** A stroke as it starts on a shape. */
export const freshStroke = (shape: Shape): ShapeStroke => ({
  width: Math.max(shape.width, shape.height) / 40,
  cap: 'round',
  join: 'miter',
  dashes: [],
  fills: [colourFill(nanoid(12), { colour: '#14211f' })],
});
