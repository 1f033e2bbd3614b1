import { describe, expect, it } from 'vitest';
import {
  addNode,
  dropNode,
  moveHandle,
  moveNode,
  nodesOf,
  pathOfNodes,
  putNode,
  toggleSmooth,
} from './nodes';
import { formatPath, parsePath } from './path';

const rowsOf = (d: string) => {
  const read = parsePath(d);
  if (!read.ok) throw new Error(d);
  return nodesOf(read.path);
};
const text = (rows: ReturnType<typeof rowsOf>): string => formatPath(pathOfNodes(rows));
const plain = (d: string): string => {
  const read = parsePath(d);
  return read.ok ? formatPath(read.path) : 'not read';
};
const HOUSE = 'M0 0L60 0L60 40L0 40Z';
const ARCH = 'M0 0C0 -40 60 -40 60 0L60 30Z';

describe('the points of an outline', () => {
  it('come back as the path that they were read from', () => {
    for (const d of [HOUSE, ARCH, `${HOUSE}M10 10L20 10L20 20Z`, 'M0 0L9 3'])
      expect(text(rowsOf(d))).toBe(plain(d));
    expect(rowsOf(HOUSE)).toMatchObject([{ closed: true, nodes: [{}, {}, {}, {}] }]);
  });

  it('are added where the line passes nearest, and the line stays as it was', () => {
    const [straight] = addNode(rowsOf(HOUSE), { x: 31, y: -5 });
    expect(straight?.nodes).toHaveLength(5);
    expect(straight?.nodes[1]?.at.y).toBe(0);
    // Half of a curve split in the middle: its point is the curve's own (de Casteljau's, worked by hand).
    const [curved] = addNode(rowsOf(ARCH), { x: 30, y: -60 });
    expect(curved?.nodes[1]).toMatchObject({
      at: { x: 30, y: -30 },
      before: { x: 15, y: -30 },
      after: { x: 45, y: -30 },
    });
  });

  it('are taken away; a row of one is none', () => {
    expect(dropNode(rowsOf(HOUSE), 0, 1)[0]?.nodes.map(({ at }) => at)).toEqual([
      { x: 0, y: 0 },
      { x: 60, y: 40 },
      { x: 0, y: 40 },
    ]);
    expect(dropNode(rowsOf('M0 0L9 3'), 0, 1)).toEqual([]);
  });

  it('are made smooth in line with their neighbours, and corners again', () => {
    const smooth = toggleSmooth(rowsOf(HOUSE), 0, 1);
    const { at, before, after } = smooth[0]!.nodes[1]!;
    // Both handles lie on one line through the point.
    const cross = (before!.x - at.x) * (after!.y - at.y) - (before!.y - at.y) * (after!.x - at.x);
    expect(cross).toBeCloseTo(0, 9);
    expect(toggleSmooth(smooth, 0, 1)).toEqual(rowsOf(HOUSE));
  });

  it('take their handles along; a pulled handle takes the one across with it, or not', () => {
    const node = addNode(rowsOf(ARCH), { x: 30, y: -60 })[0]!.nodes[1]!;
    expect(moveNode(node, { x: 40, y: -20 })).toEqual({
      at: { x: 40, y: -20 },
      before: { x: 25, y: -20 },
      after: { x: 55, y: -20 },
    });
    const pulled = moveHandle(node, 'after', { x: 30, y: -50 }, true);
    expect(pulled.before!.x).toBeCloseTo(30, 9);
    expect(pulled.before!.y).toBeCloseTo(-15, 9);
    expect(moveHandle(node, 'after', { x: 30, y: -50 }, false).before).toEqual(node.before);
    const rows = putNode(rowsOf(HOUSE), 0, 2, pulled);
    expect(rows[0]?.nodes[2]).toBe(pulled);
    expect(rows[0]?.nodes[1]).toEqual(rowsOf(HOUSE)[0]?.nodes[1]);
  });
});
