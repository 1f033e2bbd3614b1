import type { Periods } from '../lattice/span';
import { toPx } from '../num/length';
import type { PatternFill } from '../recipe/fill';
import { wholeRepeats } from '../recipe/fit';
import { mapFills, patternFills, type Shape } from '../recipe/layout';
import type { Round } from './object-entry';

/** How a pattern closes all round an object: so many repeats, at these scales and this angle. */
export type WholeRound = {
  count: number | null;
  scaleX: number;
  scaleY: number;
  rotation: number;
  /** By how much it grows, as a share; 0 where it closes already. */
  cost: number;
};

/** Nothing that closes is off by more than this at the joint, px. */
const CLOSES = 0.01;

/**
 * The nearest way in which a pattern goes round in whole repeats: straight on where its lattice has a period along the
 * way round, else turned a little. `null` where it can close in no way, as on a cone whose rows meet at an angle.
 */
export function wholeRound(round: Round, fill: PatternFill, periods: Periods): WholeRound | null {
  if (round.angle > 1e-6) return null;
  const girth = toPx(round.girth, 'mm');
  const strip = { width: girth, height: girth, rotation: 0 };
  const straight = wholeRepeats(strip, fill, periods, 'across');
  const fit = straight ?? wholeRepeats(strip, fill, periods, 'turned across');
  if (!fit) return null;
  const { scaleX, scaleY, rotation } = fit;
  const factor = scaleX / fill.scaleX;
  const off = Math.abs(girth * (1 - 1 / factor));
  const stays = off < CLOSES && rotation === fill.rotation;
  return { count: fit.counts[0] ?? null, scaleX, scaleY, rotation, cost: stays ? 0 : factor - 1 };
}

/** The fills that go round an object: of its most used pattern, on the parts that are closed. */
export function fillsRound(shapes: readonly Shape[], round: Round): { shape: Shape; fill: PatternFill }[] {
  const all = shapes
    .filter(({ name }) => round.panels.includes(name))
    .flatMap((shape) => patternFills(shape).map((fill) => ({ shape, fill })));
  const first = all[0];
  return first ? all.filter(({ fill }) => fill.pattern === first.fill.pattern) : [];
}

/** Whether the parts are filled on from one to the next: one part, or a pattern that lies on the page. */
export const runsOn = (fills: readonly { fill: PatternFill }[]): boolean => {
  const [first] = fills;
  return (
    fills.length === 1 || fills.every(({ fill }) => fill.anchored === 'page' && sameLie(fill, first!.fill))
  );
};

const sameLie = (one: PatternFill, other: PatternFill): boolean =>
  one.scaleX === other.scaleX &&
  one.scaleY === other.scaleY &&
  one.rotation === other.rotation &&
  one.offset.x === other.offset.x &&
  one.offset.y === other.offset.y &&
  one.anchor.x === other.anchor.x &&
  one.anchor.y === other.anchor.y;

/** A shape whose named fills close all round, lying on the page as the first of them does. */
export const closedRound = (
  shape: Shape,
  fills: ReadonlySet<string>,
  lie: PatternFill,
  { scaleX, scaleY, rotation }: WholeRound,
  several: boolean,
): Shape =>
  mapFills(shape, (fill) => {
    if (fill.kind !== 'pattern' || !fills.has(fill.id)) return fill;
    const { offset, anchor } = lie;
    return several
      ? { ...fill, scaleX, scaleY, rotation, offset, anchor, anchored: 'page' }
      : { ...fill, scaleX, scaleY, rotation };
  });
