import { describe, expect, it } from 'vitest';
import { freshPage } from '$lib/core/recipe/layout';
import { snappedMove } from './snapping';

const doc = { ...freshPage(400, 330), name: 'L', margin: 20, guides: [{ axis: 'x' as const, at: 90 }] };
const start = { x: 10, y: 10, width: 40, height: 40 };
const other = { x: 200, y: 100, width: 60, height: 60 };

describe('a dragged shape', () => {
  it('snaps to edges and middles of others, to guides, the margin and the page, if they are near', () => {
    const to = (x: number, y: number) => snappedMove(doc, start, [other], { x, y }, 5);
    // Its left edge onto the guide; its middle onto the other's middle.
    expect(to(83, 102).by).toEqual({ x: 80, y: 100 });
    expect(to(83, 102).shown).toMatchObject({ x: 90, y: 130 });
    // Its right edge onto the margin; too far from any line down.
    expect(to(328, 57).by).toEqual({ x: 330, y: 57 });
    expect(to(328, 57).shown.y).toBeNull();
    expect(snappedMove(doc, start, [other], { x: 83, y: 102 }, 1).by).toEqual({ x: 83, y: 102 });
  });

  it('shows how far its neighbours are, or the page’s edge', () => {
    const { distances } = snappedMove(doc, start, [other], { x: 100, y: 100 }, 0.1).shown;
    expect(distances.map(({ length }) => length)).toEqual([110, 50, 110, 180]);
  });
});
