import { add, subtract, type Point } from './point';
import { cubicAt, splitCubic, type Path, type Segment } from './path';

/** A point of a path with the handles that shape the curve before and after it; `null` where that side is straight. */
export type PathNode = { at: Point; before: Point | null; after: Point | null };

/** One subpath as its points in order. */
export type NodeRow = { nodes: PathNode[]; closed: boolean };

/** A path as rows of points with handles. Inverse of {@link pathOfNodes}. */
export function nodesOf(path: Path): NodeRow[] {
  const rows: NodeRow[] = [];
  let row: NodeRow | null = null;
  for (const segment of path) {
    if (segment.op === 'M') {
      row = { nodes: [plain(segment.to)], closed: false };
      rows.push(row);
      continue;
    }
    if (!row) continue;
    if (segment.op === 'Z') {
      close(row);
      continue;
    }
    if (segment.op === 'C') {
      const last = row.nodes[row.nodes.length - 1];
      if (last) last.after = same(segment.c1, last.at) ? null : segment.c1;
      row.nodes.push({
        at: segment.to,
        before: same(segment.c2, segment.to) ? null : segment.c2,
        after: null,
      });
    } else row.nodes.push(plain(segment.to));
  }
  return rows;
}

/** A closed row whose last point is its first one again keeps it once, with both handles. */
function close(row: NodeRow): void {
  row.closed = true;
  const first = row.nodes[0];
  const last = row.nodes[row.nodes.length - 1];
  if (!first || !last || row.nodes.length < 2 || !same(first.at, last.at)) return;
  first.before = last.before;
  row.nodes.pop();
}

/** Rows of points as a path. */
export function pathOfNodes(rows: readonly NodeRow[]): Path {
  return rows.flatMap(({ nodes, closed }) => {
    const [first] = nodes;
    if (!first) return [];
    const path: Path = [{ op: 'M', to: first.at }];
    nodes.slice(1).forEach((node, index) => path.push(step(nodes[index] ?? first, node)));
    if (closed) {
      const last = nodes[nodes.length - 1] ?? first;
      if (last.after || first.before) path.push(step(last, first));
      path.push({ op: 'Z' });
    }
    return path;
  });
}

function step(from: PathNode, to: PathNode): Segment {
  if (!from.after && !to.before) return { op: 'L', to: to.at };
  return { op: 'C', c1: from.after ?? from.at, c2: to.before ?? to.at, to: to.at };
}

/** A point moved with its handles. */
export function moveNode(node: PathNode, to: Point): PathNode {
  const by = subtract(to, node.at);
  return { at: to, before: node.before && add(node.before, by), after: node.after && add(node.after, by) };
}

/** A handle moved; with `smooth` the other one turns with it and keeps its length. */
export function moveHandle(node: PathNode, side: 'before' | 'after', to: Point, smooth: boolean): PathNode {
  const other = side === 'before' ? 'after' : 'before';
  const held = node[other];
  const moved: PathNode = { ...node, [side]: same(to, node.at) ? null : to };
  if (!smooth || !held) return moved;
  const out = subtract(node.at, to);
  const size = Math.hypot(out.x, out.y);
  if (size === 0) return moved;
  const reach = Math.hypot(held.x - node.at.x, held.y - node.at.y) / size;
  return { ...moved, [other]: { x: node.at.x + out.x * reach, y: node.at.y + out.y * reach } };
}

/** A point made smooth (handles a third of the way to its neighbours, in line with them) or a plain corner. */
export function setSmooth(row: NodeRow, index: number, smooth: boolean): NodeRow {
  const { nodes, closed } = row;
  const node = nodes[index];
  if (!node) return row;
  if (!smooth) return withNode(row, index, plain(node.at));
  const before = nodes[index - 1] ?? (closed ? nodes[nodes.length - 1] : undefined);
  const after = nodes[index + 1] ?? (closed ? nodes[0] : undefined);
  const from = before?.at ?? node.at;
  const to = after?.at ?? node.at;
  const size = Math.hypot(to.x - from.x, to.y - from.y);
  if (size === 0) return row;
  const along = { x: (to.x - from.x) / size, y: (to.y - from.y) / size };
  const reach = (end: Point): number => Math.hypot(end.x - node.at.x, end.y - node.at.y) / 3;
  const handle = (end: Point, sign: 1 | -1): Point => ({
    x: node.at.x + sign * along.x * reach(end),
    y: node.at.y + sign * along.y * reach(end),
  });
  return withNode(row, index, {
    at: node.at,
    before: before ? handle(from, -1) : null,
    after: after ? handle(to, 1) : null,
  });
}

/** A point added on the stretch that follows point `index`, at share `t` of it; the line stays the same (de Casteljau). */
export function insertNode(row: NodeRow, index: number, t: number): NodeRow {
  const { nodes, closed } = row;
  const from = nodes[index];
  const to = nodes[index + 1] ?? (closed ? nodes[0] : undefined);
  if (!from || !to) return row;
  const between = (a: Point, b: Point): Point => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });
  const next = nodes.map((node) => ({ ...node }));
  const target = (index + 1) % nodes.length;
  if (!from.after && !to.before) {
    next.splice(index + 1, 0, plain(between(from.at, to.at)));
    return { ...row, nodes: next };
  }
  const curve = { op: 'C', c1: from.after ?? from.at, c2: to.before ?? to.at, to: to.at } as const;
  const [first, second] = splitCubic(from.at, curve, t);
  next[index] = { ...from, after: first.c1 };
  next[target] = { ...(next[target] ?? to), before: second.c2 };
  next.splice(index + 1, 0, { at: first.to, before: first.c2, after: second.c1 });
  return { ...row, nodes: next };
}

/** A row without one of its points; fewer than two left is no row. */
export function removeNode(row: NodeRow, index: number): NodeRow | null {
  const nodes = row.nodes.filter((_, at) => at !== index);
  return nodes.length < 2 ? null : { ...row, nodes };
}

/** Where a row passes nearest to `point`: after which of its points, at which share, and how far off. */
export function nearestStretch(
  row: NodeRow,
  point: Point,
): { index: number; t: number; distance: number } | null {
  let best: { index: number; t: number; distance: number } | null = null;
  const count = row.closed ? row.nodes.length : row.nodes.length - 1;
  for (let index = 0; index < count; index += 1) {
    const from = row.nodes[index];
    const to = row.nodes[(index + 1) % row.nodes.length];
    if (!from || !to) continue;
    for (let at = 0; at <= 40; at += 1) {
      const t = at / 40;
      const curve = { op: 'C' as const, c1: from.after ?? from.at, c2: to.before ?? to.at, to: to.at };
      const straight = !from.after && !to.before;
      const place = straight
        ? { x: from.at.x + (to.at.x - from.at.x) * t, y: from.at.y + (to.at.y - from.at.y) * t }
        : cubicAt(from.at, curve, t);
      const distance = Math.hypot(place.x - point.x, place.y - point.y);
      if (!best || distance < best.distance) best = { index, t, distance };
    }
  }
  return best;
}

/** Rows with one point of one of them exchanged. */
export const putNode = (rows: readonly NodeRow[], row: number, index: number, node: PathNode): NodeRow[] =>
  rows.map((held, at) => (at === row ? withNode(held, index, node) : held));

/** Rows in which a corner was made smooth, or a smooth point a corner. */
export function toggleSmooth(rows: readonly NodeRow[], row: number, index: number): NodeRow[] {
  const node = rows[row]?.nodes[index];
  const corner = node !== undefined && node.before === null && node.after === null;
  return rows.map((held, at) => (at === row ? setSmooth(held, index, corner) : held));
}

/** Rows without one point; a row that is left with fewer than two goes. */
export const dropNode = (rows: readonly NodeRow[], row: number, index: number): NodeRow[] =>
  rows.flatMap((held, at) => (at === row ? (removeNode(held, index) ?? []) : [held]));

/** Rows with a point added where they pass nearest to `point`. */
export function addNode(rows: readonly NodeRow[], point: Point): NodeRow[] {
  const found = rows.flatMap((held, row) => {
    const near = nearestStretch(held, point);
    return near ? [{ row, ...near }] : [];
  });
  const [best] = found.sort((one, other) => one.distance - other.distance);
  return rows.map((held, row) => (row === best?.row ? insertNode(held, best.index, best.t) : held));
}

function withNode(row: NodeRow, index: number, node: PathNode): NodeRow {
  return { ...row, nodes: row.nodes.map((held, at) => (at === index ? node : held)) };
}

const plain = (at: Point): PathNode => ({ at, before: null, after: null });
const same = (a: Point, b: Point): boolean => Math.abs(a.x - b.x) < 1e-9 && Math.abs(a.y - b.y) < 1e-9;
