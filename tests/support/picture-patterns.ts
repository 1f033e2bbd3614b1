import type { Repeat } from '../../src/lib/core/lattice/repeat';
import type { ComposedRecipe } from '../../src/lib/core/recipe/recipe';
import { drawingOf, pictureElement } from '../../src/lib/core/scene/drawing';
import { place, recipe } from './recipes';

/** Repeats in which one picture as large as the unit leaves nothing open. */
export const planeRepeats: Record<string, Repeat> = {
  straight: { kind: 'straight' },
  brick: { kind: 'brick', step: 0.5, run: 'progressive' },
  'a brick of thirds': { kind: 'brick', step: 1 / 3, run: 'progressive' },
  'half-drop': { kind: 'half-drop', step: 0.5, run: 'progressive' },
  alternating: { kind: 'brick', step: 0.3, run: 'alternating' },
  mirror: { kind: 'mirror' },
};

/** A pattern of one picture that is as large as the unit. */
export function picturePattern(
  repeat: Repeat,
  { width, height }: { width: number; height: number },
  asset = 'f'.repeat(64),
): ComposedRecipe {
  const matrix = { a: 1, b: 0, c: 0, d: 1, e: -width / 2, f: -height / 2 };
  const content = drawingOf([pictureElement({ asset, width, height, matrix })], asset);
  return recipe({
    repeat,
    unit: { width, height },
    motifs: [{ id: 'photo', name: 'Photo', content }],
    placings: [place('photo', width / 2, height / 2)],
  });
}
