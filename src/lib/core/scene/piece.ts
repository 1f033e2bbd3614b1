import { IDENTITY, type Affine } from '../geom/affine';
import { grow, intersectBoxes, unionBoxes, type Box } from '../geom/box';
import { pathBox, type Path } from '../geom/path';
import type { MotifEffects } from '../recipe/recipe';
import { effectsReach } from './effects';
import { elementBox, type Element } from './motif';

/**
 * A placed motif, ready to draw: its elements in motif space, the matrix into the unit, and the box of its ink there.
 * `image` is the operation of the repeat's symmetry that it was drawn through, the identity for the placing itself.
 * `window` is what of it is seen with its effects, px of the unit; `null` is all.
 */
export type Piece = {
  id: string;
  motif: string;
  elements: Element[];
  matrix: Affine;
  box: Box;
  opacity: number;
  effects: MotifEffects | null;
  image: Affine;
  window: Path | null;
};

type PieceParts = Pick<Piece, 'id' | 'motif' | 'elements' | 'matrix'> &
  Partial<Pick<Piece, 'opacity' | 'effects' | 'image' | 'window'>>;

/** A piece with its box measured; `null` where it has no ink. */
export function pieceOf(parts: PieceParts): Piece | null {
  const { elements, matrix } = parts;
  const ink = inkBox({ elements, matrix });
  if (!ink) return null;
  const { opacity = 1, image = IDENTITY, window = null } = parts;
  const effects = parts.effects && Object.keys(parts.effects).length > 0 ? parts.effects : null;
  const whole = effects ? grow(ink, effectsReach(effects)) : ink;
  const box = window ? seenThrough(whole, window) : whole;
  return box && { ...parts, opacity, image, window, effects, box };
}

/** The box of what elements ink where a matrix lays them, without effects and windows. */
export const inkBox = ({ elements, matrix }: Pick<Piece, 'elements' | 'matrix'>): Box | null =>
  unionBoxes(elements.flatMap((element) => elementBox(element, matrix) ?? []));

function seenThrough(box: Box, window: Path): Box | null {
  const frame = pathBox(window);
  return frame && intersectBoxes(box, frame);
}
