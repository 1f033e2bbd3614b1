import { type Box, boxesMeet, boxOfPoints, grow, moveBox, unionBoxes } from '../geom/box';
import { applyVector, multiply, type Affine } from '../geom/affine';
import type { Point } from '../geom/point';
import { touchingPieces } from '../lattice/abut';
import { findAbutments, type Abutment } from '../lattice/underlay';
import { cellOf, type Cell } from '../lattice/cell';
import { offsetsMeeting } from '../lattice/meet';
import { imagesOf, latticeOf, pitchOf, type Lattice, type Size } from '../lattice/repeat';
import { placingMatrix, type ComposedRecipe, type Motif, type Placing, type Recipe } from '../recipe/recipe';
import type { Problem } from '../recipe/problem';
import { tooMuch, tooMuchDetail } from './cost';
import { elementEdges } from './edges';
import type { Endless } from './endless';
import { groundOfRecipe, type GroundScene } from './ground';
import { buildMeasured } from './measured';
import { coveredBy } from './covered';
import { cutElements, cuttingOf, windowOf, type Cut } from './cut-at-mirrors';
import { effectsReach } from './effects';
import { compileMotif, type CompiledMotif, type Element } from './motif';
import { unitedMotif } from './united';
import { meetingPictures, type MeetingPicture, type PlaneScene } from './picture-plane';
import { inkBox, pieceOf, type Piece } from './piece';
import { asLaid } from './pictured';

export type { Piece };

/** A recipe compiled: the drawables of one unit and the lattice that lays them. Colours stay slots. */
export type UnitScene = {
  /** The unit with its gaps: how far it is to the next unit across and down, in px. */
  pitch: Size;
  lattice: Lattice;
  cell: Cell;
  pieces: Piece[];
  /** Lines that run on without an end, drawn under all pieces. */
  endless: Endless[];
  /** The box of all pieces, or `null` for a unit without pieces. */
  artBox: Box | null;
  /** True where nothing is drawn but the ground. */
  empty: boolean;
  ground: GroundScene | null;
  /** Lines to underlay so that no hairline shows where pieces meet edge to edge. */
  abutments: Abutment[];
  /** Pictures that meet edge to edge: they get an underlay of their own. */
  meeting: readonly MeetingPicture[];
  /** What is seen where such pictures leave nothing open; a PNG samples it as one plane. */
  plane: PlaneScene | null;
  /** True where pieces are drawn in layers of their own (opacity, clips, filters). */
  layered: boolean;
  /** True where pieces hold pictures or filters: a PNG then samples a tile instead of drawing every copy. */
  sampled: boolean;
  /** Why nothing is drawn of a recipe that is too much to draw; nothing that compiles one can be drowned by it. */
  fault: Problem | null;
};

/** Remembers compiled motifs between calls while their data stay the same object; the caller owns it. */
export type MotifCache = WeakMap<Motif, CompiledMotif>;

/** Remembers the pieces of placings that stayed the same object; the caller owns it. */
export type PieceCache = WeakMap<Placing, { motif: Motif; laid: string; pieces: Piece[] }>;

export type CompileOptions = {
  cache?: MotifCache;
  pieces?: PieceCache;
  /** Leave out how the whole plane lies: the unit upright, as it is worked on. */
  upright?: boolean;
  /** Leave the search for abutting edges out, as while something is dragged. */
  skipAbutments?: boolean;
};

/** Compiles a recipe that `checkRecipe` found sound. */
export function compileUnit(recipe: Recipe, asked: CompileOptions = {}): UnitScene {
  if (recipe.kind === 'measured') return compileMeasured(recipe);
  if (recipe.kind === 'pictured') return compileUnit(asLaid(recipe), asked);
  const options = { ...asked, cache: asked.cache ?? new WeakMap<Motif, CompiledMotif>() };
  const { unit, gap, repeat, front } = recipe;
  const lie = options.upright ? null : (recipe.lie ?? null);
  const lattice = laidLattice(latticeOf(unit, gap, repeat, front), lie);
  const pitch = pitchOf(unit, gap, repeat);
  const ground = laidGround(groundOfRecipe(recipe.ground, pitch, unit), lie);
  const detail = tooMuchDetail(placedSegments(recipe, options));
  const drawn = detail ? [] : piecesOf(recipe, lie, options);
  const pieces = ground?.art ? [ground.art, ...drawn] : drawn;
  const cell = laidCell(cellOf(unit, gap, repeat), lie);
  const fault = detail ?? tooMuch({ pieces, endless: [], lattice, cell }, false);
  return finish({
    pitch,
    lattice,
    cell,
    pieces: fault ? [] : pieces,
    endless: [],
    ground,
    abutments: options.skipAbutments || fault ? [] : abutmentsOf(pieces, lattice),
    ...(options.skipAbutments || fault ? NOTHING_MEETS : meetingPictures(pieces, lattice)),
    fault,
  });
}

function compileMeasured(recipe: Extract<Recipe, { kind: 'measured' }>): UnitScene {
  const built = buildMeasured(recipe.measured);
  const ground = groundOfRecipe(recipe.ground, built.pitch, built.pitch);
  const fault = tooMuch(built, true);
  const pieces = fault ? [] : built.pieces;
  return finish({
    ...built,
    pieces: ground?.art ? [ground.art, ...pieces] : pieces,
    endless: fault ? [] : built.endless,
    ground,
    abutments: [],
    ...NOTHING_MEETS,
    fault,
  });
}

const NOTHING_MEETS = { meeting: [], plane: null };

function finish(parts: Omit<UnitScene, 'artBox' | 'sampled' | 'layered' | 'empty'>): UnitScene {
  const { pieces, endless } = parts;
  return {
    ...parts,
    artBox: unionBoxes(pieces.map((piece) => piece.box)),
    layered: pieces.some(
      ({ opacity, effects, elements, window }) =>
        opacity < 1 ||
        effects !== null ||
        window !== null ||
        elements.some(({ clip, opacity: own }) => clip !== null || own < 1),
    ),
    empty: pieces.length === 0 && endless.length === 0,
    sampled: pieces.some((piece) => piece.effects || piece.elements.some((element) => element.picture)),
  };
}

/** The same pattern for a use with another ground: without the drawing that belongs to its own. */
export function withoutGround(scene: UnitScene): UnitScene {
  const art = scene.ground?.art;
  if (!art) return { ...scene, ground: null };
  const pieces = scene.pieces.filter((piece) => piece !== art);
  return finish({ ...scene, ...meetingPictures(pieces, scene.lattice), ground: null, pieces });
}

/** The lattice of a plane that lies otherwise. */
function laidLattice(lattice: Lattice, lie: Affine | null): Lattice {
  if (!lie) return lattice;
  const to = (point: Point): Point => applyVector(lie, point);
  return { ...lattice, a: to(lattice.a), b: to(lattice.b), copies: lattice.copies.map(to) };
}

const laidCell = (cell: Cell, lie: Affine | null): Cell =>
  lie ? { ...cell, matrix: multiply(lie, cell.matrix) } : cell;

function laidGround(ground: GroundScene | null, lie: Affine | null): GroundScene | null {
  if (!ground || !lie) return ground;
  const { gradient, art } = ground;
  return {
    ...ground,
    gradient: gradient && { ...gradient, to: applyVector(lie, gradient.to) },
    art: art && pieceOf({ ...art, matrix: multiply(lie, art.matrix) }),
  };
}

/** Segments of all placings in all images of the repeat, counted before any of them is laid. */
function placedSegments(
  { unit, gap, repeat, motifs, placings }: ComposedRecipe,
  { cache }: { cache: MotifCache },
): number {
  const weights = new Map(
    motifs.map((motif) => [
      motif.id,
      compiledMotif(motif, cache).elements.reduce((sum, element) => sum + element.path.length, 0),
    ]),
  );
  const images = imagesOf(unit, gap, repeat).length;
  return placings.reduce((sum, { motif }) => sum + (weights.get(motif) ?? 0), 0) * images;
}

function piecesOf(
  recipe: ComposedRecipe,
  lie: Affine | null,
  options: CompileOptions & { cache: MotifCache },
): Piece[] {
  const { unit, gap, repeat } = recipe;
  const motifs = new Map(recipe.motifs.map((motif) => [motif.id, motif]));
  const upright = imagesOf(unit, gap, repeat);
  const images = lie ? upright.map((image) => multiply(lie, image)) : upright;
  const united = options.skipAbutments ? 'apart' : '';
  const cutting = cuttingOf(recipe, () =>
    placedMotifs(recipe).flatMap((one) => compiledMotif(one, options.cache).elements),
  );
  const cut = cutting && cutting.outlines;
  const laid = images.length === 1 && !lie ? united : JSON.stringify([unit, gap, repeat, lie, united, cut]);
  return recipe.placings.flatMap((placing): Piece[] => {
    const motif = motifs.get(placing.motif);
    if (!motif) return [];
    const held = options.pieces?.get(placing);
    if (held && held.motif === motif && held.laid === laid) return held.pieces;
    const compiled = compiledMotif(motif, options.cache);
    const { elements, box } = options.skipAbutments ? compiled : unitedMotif(compiled);
    const own = cutting && cutting.of(box, placingMatrix(placing));
    const pieces = placed(placing, motif, elements, images, own);
    options.pieces?.set(placing, { motif, laid, pieces });
    return pieces;
  });
}

/** The motifs that are placed at all. */
function placedMotifs({ motifs, placings }: ComposedRecipe): Motif[] {
  const placed = new Set(placings.map(({ motif }) => motif));
  return motifs.filter(({ id }) => placed.has(id));
}

/** A placing in all images of the repeat's symmetry. What has effects is cut with them, so that none falls over a mirror line. */
function placed(
  placing: Placing,
  motif: Motif,
  drawn: Element[],
  images: readonly Affine[],
  cut: Cut | null,
): Piece[] {
  if (drawn.length === 0) return [];
  const matrix = placingMatrix(placing);
  const { effects = null } = motif;
  const { id, opacity } = placing;
  const parts = { id, motif: motif.id, opacity, effects };
  const ink = effects && cut ? inkBox({ elements: drawn, matrix }) : null;
  const through = effects && ink && grow(ink, effectsReach(effects));
  const elements = cut && !through ? cutElements(drawn, matrix, cut) : drawn;
  return images.flatMap(
    (image) =>
      pieceOf({
        ...parts,
        elements,
        matrix: multiply(image, matrix),
        image,
        window: cut && through && windowOf(through, cut, image),
      }) ?? [],
  );
}

/** A piece at one lattice offset. */
export type LaidPiece = { piece: Piece; offset: Point };

/**
 * Every piece at every offset at which it meets the convex region, in the order of drawing: by lattice offset, within
 * it by stack. What crosses one edge of the unit comes back exactly one lattice vector away.
 */
export function piecesOver(scene: UnitScene, region: readonly Point[], margin = 0): LaidPiece[] {
  if (!scene.artBox) return [];
  const regionBox = boxOfPoints(region);
  if (!regionBox) return [];
  const wide = grow(regionBox, margin + 1e-6);
  return offsetsMeeting(scene.lattice, grow(scene.artBox, margin), region).flatMap((offset) =>
    scene.pieces
      .filter((piece) => boxesMeet(moveBox(piece.box, offset), wide))
      .map((piece) => ({ piece, offset })),
  );
}

function compiledMotif(motif: Motif, cache: MotifCache): CompiledMotif {
  const held = cache.get(motif);
  if (held) return held;
  const compiled = compileMotif(motif);
  cache.set(motif, compiled);
  return compiled;
}

function abutmentsOf(pieces: readonly Piece[], lattice: Lattice): Abutment[] {
  const boxes = pieces.map((piece) => piece.box);
  const touching = touchingPieces(boxes, lattice);
  const edges = pieces.flatMap((piece, index) =>
    touching.has(index) && piece.opacity === 1 && piece.effects === null
      ? piece.elements.flatMap((element) => elementEdges(element, piece.matrix, index))
      : [],
  );
  return findAbutments(edges, boxes, lattice, coveredBy(pieces, lattice));
}
