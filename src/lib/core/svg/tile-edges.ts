import { combineAreas } from '../geom/boolean';
import { boxesMeet, moveBox, type Box } from '../geom/box';
import { pathBox } from '../geom/path';
import { rectanglePath } from '../geom/shapes';
import type { Drawn } from './art-drawn';

/** The slot of a plain, opaque rectangle that is the first thing drawn and covers just the tile. */
export function groundOf(drawn: readonly Drawn[], unit: { width: number; height: number }): string | null {
  const [first] = drawn;
  if (!first || first.clip) return null;
  const { fill, stroke, opacity, picture } = first.element;
  const box = pathBox(first.path);
  if (typeof fill !== 'string' || stroke || opacity < 1 || picture || !box) return null;
  const slack = Math.max(unit.width, unit.height) * 1e-4;
  const covers =
    box.x <= slack &&
    box.y <= slack &&
    box.x + box.width >= unit.width - slack &&
    box.y + box.height >= unit.height - slack;
  return covers && first.path.length <= 6 && first.path.every(({ op }) => op !== 'C') ? fill : null;
}

/** Elements as a tile shows them: wrapped pieces whole, others cut at the tile's edges, what lies outside left out. */
export function withinTile(
  drawn: readonly Drawn[],
  { width, height }: { width: number; height: number },
): Drawn[] {
  const tile: Box = { x: 0, y: 0, width, height };
  const kept: Drawn[] = [];
  const spoken = new Set<Drawn>();
  for (const one of drawn) {
    if (spoken.has(one)) continue;
    if (!boxesMeet(one.box, tile) || isOutside(one.box, tile)) continue;
    if (isInside(one.box, tile)) {
      kept.push(one);
      continue;
    }
    const twins = twinsOf(one, drawn, tile);
    if (twins) {
      for (const twin of twins) spoken.add(twin);
      kept.push(one);
    } else kept.push(cutAt(one, tile));
  }
  return kept;
}

const SLACK = 1e-4;

const isInside = (box: Box, tile: Box): boolean =>
  box.x >= -SLACK &&
  box.y >= -SLACK &&
  box.x + box.width <= tile.width + SLACK &&
  box.y + box.height <= tile.height + SLACK;

const isOutside = (box: Box, tile: Box): boolean =>
  box.x >= tile.width - SLACK ||
  box.y >= tile.height - SLACK ||
  box.x + box.width <= SLACK ||
  box.y + box.height <= SLACK;

/**
 * The other parts of a piece that crosses edges: the same drawing one tile away, for every tile that the piece reaches
 * into. `null` where one of them is missing: then the tile cuts the piece off.
 */
function twinsOf(one: Drawn, drawn: readonly Drawn[], tile: Box): Drawn[] | null {
  const twins: Drawn[] = [];
  const key = drawingKey(one, { x: 0, y: 0 });
  const reach = (from: number, size: number, side: number): number[] => {
    const steps: number[] = [];
    for (let step = Math.ceil((-from - size) / side); step <= Math.floor((side - from) / side); step += 1)
      steps.push(step);
    return steps;
  };
  const [columns, rows] = [
    reach(one.box.x, one.box.width, tile.width),
    reach(one.box.y, one.box.height, tile.height),
  ];
  if (columns.length * rows.length > 25) return null;
  for (const i of columns)
    for (const j of rows) {
      if (i === 0 && j === 0) continue;
      const shift = { x: i * tile.width, y: j * tile.height };
      const there = moveBox(one.box, shift);
      if (isOutside(there, tile)) continue;
      const twin = drawn.find(
        (other) =>
          other !== one &&
          Math.abs(other.box.x - there.x) < 0.01 &&
          Math.abs(other.box.y - there.y) < 0.01 &&
          drawingKey(other, shift) === key,
      );
      if (!twin) return null;
      twins.push(twin);
    }
  return twins;
}

/** A drawing as text, moved back by `shift`, to a hundredth of a px: the same for the same piece one tile away. */
function drawingKey({ element, path, clip }: Drawn, shift: { x: number; y: number }): string {
  const at = ({ x, y }: { x: number; y: number }): string =>
    `${(x - shift.x).toFixed(2)},${(y - shift.y).toFixed(2)}`;
  const said = path.map((segment) => {
    if (segment.op === 'Z') return 'Z';
    return segment.op === 'C'
      ? `C${at(segment.c1)} ${at(segment.c2)} ${at(segment.to)}`
      : segment.op + at(segment.to);
  });
  const { fill, stroke, fillRule, opacity } = element;
  // Gradients and clips are tied to their place; pieces with them are never taken for twins of others.
  const own = typeof fill === 'object' && fill !== null ? `${shift.x}:${shift.y}` : '';
  return JSON.stringify([
    said.join('').replace(/-0\.00/g, '0.00'),
    fill,
    stroke,
    fillRule,
    opacity,
    clip !== null,
    own,
  ]);
}

/** An element that shows nothing beyond the tile. */
function cutAt(one: Drawn, tile: Box): Drawn {
  const edge = { path: rectanglePath(tile.width, tile.height, 0), rule: 'nonzero' as const };
  const inside = one.clip ? combineAreas('intersect', [one.clip, edge]) : null;
  const clip = inside ? { path: inside.ok ? inside.path : [], rule: 'nonzero' as const } : edge;
  const x = Math.max(0, one.box.x);
  const y = Math.max(0, one.box.y);
  const box = {
    x,
    y,
    width: Math.min(tile.width, one.box.x + one.box.width) - x,
    height: Math.min(tile.height, one.box.y + one.box.height) - y,
  };
  const plain =
    one.element.fill !== null &&
    typeof one.element.fill === 'string' &&
    !one.element.stroke &&
    !one.element.picture;
  const shape =
    plain && one.element.opacity === 1 && !one.clip
      ? combineAreas('intersect', [{ path: one.path, rule: one.element.fillRule }, edge])
      : null;
  // A plain filled piece is cut for good: cut shapes draw faster than clipped ones and meet at the edges without a line.
  if (shape?.ok && shape.path.length > 0)
    return {
      ...one,
      path: shape.path,
      element: { ...one.element, fillRule: 'nonzero' },
      box,
    };
  return { ...one, clip, box };
}
