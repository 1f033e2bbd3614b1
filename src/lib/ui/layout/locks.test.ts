import { describe, expect, it } from 'vitest';
import { freshPage, freshShape, type Shape } from '$lib/core/recipe/layout';
import type { LayoutDoc } from './doc';
import { keepLocked, sayLocked } from './locks';

const shape = (id: string, over: Partial<Shape> = {}): Shape =>
  freshShape({ id, name: id, form: { kind: 'ellipse' }, x: 0, y: 0, width: 10, height: 10, ...over });
const group = (id: string, over = {}) => ({
  id,
  name: id,
  parent: null,
  locked: false,
  hidden: false,
  ...over,
});
const doc = (shapes: Shape[], groups: LayoutDoc['groups'] = []): LayoutDoc => ({
  ...freshPage(100, 100),
  name: 'Page',
  shapes,
  groups,
});
const moved = (held: LayoutDoc, ids: string[]): LayoutDoc => ({
  ...held,
  shapes: held.shapes.map((one) => (ids.includes(one.id) ? { ...one, x: one.x + 5 } : one)),
});

describe('what is locked', () => {
  const before = doc(
    [shape('a'), shape('b', { locked: true }), shape('c'), shape('d', { group: 'g' })],
    [group('g', { locked: true })],
  );
  const [a, b, c, d] = before.shapes as [Shape, Shape, Shape, Shape];

  it('stays while others change, by itself and with its group', () => {
    const { doc: kept, refused } = keepLocked(before, moved(before, ['a', 'b', 'd']));
    expect(kept.shapes).toEqual([{ ...a, x: 5 }, b, c, d]);
    expect(refused).toEqual(['b', 'd']);
    expect(sayLocked(refused)).toBe('2 locked shapes stay as they are; unlock them to change them.');
  });

  it('is the very same state where nothing else was wanted, so that no step is made', () => {
    expect(keepLocked(before, moved(before, ['b'])).doc).toBe(before);
  });

  it('changes by being unlocked, alone or with its group', () => {
    const unlocked = {
      ...before,
      shapes: before.shapes.map((one) => (one === b ? { ...b, locked: false } : one)),
    };
    expect(keepLocked(before, unlocked)).toEqual({ doc: unlocked, refused: [] });
    const opened = { ...before, groups: [group('g')] };
    expect(keepLocked(before, opened)).toEqual({ doc: opened, refused: [] });
    const renamed = { ...before, groups: [group('g', { locked: true, name: 'other' })] };
    expect(keepLocked(before, renamed).refused).toEqual(['g']);
  });

  it('is not taken away, and lies where it lay', () => {
    const { doc: kept, refused } = keepLocked(before, { ...before, shapes: [c], groups: [] });
    expect(kept.shapes).toEqual([b, c, d]);
    expect(kept.groups).toEqual(before.groups);
    expect(refused).toEqual(['b', 'd', 'g']);
  });

  it('comes along where the page gets another size: that is the page’s change', () => {
    const wanted = { ...moved(before, ['a', 'b', 'c', 'd']), width: 200 };
    expect(keepLocked(before, wanted)).toEqual({ doc: wanted, refused: [] });
  });
});
