import { unionBoxes, grow, moveBox, boxesMeet, type Box } from '../geom/box';
import type { Affine } from '../geom/affine';
import type { Point } from '../geom/point';
import { findAbutments, type Abutment } from '../lattice/abut';
import { cellOf, type Cell } from '../lattice/cell';
import { offsetsMeeting } from '../lattice/meet';
import { latticeOf, type Lattice, type Size } from '../lattice/repeat';
import { placingMatrix, type Motif, type Recipe } from '../recipe/recipe';
import { elementEdges } from './edges';
import { compileMotif, elementBox, type CompiledMotif, type Element } from './motif';

/** A placed motif, ready to draw: its elements in motif space, the matrix into the unit, and the box of its ink there. */
export type Piece = { id: string; motif: string; elements: Element[]; matrix: Affine; box: Box };

/** A recipe compiled: the drawables of one unit and the lattice that lays them. Colours stay slots. */
export type UnitScene = {
  /** The unit with its gaps: how far it is to the next unit across and down, in px. */
  pitch: Size;
  lattice: Lattice;
  cell: Cell;
  pieces: Piece[];
  /** The box of all pieces, or `null` for a unit without art. */
  artBox: Box | null;
  /** The slot of the pattern's own ground, or `null` where it is clear. */
  groundSlot: string | null;
  /** Lines to underlay so that no hairline shows where pieces meet edge to edge. */
  abutments: Abutment[];
};

/** Remembers compiled motifs between calls while their data stay the same object; the caller owns it. */
export type MotifCache = WeakMap<Motif, CompiledMotif>;

export type CompileOptions = {
  cache?: MotifCache;
  /** Leave the search for abutting edges out, as while something is dragged. */
  skipAbutments?: boolean;
};

/** Compiles a recipe that `checkRecipe` found sound. */
export function compileUnit(recipe: Recipe, options: CompileOptions = {}): UnitScene {
  const compiled = new Map(recipe.motifs.map((motif) => [motif.id, compiledMotif(motif, options.cache)]));
  const pieces = recipe.placings.flatMap((placing): Piece[] => {
    const motif = compiled.get(placing.motif);
    if (!motif || motif.elements.length === 0) return [];
    const matrix = placingMatrix(placing);
    const box = pieceBox(motif, matrix);
    return box ? [{ id: placing.id, motif: placing.motif, elements: motif.elements, matrix, box }] : [];
  });
  const lattice = latticeOf(recipe.unit, recipe.gap, recipe.repeat);
  return {
    pitch: { width: recipe.unit.width + recipe.gap.across, height: recipe.unit.height + recipe.gap.down },
    lattice,
    cell: cellOf(recipe.unit, recipe.gap, recipe.repeat),
    pieces,
    artBox: unionBoxes(pieces.map((piece) => piece.box)),
    groundSlot: recipe.ground.kind === 'slot' ? recipe.ground.slot : null,
    abutments: options.skipAbutments ? [] : abutmentsOf(pieces, lattice),
  };
}

/** A piece drawn at one lattice offset. */
export type LaidPiece = { piece: Piece; offset: Point };

/**
 * Every piece at every offset at which it meets the convex region, in the order of drawing: by lattice offset, within
 * it by stack. What crosses one edge of the unit comes back exactly one lattice vector away.
 */
export function piecesOver(scene: UnitScene, region: readonly Point[], margin = 0): LaidPiece[] {
  if (!scene.artBox) return [];
  const regionBox = unionBoxes(region.map((point) => ({ ...point, width: 0, height: 0 })));
  if (!regionBox) return [];
  const wide = grow(regionBox, margin + 1e-6);
  return offsetsMeeting(scene.lattice, grow(scene.artBox, margin), region).flatMap((offset) =>
    scene.pieces
      .filter((piece) => boxesMeet(moveBox(piece.box, offset), wide))
      .map((piece) => ({ piece, offset })),
  );
}

function compiledMotif(motif: Motif, cache: MotifCache | undefined): CompiledMotif {
  const held = cache?.get(motif);
  if (held) return held;
  const compiled = compileMotif(motif);
  cache?.set(motif, compiled);
  return compiled;
}

function pieceBox(motif: CompiledMotif, matrix: Affine): Box | null {
  return unionBoxes(motif.elements.flatMap((element) => elementBox(element, matrix) ?? []));
}

function abutmentsOf(pieces: readonly Piece[], lattice: Lattice): Abutment[] {
  const edges = pieces.flatMap((piece, index) =>
    piece.elements.flatMap((element) => elementEdges(element, piece.matrix, index)),
  );
  return findAbutments(
    edges,
    pieces.map((piece) => piece.box),
    lattice,
  );
}
