import type { Affine } from './affine';
import type { Box } from './box';
import { cubicAt, cubicTurns, splitCubic, type Cubic, type FillRule, type Path, type Segment } from './path';
import { dot, type Point } from './point';

/** The points on one side of a line: those p with p · `normal` ≤ `most`. The normal is a unit vector, `most` in px. */
export type HalfPlane = { normal: Point; most: number };

/** How far a point lies beyond the line, px: negative inside. */
export const beyond = ({ normal, most }: HalfPlane, point: Point): number => dot(normal, point) - most;

/** The half-plane of all points that `matrix` takes into this one, moved out by `out` px of where it lies now. */
export function halfPlaneBefore({ normal, most }: HalfPlane, matrix: Affine, out = 0): HalfPlane {
  const { a, b, c, d, e, f } = matrix;
  const across = { x: a * normal.x + b * normal.y, y: c * normal.x + d * normal.y };
  const size = Math.hypot(across.x, across.y) || 1;
  return {
    normal: { x: across.x / size, y: across.y / size },
    most: (most + out - e * normal.x - f * normal.y) / size,
  };
}

/** How a box lies to a half-plane: wholly in it, wholly beyond its line, or across. What only touches is in. */
export function sideOfBox(half: HalfPlane, { x, y, width, height }: Box): 'in' | 'beyond' | 'across' {
  const reach = (Math.abs(half.normal.x) * width + Math.abs(half.normal.y) * height) / 2;
  const middle = beyond(half, { x: x + width / 2, y: y + height / 2 });
  if (middle + reach <= ON_LINE) return 'in';
  return middle - reach >= -ON_LINE ? 'beyond' : 'across';
}

/** Points nearer to the line than this (px) lie on it. */
const ON_LINE = 1e-6;

type Stretch = { from: Point; segment: Exclude<Segment, { op: 'M' | 'Z' }> };
/** A row of stretches within the half-plane, from where it comes in to where it goes out. */
type Chain = { start: Point; stretches: Stretch[]; end: Point };

/**
 * The part of a path's area within a half-plane, by the fill rule that it is filled by. Curves stay curves; open subpaths are closed, as a
 * fill closes them. Along the line runs just what bounds the area: between the places where the outline goes out and comes
 * in, paired so that no stretch of the line is run there and back.
 */
export function cutPath(path: Path, half: HalfPlane, rule: FillRule = 'nonzero'): Path {
  const whole: Path = [];
  const chains: Chain[] = [];
  for (const ring of ringsOf(path)) {
    const cut = chainsOf(ring, half);
    if (cut === 'in') whole.push(...ringPath(ring));
    else chains.push(...cut);
  }
  return [...whole, ...linked(chains, half, rule)];
}

function ringPath(ring: readonly Stretch[]): Path {
  const first = ring[0];
  return first ? [{ op: 'M', to: first.from }, ...ring.map(({ segment }) => segment), { op: 'Z' }] : [];
}

/** The subpaths, each closed. */
function ringsOf(path: Path): Stretch[][] {
  const rings: Stretch[][] = [];
  let ring: Stretch[] = [];
  let start: Point = { x: 0, y: 0 };
  let at = start;
  const close = (): void => {
    if (ring.length > 0 && (at.x !== start.x || at.y !== start.y))
      ring.push({ from: at, segment: { op: 'L', to: start } });
    if (ring.length > 0) rings.push(ring);
    ring = [];
    at = start;
  };
  for (const segment of path) {
    if (segment.op === 'Z') close();
    else if (segment.op === 'M') {
      close();
      at = start = segment.to;
    } else {
      ring.push({ from: at, segment });
      at = segment.to;
    }
  }
  close();
  return rings;
}

/** What of a ring lies within; `in` where it does not go beyond anywhere. */
function chainsOf(ring: readonly Stretch[], half: HalfPlane): Chain[] | 'in' {
  const parts = ring.flatMap((stretch) => splitAtLine(stretch, half));
  const inside = parts.map((part) => beyond(half, middleOf(part)) <= ON_LINE);
  if (inside.every(Boolean)) return 'in';
  const begin = inside.findIndex((one, index) => one && !inside[(index || parts.length) - 1]);
  if (begin < 0) return [];
  const chains: Chain[] = [];
  let open: Stretch[] = [];
  for (let step = 0; step < parts.length; step += 1) {
    const index = (begin + step) % parts.length;
    if (inside[index]) open.push(parts[index]!);
    if (open.length > 0 && (!inside[index] || step === parts.length - 1)) {
      // What only touches the line from beyond bounds nothing.
      if (open.some((part) => beyond(half, middleOf(part)) < -ON_LINE))
        chains.push({ start: open[0]!.from, stretches: open, end: open[open.length - 1]!.segment.to });
      open = [];
    }
  }
  return chains;
}

const middleOf = ({ from, segment }: Stretch): Point =>
  segment.op === 'C'
    ? cubicAt(from, segment, 0.5)
    : { x: (from.x + segment.to.x) / 2, y: (from.y + segment.to.y) / 2 };

/** A stretch in parts that each lie on one side. */
function splitAtLine(stretch: Stretch, half: HalfPlane): Stretch[] {
  const { from, segment } = stretch;
  const ends = [beyond(half, from), beyond(half, segment.to)] as const;
  if (segment.op === 'L') {
    if (Math.min(...ends) >= -ON_LINE || Math.max(...ends) <= ON_LINE) return [stretch];
    const share = ends[0] / (ends[0] - ends[1]);
    const at = {
      x: from.x + (segment.to.x - from.x) * share,
      y: from.y + (segment.to.y - from.y) * share,
    };
    return [
      { from, segment: { op: 'L', to: at } },
      { from: at, segment },
    ];
  }
  const values = [ends[0], beyond(half, segment.c1), beyond(half, segment.c2), ends[1]] as const;
  if (Math.max(...values) <= ON_LINE || Math.min(...values) >= -ON_LINE) return [stretch];
  return cubicParts(from, segment, crossings(values));
}

/** Where a cubic in Bernstein form is nought within (0, 1), in order: between its turns by halving, to the last bit. */
function crossings([p0, p1, p2, p3]: readonly [number, number, number, number]): number[] {
  const at = (t: number): number => {
    const u = 1 - t;
    return u * u * u * p0 + 3 * u * u * t * p1 + 3 * u * t * t * p2 + t * t * t * p3;
  };
  const turns = cubicTurns(p0, p1, p2, p3).filter((t) => t > 0 && t < 1);
  const bounds = [0, ...turns.sort((a, b) => a - b), 1];
  return bounds.slice(1).flatMap((end, index) => {
    let [low, high] = [bounds[index]!, end];
    const sign = Math.sign(at(low));
    if (sign === 0 || sign === Math.sign(at(high))) return [];
    for (let step = 0; step < 60; step += 1) {
      const middle = (low + high) / 2;
      if (Math.sign(at(middle)) === sign) low = middle;
      else high = middle;
    }
    return high > 1e-9 && high < 1 - 1e-9 ? [high] : [];
  });
}

/** A curve in parts at the given parameters, in order. */
function cubicParts(from: Point, curve: Cubic, at: readonly number[]): Stretch[] {
  const parts: Stretch[] = [];
  let [start, rest, done] = [from, curve, 0];
  for (const t of at) {
    const [first, second] = splitCubic(start, rest, (t - done) / (1 - done));
    parts.push({ from: start, segment: first });
    [start, rest, done] = [first.to, second, t];
  }
  return [...parts, { from: start, segment: rest }];
}

/** An end of a chain: where the outline goes out of the half-plane, or comes in. */
type Mark = { at: number; chain: number; comes: boolean };

/**
 * Chains closed along the line, by pairs of the places where the outline leaves it and comes back. By windings those next to
 * each other, one out and one in, belong together, like brackets; by odd and even simply each two in a row, whichever way
 * they run.
 */
function linked(chains: readonly Chain[], { normal }: HalfPlane, rule: FillRule): Path {
  const alongLine = ({ x, y }: Point): number => y * normal.x - x * normal.y;
  const marks = chains
    .flatMap(({ start, end }, chain): Mark[] => [
      { at: alongLine(start), chain, comes: true },
      { at: alongLine(end), chain, comes: false },
    ])
    .sort((one, other) => one.at - other.at);
  const partner = rule === 'evenodd' ? inRow(marks) : bracketed(marks);
  const partnerOf = (chain: number, comes: boolean): Mark | undefined =>
    partner.get(nameOf({ chain, comes }));
  const path: Path = [];
  const left = new Set(chains.keys());
  for (const first of chains.keys()) {
    if (!left.has(first)) continue;
    path.push({ op: 'M', to: chains[first]!.start });
    let [at, forward] = [first, true];
    while (left.delete(at)) {
      const { start, stretches } = forward ? chains[at]! : backwards(chains[at]!);
      if (at !== first) path.push({ op: 'L', to: start });
      path.push(...stretches.map(({ segment }) => segment));
      const next = partnerOf(at, !forward);
      if (next) [at, forward] = [next.chain, next.comes];
    }
    path.push({ op: 'Z' });
  }
  return path;
}

const nameOf = ({ chain, comes }: Pick<Mark, 'chain' | 'comes'>): number => 2 * chain + (comes ? 1 : 0);

function inRow(marks: readonly Mark[]): Map<number, Mark> {
  const other = (index: number): Mark | undefined => marks[index % 2 === 0 ? index + 1 : index - 1];
  return new Map(marks.flatMap((mark, index) => (other(index) ? [[nameOf(mark), other(index)!]] : [])));
}

function bracketed(marks: readonly Mark[]): Map<number, Mark> {
  const pairs = new Map<number, Mark>();
  const waiting: Mark[] = [];
  for (const mark of marks) {
    const held = waiting[waiting.length - 1];
    if (!held || held.comes === mark.comes) {
      waiting.push(mark);
      continue;
    }
    waiting.pop();
    pairs.set(nameOf(mark), held);
    pairs.set(nameOf(held), mark);
  }
  return pairs;
}

const backwards = ({ start, stretches, end }: Chain): Chain => ({
  start: end,
  end: start,
  stretches: stretches.toReversed().map(({ from, segment }) => ({
    from: segment.to,
    segment:
      segment.op === 'C' ? { op: 'C', c1: segment.c2, c2: segment.c1, to: from } : { op: 'L', to: from },
  })),
});
