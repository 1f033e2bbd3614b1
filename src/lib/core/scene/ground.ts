import { scaling, translation } from '../geom/affine';
import { transformPath } from '../geom/path';
import type { Point } from '../geom/point';
import { rectanglePath } from '../geom/shapes';
import type { Size } from '../lattice/repeat';
import type { Ground } from '../recipe/recipe';
import { plainElement } from './motif';
import { pieceOf, type Piece } from './piece';

/**
 * A pattern's own ground: the slot of its flat colour; a gradient that repeats along `to`, painted once over all; or
 * a piece in the middle of every unit that fades into the flat colour.
 */
export type GroundScene = {
  slot: string;
  gradient: { to: Point; stops: { at: number; slot: string }[] } | null;
  art: Piece | null;
};

/** The ground of a recipe whose units lie `pitch` apart; `null` where it is clear. */
export function groundOfRecipe(ground: Ground, pitch: Size, unit: Size): GroundScene | null {
  switch (ground.kind) {
    case 'clear':
      return null;
    case 'slot':
      return { slot: ground.slot, gradient: null, art: null };
    case 'linear': {
      const [first] = ground.stops;
      if (!first) return null;
      const to = ground.along === 'across' ? { x: pitch.width, y: 0 } : { x: 0, y: pitch.height };
      const stops = [...ground.stops].sort((one, other) => one.at - other.at);
      return {
        slot: first.slot,
        gradient: { to, stops: [...stops, { at: 1, slot: first.slot }] },
        art: null,
      };
    }
    case 'radial': {
      const stops = [...ground.stops].sort((one, other) => one.at - other.at);
      const last = stops[stops.length - 1];
      if (!last) return null;
      return { slot: last.slot, gradient: null, art: glow(ground.radius, stops, unit) };
    }
  }
}

function glow(radius: number, stops: { at: number; slot: string }[], unit: Size): Piece | null {
  const r = radius * Math.min(unit.width, unit.height);
  const circle = transformPath(translation(-r, -r), rectanglePath(2 * r, 2 * r, Infinity));
  const fill = {
    kind: 'radial' as const,
    matrix: scaling(r),
    stops: stops.map((stop) => ({ ...stop, opacity: 1 })),
    spread: 'pad' as const,
  };
  const matrix = translation(unit.width / 2, unit.height / 2);
  return pieceOf({ id: 'ground', motif: 'ground', elements: [plainElement(circle, { fill })], matrix });
}
