import { apply, chain, invert, translation, type Affine } from '../geom/affine';
import { boxOfPoints, boxesMeet, grow, type Box } from '../geom/box';
import type { Point } from '../geom/point';
import { modulo } from '../num/tolerance';
import {
  asymmetricUnit,
  cellSides,
  groupOperations,
  latticeKind,
  multiplicity,
  type PlaneGroup,
} from './groups';
import type { Size } from './size';

/**
 * How a region of a picture becomes a repeat of a plane group: it is laid on the group's asymmetric unit, of which the
 * part that counts may be a triangle or a rhomb in it, and the group's operations carry that over the whole cell.
 */
export type Fold = {
  /** The rectangle that repeats straight by itself, in px of the picture. */
  cell: Size;
  /** The corners of the part of the region that counts, in px from the region's upper left corner. */
  part: Point[];
  /** Every image of that part that meets the cell: the cell's px → px of the region. */
  images: Affine[];
};

/** What a region's height must be for its width in a group, as a factor; `null` where it is free. */
export function regionAspect(group: PlaneGroup): number | null {
  const kind = latticeKind(group);
  if (kind !== 'square' && kind !== 'hexagonal') return null;
  const { width, height } = boxOfPoints(asymmetricUnit(group, { width: 1, height: 1 }))!;
  return height / width;
}

/** A region's size as a group needs it: its width stays. */
export function regionFor<T extends Size>(region: T, group: PlaneGroup): T {
  const aspect = regionAspect(group);
  return aspect === null ? region : { ...region, height: region.width * aspect };
}

/** How a region of this size is folded into a repeat. */
export function foldOf(group: PlaneGroup, region: Size): Fold {
  const share = boxOfPoints(asymmetricUnit(group, { width: 1, height: 1 }))!;
  const unit = { width: region.width / share.width, height: region.height / share.height };
  const corners = asymmetricUnit(group, unit);
  const box = boxOfPoints(corners)!;
  const { across, down } = cellSides(group, unit, 0);
  const centred = latticeKind(group) === 'centred rectangular';
  // A hexagonal lattice repeats straight in a rectangle of two rows.
  const cell = { width: across.x, height: latticeKind(group) === 'hexagonal' ? 2 * down.y : down.y };
  const whole: Box = { x: 0, y: 0, ...cell };
  const home = translation(-box.x, -box.y);
  const images: Affine[] = [];
  const shifts = centred ? [0, 0.5] : [0];
  for (const operation of groupOperations(group, unit))
    for (let i = -4; i <= 4; i += 1)
      for (let j = -4; j <= 4; j += 1)
        for (const half of shifts) {
          const x = (i + half) * across.x + (j + half) * down.x;
          const y = (i + half) * across.y + (j + half) * down.y;
          const image = chain(translation(x, y), operation);
          const laid = boxOfPoints(corners.map((corner) => apply(image, corner)))!;
          if (boxesMeet(grow(laid, -1e-6 * cell.width), whole)) images.push(chain(home, invert(image)!));
        }
  return { cell, part: corners.map(({ x, y }) => ({ x: x - box.x, y: y - box.y })), images };
}

/** How many times a region is seen in one repeat. */
export const timesSeen = (group: PlaneGroup): number =>
  multiplicity(group) * (latticeKind(group) === 'hexagonal' ? 2 : 1);

/** An edge of the part that counts: one of its corners, and the inward normal of length 1. */
export type PartEdge = { x: number; y: number; nx: number; ny: number };

/** The edges of the part beyond which its mirror image lies: what is on one side of them is on the other too. */
export function mirrorEdges(fold: Fold): PartEdge[] {
  const folder = new Folder(fold);
  const { part, images } = fold;
  const step = 1e-3 * Math.max(fold.cell.width, fold.cell.height);
  return folder.edges.filter((edge, index) => {
    const [from, to] = [part[index]!, part[(index + 1) % part.length]!];
    const middle = { x: from.x * 0.6 + to.x * 0.4, y: from.y * 0.6 + to.y * 0.4 };
    const outside = { x: middle.x - step * edge.nx, y: middle.y - step * edge.ny };
    const inside = { x: middle.x + step * edge.nx, y: middle.y + step * edge.ny };
    return images.some((image) => {
      // The cell repeats straight: what lies beyond it is what lies at its other side.
      const beyond = apply(invert(image)!, outside);
      const there = { x: modulo(beyond.x, fold.cell.width), y: modulo(beyond.y, fold.cell.height) };
      return images.some((other) => {
        const found = apply(other, there);
        return other !== image && Math.hypot(found.x - inside.x, found.y - inside.y) < 1e-3 * step;
      });
    });
  });
}

/** Finds which image of the part a place of the cell lies in, and remembers it, since the next one mostly lies there too. */
export class Folder {
  /** The edges of the part, each by a corner and what points inward from it. */
  readonly edges: readonly PartEdge[];
  private last = 0;
  /** How far the place that was looked for last lies from the edges of its image, px of the region. */
  room = 0;

  constructor(private readonly fold: Fold) {
    const { part } = fold;
    const area = part.reduce((sum, { x, y }, index) => {
      const next = part[(index + 1) % part.length]!;
      return sum + x * next.y - next.x * y;
    }, 0);
    const sign = area < 0 ? -1 : 1;
    this.edges = part.map(({ x, y }, index) => {
      const next = part[(index + 1) % part.length]!;
      const size = Math.hypot(next.x - x, next.y - y) || 1;
      return { x, y, nx: (-(next.y - y) / size) * sign, ny: ((next.x - x) / size) * sign };
    });
  }

  /** The index of the image that (x, y) lies in; the nearest where rounding leaves none. */
  find(x: number, y: number): number {
    this.room = this.slack(this.last, x, y);
    if (this.room > 1e-7) return this.last;
    let best = 0;
    let most = -Infinity;
    for (let index = 0; index < this.fold.images.length; index += 1) {
      const slack = this.slack(index, x, y);
      if (slack <= most) continue;
      most = slack;
      best = index;
    }
    this.last = best;
    this.room = most;
    return best;
  }

  private slack(index: number, x: number, y: number): number {
    const { a, b, c, d, e, f } = this.fold.images[index]!;
    const u = a * x + c * y + e;
    const v = b * x + d * y + f;
    let least = Infinity;
    for (const edge of this.edges) {
      const inside = (u - edge.x) * edge.nx + (v - edge.y) * edge.ny;
      if (inside < least) least = inside;
    }
    return least;
  }
}
