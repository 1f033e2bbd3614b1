import { describe, expect, it } from 'vitest';
import { filledShape } from '../../../../tests/support/scenes';
import { freshPage, type Shape } from '$lib/core/recipe/layout';
import type { LayoutDoc } from './doc';
import { mergeDocs } from './merge';

const shape = (id: string, over: Partial<Shape> = {}): Shape => ({
  ...filledShape({ x: 0, y: 0, width: 9, height: 9 }, { id: `${id}f` }),
  id,
  name: id.toUpperCase(),
  ...over,
});
const doc = (shapes: Shape[], over: Partial<LayoutDoc> = {}): LayoutDoc => ({
  ...freshPage(100, 100),
  name: 'L',
  shapes,
  ...over,
});
let count = 0;
const fresh = () => `n${(count += 1)}`;
const names = ({ doc: { shapes } }: { doc: LayoutDoc }) => shapes.map(({ name, x }) => `${name}@${x}`);

describe('two people in one layout', () => {
  const base = doc([shape('a'), shape('b'), shape('c')]);

  it('keep what each changed, drew and took away', () => {
    const mine = doc([shape('a', { x: 5 }), shape('b'), shape('d')], { bleed: 3 });
    const theirs = doc([shape('a'), shape('b', { x: 7 }), shape('c'), shape('e')], { ppi: 200 });
    const merged = mergeDocs(base, mine, theirs, fresh);
    expect(names(merged)).toEqual(['A@5', 'B@7', 'E@0', 'D@0']);
    expect(merged.clashes).toEqual([]);
    expect(merged.doc).toMatchObject({ bleed: 3, ppi: 200 });
  });

  it('keep both versions of what both changed, under other ids', () => {
    const mine = doc([shape('a', { x: 5 }), shape('b'), shape('c')]);
    const theirs = doc([shape('a', { x: 8 }), shape('b'), shape('c')]);
    const merged = mergeDocs(base, mine, theirs, fresh);
    expect(names(merged)).toEqual(['A@8', 'B@0', 'C@0', 'A, mine@5']);
    expect(merged.clashes).toEqual(['A']);
    const ids = merged.doc.shapes.flatMap((one) => [one.id, ...one.fills.map(({ id }) => id)]);
    expect(new Set(ids).size).toBe(ids.length);
  });

  it('lose nothing that the other one took away meanwhile', () => {
    const merged = mergeDocs(
      base,
      doc([shape('a', { x: 5 }), shape('b'), shape('c')]),
      doc([shape('b'), shape('c')]),
      fresh,
    );
    expect(names(merged)).toEqual(['B@0', 'C@0', 'A, mine@5']);
    expect(merged.clashes).toEqual(['A']);
    expect(
      names(mergeDocs(base, doc([shape('b')]), doc([shape('a', { x: 3 }), shape('b'), shape('c')]), fresh)),
    ).toEqual(['A@3', 'B@0']);
    expect(mergeDocs(base, doc([shape('a', { x: 4 })]), doc([shape('a', { x: 4 })]), fresh).clashes).toEqual(
      [],
    );
  });
});
