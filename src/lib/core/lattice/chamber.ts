import type { HalfPlane } from '../geom/half-plane';
import { dot, times, type Point } from '../geom/point';
import { modulo } from '../num/tolerance';
import { asymmetricUnit, symmetryElements } from './groups';
import { latticeOf, type Gap, type Repeat, type Size } from './repeat';

/** Parallel mirror lines: one at each of `first` and everywhere `period` px further along `normal`. */
type Mirrors = { normal: Point; first: number[]; period: number };

/** Lines nearer than this (px) are one. */
const NEAR = 1e-6;

/** True where a repeat has mirror lines. */
export const hasMirrors = (repeat: Repeat): boolean =>
  mirrorsOf({ width: 100, height: 100 }, { across: 0, down: 0 }, repeat).length > 0;

/** All mirror lines of a repeat, direction by direction. */
function mirrorsOf(unit: Size, gap: Gap, repeat: Repeat): Mirrors[] {
  if (repeat.kind === 'mirror')
    return [
      { normal: { x: 1, y: 0 }, first: [-gap.across / 2], period: unit.width + gap.across },
      { normal: { x: 0, y: 1 }, first: [-gap.down / 2], period: unit.height + gap.down },
    ];
  if (repeat.kind !== 'group') return [];
  const { a, b } = latticeOf(unit, gap, repeat);
  const families = new Map<string, Mirrors>();
  for (const element of symmetryElements(repeat.group, unit, repeat.slant)) {
    if (element.kind !== 'mirror') continue;
    const { x, y } = element.direction;
    const sign = x < -NEAR || (Math.abs(x) <= NEAR && y < 0) ? -1 : 1;
    const normal = { x: -y * sign, y: x * sign };
    const name = `${normal.x.toFixed(6)},${normal.y.toFixed(6)}`;
    const held = families.get(name) ?? {
      normal,
      first: [],
      period: commonStep(dot(a, normal), dot(b, normal)),
    };
    families.set(name, held);
    held.first.push(dot(element.at, normal));
  }
  return [...families.values()];
}

/** The largest step of which both lengths are whole multiples (Euclid). */
function commonStep(one: number, other: number): number {
  let [large, small] = [Math.abs(one), Math.abs(other)];
  const least = NEAR * Math.max(1, large, small);
  while (small > least) {
    const rest = large % small;
    [large, small] = [small, small - rest < least ? 0 : rest];
  }
  return large;
}

/**
 * Finds the part of the plane about a point that no mirror line of a repeat runs through, as the half-planes that bound it
 * (px); `null` where the repeat has no mirrors. On a line the side of the asymmetric unit counts; for a mirrored unit that
 * of the unit itself.
 */
export function chambersOf(unit: Size, gap: Gap, repeat: Repeat): ((point: Point) => HalfPlane[]) | null {
  const mirrors = mirrorsOf(unit, gap, repeat).filter(({ period }) => period > 0);
  if (mirrors.length === 0) return null;
  const inner = innerPoint(unit, repeat);
  return (point) =>
    mirrors.flatMap(({ normal, first, period }): HalfPlane[] => {
      const at = dot(point, normal);
      const leant = at + Math.sign(dot(inner, normal) - at) * 2 * NEAR;
      // How far it is to the next line of each row, down and up.
      const down = first.map((line) => modulo(leant - line, period));
      return [
        { normal, most: leant + Math.min(...down.map((far) => period - far)) },
        { normal: times(normal, -1), most: Math.min(...down) - leant },
      ];
    });
}

function innerPoint(unit: Size, repeat: Repeat): Point {
  if (repeat.kind !== 'group') return { x: unit.width / 2, y: unit.height / 2 };
  const corners = asymmetricUnit(repeat.group, unit, repeat.slant);
  const sum = corners.reduce((to, { x, y }) => ({ x: to.x + x, y: to.y + y }), { x: 0, y: 0 });
  return { x: sum.x / corners.length, y: sum.y / corners.length };
}
