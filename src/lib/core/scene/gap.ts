import { IDENTITY, apply } from '../geom/affine';
import { type Box, boxesMeet, boxOfPoints, grow, moveBox } from '../geom/box';
import { boxCorners } from '../geom/polygon';
import type { Point } from '../geom/point';
import { cellCorners, parallelogram } from '../lattice/cell';
import { endlessOver } from './endless';
import { distanceToSegment, inkOf, insideInk, moveInk, segmentsOf, type Ink, type Segment } from './ink';
import { piecesOver, type UnitScene } from './unit';

/** The largest circle that touches no ink anywhere on the plane. */
export type WidestGap = { at: Point; radius: number };

/** Search stops when no better circle is possible by more than this share of the unit's longer side. */
const PRECISION = 0.0005;

/**
 * The widest gap of a pattern: the centre and radius (px) of the largest empty circle on the repeating plane. The
 * plane is searched by halving squares and leaving those that cannot hold a larger circle. `null` for a pattern
 * without ink, or one that leaves nothing open.
 */
export function widestGap(scene: UnitScene): WidestGap | null {
  const box = periodBox(scene);
  if (!box) return null;
  const reach = Math.max(farthestFromInk(scene, box), 1e-6);
  const ink = new InkField(scene, box, reach);
  if (ink.empty) return null;
  const precision = PRECISION * Math.max(box.width, box.height);
  let best: WidestGap = { at: { x: box.x, y: box.y }, radius: ink.distance({ x: box.x, y: box.y }) };
  let open: Square[] = firstSquares(box).map((square) => judged(square, ink));
  while (open.length > 0) {
    for (const { x, y, distance } of open)
      if (distance > best.radius) best = { at: { x, y }, radius: distance };
    const limit = best.radius + precision;
    open = open
      .filter((square) => square.most > limit)
      .flatMap((square) => quarters(square))
      .map((square) => judged(square, ink));
  }
  return best.radius > 0 ? best : null;
}

/** A box that holds a place of every kind: where one lattice vector is upright or level, a rectangle of just one unit. */
function periodBox({ lattice: { a, b } }: UnitScene): Box | null {
  if (Math.abs(a.y) < 1e-9 || Math.abs(b.x) < 1e-9)
    return { x: 0, y: 0, width: Math.abs(a.x), height: Math.abs(b.y) };
  const corners = cellCorners(parallelogram({ a, b }));
  return boxOfPoints(corners);
}

/**
 * A bound for the widest gap: no point of the plane is farther than this from some inked point. One inked point of
 * every piece stands for all of it, on a coarse grid with half its diagonal added.
 */
function farthestFromInk(scene: UnitScene, box: Box): number {
  const whole = Math.hypot(box.width, box.height);
  const steps = 16;
  const slack = Math.hypot(box.width / steps, box.height / steps) / 2;
  // No point is farther from its nearest lattice point than half the box's diagonal.
  const around = boxCorners(IDENTITY, grow(box, whole / 2));
  const points = piecesOver(scene, around).flatMap(({ piece, offset }) => {
    const start = piece.id === 'ground' ? undefined : piece.elements[0]?.path[0];
    if (start?.op !== 'M') return [];
    const at = apply(piece.matrix, start.to);
    return [{ x: at.x + offset.x, y: at.y + offset.y }];
  });
  if (points.length === 0) return whole;
  let farthest = 0;
  for (let column = 0; column < steps; column += 1) {
    for (let row = 0; row < steps; row += 1) {
      const x = box.x + ((column + 0.5) / steps) * box.width;
      const y = box.y + ((row + 0.5) / steps) * box.height;
      let least = Infinity;
      for (const point of points) {
        const away = (point.x - x) ** 2 + (point.y - y) ** 2;
        if (away < least) least = away;
      }
      farthest = Math.max(farthest, least);
    }
  }
  return Math.min(whole, Math.sqrt(farthest) + slack);
}

type Square = { x: number; y: number; half: number; distance: number; most: number };

function firstSquares(box: Box): Square[] {
  const half = Math.min(box.width, box.height) / 16;
  const squares: Square[] = [];
  for (let x = box.x + half; x < box.x + box.width + half; x += 2 * half)
    for (let y = box.y + half; y < box.y + box.height + half; y += 2 * half)
      squares.push({ x, y, half, distance: 0, most: 0 });
  return squares;
}

function quarters({ x, y, half }: Square): Square[] {
  const h = half / 2;
  return [-h, h].flatMap((dx) =>
    [-h, h].map((dy) => ({ x: x + dx, y: y + dy, half: h, distance: 0, most: 0 })),
  );
}

function judged(square: Square, ink: InkField): Square {
  const distance = ink.distance(square);
  return { ...square, distance, most: distance + square.half * Math.SQRT2 };
}

/** Straight pieces for a curve no longer than half of a box's outline, so that they stay within `fine` px of it. */
function stepsFor({ width, height }: Box, fine: number): number {
  return Math.min(24, Math.max(3, Math.ceil(Math.sqrt((width + height) / (8 * fine)))));
}

/** All ink that lies in or near a box, sorted into squares so that the nearest is found fast. */
class InkField {
  readonly empty: boolean;
  private readonly size: number;
  private readonly columns: number;
  private readonly rows: number;
  private readonly left: number;
  private readonly top: number;
  private readonly segments: Segment[] = [];
  private readonly bySquare: (number[] | undefined)[];
  private readonly fillsBySquare: (number[] | undefined)[];
  private readonly fills: { ink: Ink; box: Box }[] = [];
  private readonly widest: number;

  constructor(scene: UnitScene, box: Box, reach: number) {
    const region = [
      { x: box.x - reach, y: box.y - reach },
      { x: box.x + box.width + reach, y: box.y - reach },
      { x: box.x + box.width + reach, y: box.y + box.height + reach },
      { x: box.x - reach, y: box.y + box.height + reach },
    ];
    this.collect(scene, region, box);
    this.empty = this.segments.length === 0;
    this.widest = this.segments.reduce((most, { half }) => Math.max(most, half), 0);
    this.left = box.x - reach;
    this.top = box.y - reach;
    const [width, height] = [box.width + 2 * reach, box.height + 2 * reach];
    this.size = Math.max(Math.sqrt((width * height) / Math.max(16, this.segments.length)) * 1.5, 1e-9);
    this.columns = Math.ceil(width / this.size) + 1;
    this.rows = Math.ceil(height / this.size) + 1;
    this.bySquare = new Array<number[] | undefined>(this.columns * this.rows);
    this.segments.forEach(({ from, to }, index) => this.sort(this.bySquare, from, to, index));
    this.fillsBySquare = new Array<number[] | undefined>(this.columns * this.rows);
    this.fills.forEach(({ box: { x, y, width: across, height: down } }, index) =>
      this.sort(this.fillsBySquare, { x, y }, { x: x + across, y: y + down }, index),
    );
  }

  private collect(scene: UnitScene, region: Point[], box: Box): void {
    const fine = (PRECISION / 4) * Math.max(box.width, box.height);
    const inks = new Map(scene.pieces.map((piece) => [piece, inkOf(piece, stepsFor(piece.box, fine))]));
    piecesOver(scene, region).forEach(({ piece, offset }, index) => {
      if (piece.id === 'ground') return;
      for (const ink of inks.get(piece) ?? []) {
        const moved = moveInk(ink, offset);
        for (const segment of segmentsOf([moved], index)) this.segments.push(segment);
        const inkBox = moveBox(piece.box, offset);
        if (moved.filled && boxesMeet(inkBox, box)) this.fills.push({ ink: moved, box: inkBox });
      }
    });
    for (const { element, path } of endlessOver(scene.endless, scene.lattice, region)) {
      const ink = inkOf({ elements: [{ ...element, path }], matrix: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 } });
      this.segments.push(...segmentsOf(ink, -1));
    }
  }

  private sort(lists: (number[] | undefined)[], from: Point, to: Point, index: number): void {
    const first = this.square(Math.min(from.x, to.x), Math.min(from.y, to.y));
    const last = this.square(Math.max(from.x, to.x), Math.max(from.y, to.y));
    for (let row = first.row; row <= last.row; row += 1)
      for (let column = first.column; column <= last.column; column += 1)
        (lists[row * this.columns + column] ??= []).push(index);
  }

  private square(x: number, y: number): { column: number; row: number } {
    const held = (value: number, most: number): number =>
      Math.min(most, Math.max(0, Math.floor(value / this.size)));
    return { column: held(x - this.left, this.columns - 1), row: held(y - this.top, this.rows - 1) };
  }

  /** How far a point is from all ink; negative inside a fill or a stroke. */
  distance(p: Point): number {
    const { column, row } = this.square(p.x, p.y);
    const near = this.fillsBySquare[row * this.columns + column] ?? [];
    const inside = near.some((index) => insideInk(this.fills[index]!.ink, p));
    const outline = this.toOutline(p);
    return inside ? -Math.abs(outline) : outline;
  }

  private toOutline(p: Point): number {
    const { column, row } = this.square(p.x, p.y);
    let least = Infinity;
    const look = (x: number, y: number): void => {
      if (x < 0 || y < 0 || x >= this.columns || y >= this.rows) return;
      for (const index of this.bySquare[y * this.columns + x] ?? []) {
        const { from, to, half } = this.segments[index]!;
        least = Math.min(least, distanceToSegment(p, from, to) - half);
      }
    };
    const most = Math.max(this.columns, this.rows);
    for (let ring = 0; ring <= most; ring += 1) {
      if ((ring - 1) * this.size - this.widest > least) break;
      for (let x = column - ring; x <= column + ring; x += 1) {
        look(x, row - ring);
        if (ring > 0) look(x, row + ring);
      }
      for (let y = row - ring + 1; y < row + ring; y += 1) {
        look(column - ring, y);
        look(column + ring, y);
      }
    }
    return least;
  }
}
