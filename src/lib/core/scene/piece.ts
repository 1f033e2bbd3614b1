import { IDENTITY, type Affine } from '../geom/affine';
import { grow, unionBoxes, type Box } from '../geom/box';
import type { MotifEffects } from '../recipe/recipe';
import { effectsReach } from './effects';
import { elementBox, type Element } from './motif';

/**
 * A placed motif, ready to draw: its elements in motif space, the matrix into the unit, and the box of its ink there.
 * `image` is the operation of the repeat's symmetry that it was drawn through, the identity for the placing itself.
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
};

type PieceParts = Pick<Piece, 'id' | 'motif' | 'elements' | 'matrix'> &
  Partial<Pick<Piece, 'opacity' | 'effects' | 'image'>>;

/** A piece with its box measured; `null` where it has no ink. */
export function pieceOf(parts: PieceParts): Piece | null {
  const { elements, matrix } = parts;
  const ink = unionBoxes(elements.flatMap((element) => elementBox(element, matrix) ?? []));
  if (!ink) return null;
  const { opacity = 1, image = IDENTITY } = parts;
  const effects = parts.effects && Object.keys(parts.effects).length > 0 ? parts.effects : null;
  return { ...parts, opacity, image, effects, box: effects ? grow(ink, effectsReach(effects)) : ink };
}
