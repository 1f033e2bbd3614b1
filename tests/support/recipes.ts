import { emptyRecipe, type ComposedRecipe, type Motif, type Placing } from '../../src/lib/core/recipe/recipe';

/** A recipe for tests: a clear 100 × 100 px unit without art, changed by `over`. */
export function recipe(over: Partial<ComposedRecipe> = {}): ComposedRecipe {
  return {
    ...emptyRecipe('px', { width: 100, height: 100 }),
    slots: [
      { id: 'ink', name: 'Ink', colour: '#102030' },
      { id: 'paper', name: 'Paper', colour: '#ffffff' },
    ],
    ...over,
  };
}

/** A rectangle motif. */
export function block(id: string, width: number, height: number, slot = 'ink'): Motif {
  return {
    id,
    name: id,
    content: { kind: 'form', form: { kind: 'rectangle', radius: 0 }, width, height, slot },
  };
}

/** A round motif. */
export function dot(id: string, diameter: number, slot = 'ink'): Motif {
  return {
    id,
    name: id,
    content: { kind: 'form', form: { kind: 'ellipse' }, width: diameter, height: diameter, slot },
  };
}

/** A motif of one path about (0, 0). */
export function drawing(id: string, d: string, slot = 'ink'): Motif {
  return {
    id,
    name: id,
    content: {
      kind: 'drawing',
      asset: null,
      width: 10,
      height: 10,
      elements: [{ d, fill: slot, fillRule: 'nonzero', stroke: null, opacity: 1 }],
    },
  };
}

/** A placing, upright and at its own size unless `over` says otherwise. */
export function place(motif: string, x: number, y: number, over: Partial<Placing> = {}): Placing {
  return { id: `${motif}-${x}-${y}`, motif, x, y, rotation: 0, scaleX: 1, scaleY: 1, opacity: 1, ...over };
}
