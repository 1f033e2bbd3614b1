import { type Box, boxOfPoints, unionBoxes } from '../geom/box';
import type { Path } from '../geom/path';
import type { Point } from '../geom/point';
import { polygonArea } from '../geom/polygon';
import { cellCorners, unitArea, type Cell } from '../lattice/cell';
import { regionOfBox } from '../lattice/meet';
import type { Lattice } from '../lattice/repeat';
import { LIMITS } from '../recipe/limits';
import type { Problem } from '../recipe/problem';
import type { Element } from './motif';
import { boxOfEndless, type Endless } from './endless';
import type { Piece } from './piece';

/** What drawing takes, counted from the numbers before anything is drawn. */
export type Cost = {
  /** Pieces drawn, each as often as it shows. */
  copies: number;
  /** Segments of all their paths, dashes counted as segments. */
  segments: number;
  /** Pixels that filters go over, at 1 px to a px. */
  filtered: number;
};

/** What is counted: the drawables of one unit on their lattice. */
export type Drawables = {
  pieces: readonly Piece[];
  endless: readonly Endless[];
  lattice: Lattice;
  cell: Cell;
};

/**
 * Tells of any box at how many offsets of a lattice it meets a convex region, within the rounding of whole numbers: the
 * area of all places where it does (the Minkowski sum of the two, by their mixed area) over the lattice's area of one unit.
 */
export function copiesOver(lattice: Lattice, region: readonly Point[]): (box: Box) => number {
  const around = boxOfPoints(region);
  if (!around) return () => 0;
  const [area, unit] = [polygonArea(region), unitArea(lattice)];
  return ({ width, height }) => {
    const copies = (area + width * around.height + height * around.width + width * height) / unit;
    return Number.isFinite(copies) ? copies : Infinity;
  };
}

/** What drawing a pattern over a convex region of its plane takes. */
export function costOver(scene: Drawables, region: readonly Point[]): Cost {
  const copiesOf = copiesOver(scene.lattice, region);
  const weightOf = weights();
  const cost: Cost = { copies: 0, segments: 0, filtered: 0 };
  for (const { box, elements, effects } of scene.pieces) {
    const copies = Math.max(1, copiesOf(box));
    cost.copies += copies;
    cost.segments += copies * weightOf(elements);
    if (effects) cost.filtered += copies * box.width * box.height;
  }
  for (const line of scene.endless) {
    const box = boxOfEndless(line);
    const copies = box ? copiesOf(box) : 0;
    cost.copies += copies;
    cost.segments += copies * line.element.path.length;
  }
  return cost;
}

/** Counts the segments of a piece; placings of one motif share their elements, which are counted once. */
function weights(): (elements: readonly Element[]) => number {
  const known = new Map<readonly Element[], number>();
  return (elements) => {
    const weight = known.get(elements) ?? elements.reduce((sum, one) => sum + elementWeight(one), 0);
    known.set(elements, weight);
    return weight;
  };
}

/** What drawing one cell of a pattern takes: its <pattern>, its tile. */
export const cellCost = (scene: Drawables): Cost => costOver(scene, cellCorners(scene.cell));

/** How many copies lie about the unit's own art: what is looked at to find edges that meet. */
function neighbours({ lattice, pieces }: Drawables): number {
  const art = unionBoxes(pieces.map((piece) => piece.box));
  if (!art) return 0;
  const copiesOf = copiesOver(lattice, regionOfBox(art));
  return pieces.reduce((sum, { box }) => sum + copiesOf(box), 0);
}

/** Segments of an element with its clip, and the dashes of its stroke. */
export function elementWeight({ path, clip, stroke }: Element): number {
  const dashes = stroke?.dashes.reduce((sum, dash) => sum + dash, 0) ?? 0;
  const cuts = dashes > 0 ? (pathReach(path) / dashes) * (stroke?.dashes.length ?? 1) : 0;
  return path.length + (clip?.path.length ?? 0) + cuts;
}

/** The length of a path's control polygon, px: no less than the path is long. */
function pathReach(path: Path): number {
  let sum = 0;
  let at: Point | null = null;
  const go = (to: Point): void => {
    if (at) sum += Math.hypot(to.x - at.x, to.y - at.y);
    at = to;
  };
  for (const segment of path) {
    if (segment.op === 'Z') continue;
    if (segment.op === 'M') {
      at = segment.to;
      continue;
    }
    if (segment.op === 'C') {
      go(segment.c1);
      go(segment.c2);
    }
    go(segment.to);
  }
  return sum;
}

/** Why the drawables of a unit are too much to draw, or `null`. */
export function tooMuch(scene: Drawables, measured: boolean): Problem | null {
  const cost = cellCost(scene);
  const problem = (code: string, message: string): Problem => ({
    code,
    path: measured ? 'measured.numbers' : 'unit',
    message,
  });
  const copies = Math.max(cost.copies, neighbours(scene) / 4);
  if (copies > LIMITS.cellCopies)
    return problem(
      'too_many_copies',
      measured
        ? `Its lines or pieces are so large beside their distance that ${about(copies)} lie over each other in one repeat; at most ${about(LIMITS.cellCopies)} are drawn. Make them smaller, or the distance larger.`
        : `Its pieces are so large beside the unit, or so many, that ${about(copies)} lie in one repeat; at most ${about(LIMITS.cellCopies)} are drawn. Make the pieces smaller or fewer, or the unit larger.`,
    );
  const detail = tooMuchDetail(cost.segments);
  if (detail) return detail;
  if (cost.filtered > LIMITS.cellFiltered)
    return problem(
      'too_much_shadow',
      'Its shadows and relief reach over too large an area; make the pieces smaller, or give fewer of them shadows.',
    );
  return null;
}

/** Why so many path segments in one repeat are too much to draw, or `null`. */
export function tooMuchDetail(segments: number): Problem | null {
  if (segments <= LIMITS.cellSegments) return null;
  return {
    code: 'too_much_detail',
    path: 'placings',
    message: `One repeat has ${about(segments)} path segments and dashes; at most ${about(LIMITS.cellSegments)} are drawn. Simplify the motifs, make dashes longer, or place fewer pieces.`,
  };
}

/** A count in words that are short: 1,234,567 is "1.2 million". */
const about = (count: number): string => {
  if (!Number.isFinite(count) || count >= 1e12) return 'countless';
  if (count >= 1e9) return `${Number((count / 1e9).toPrecision(2))} billion`;
  if (count >= 1e6) return `${Number((count / 1e6).toPrecision(2))} million`;
  return String(Math.round(count));
};
