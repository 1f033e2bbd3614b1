import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filledShape } from '../../../../tests/support/scenes';
import { freshPage, type Shape } from '$lib/core/recipe/layout';
import type { LayoutDoc } from './doc';
import { mergeDocs, withTheirs } from './merge';

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

  it('are not said to clash by the order of keys, as the server writes them', () => {
    const turned = (one: Shape): Shape => Object.fromEntries(Object.entries(one).reverse()) as Shape;
    const mine = doc([shape('a', { x: 5 }), shape('b'), shape('c')]);
    const theirs = doc([turned(shape('a')), turned(shape('b', { x: 7 })), turned(shape('c'))]);
    const merged = mergeDocs(base, mine, theirs, fresh);
    expect(names(merged)).toEqual(['A@5', 'B@7', 'C@0']);
    expect(merged.clashes).toEqual([]);
  });

  it('have the stack of whoever changed it', () => {
    const mine = doc([shape('c'), shape('a'), shape('b')]);
    const theirs = doc([shape('a'), shape('x'), shape('b', { x: 2 }), shape('c')]);
    expect(names(mergeDocs(base, mine, theirs, fresh))).toEqual(['C@0', 'A@0', 'X@0', 'B@2']);
    expect(
      names(mergeDocs(base, doc([shape('a', { x: 1 }), shape('b'), shape('c')]), theirs, fresh)),
    ).toEqual(['A@1', 'X@0', 'B@2', 'C@0']);
  });

  /**
   * What each of two did to each shape, and what must come of it, said plainly: who alone did something has it done; where both
   * did the same there is one; where both did something else theirs stays and mine is beside it.
   */
  it('end where a plain model says, whatever each does to each shape', () => {
    const deed = fc.oneof(
      fc.constant('nothing' as const),
      fc.constant('gone' as const),
      fc.integer({ min: 1, max: 3 }),
    );
    type Deed = 'nothing' | 'gone' | number;
    const ids = ['a', 'b', 'c', 'd'];
    const before = doc(ids.map((id) => shape(id)));
    const after = (deeds: readonly Deed[], drawn: string): LayoutDoc =>
      doc([
        ...ids.flatMap((id, index) => {
          const did = deeds[index] ?? 'nothing';
          return did === 'gone' ? [] : [shape(id, did === 'nothing' ? {} : { x: did })];
        }),
        shape(drawn),
      ]);
    const model = (id: string, mine: Deed, theirs: Deed): string[] => {
      const [name, at] = [id.toUpperCase(), (did: Deed) => (did === 'nothing' ? 0 : did)];
      const moved = (did: Deed): boolean => typeof did === 'number';
      if (mine === 'nothing') return theirs === 'gone' ? [] : [`${name}@${at(theirs)}`];
      if (theirs === 'nothing' || mine === theirs) return mine === 'gone' ? [] : [`${name}@${at(mine)}`];
      if (mine === 'gone') return [`${name}@${at(theirs)}`];
      return moved(theirs)
        ? [`${name}@${at(theirs)}`, `${name}, mine@${at(mine)}`]
        : [`${name}, mine@${at(mine)}`];
    };
    const four = fc.tuple(deed, deed, deed, deed);
    fc.assert(
      fc.property(four, four, (mine, theirs) => {
        const merged = mergeDocs(before, after(mine, 'm'), after(theirs, 't'), fresh);
        const wanted = [
          ...ids.flatMap((id, index) => model(id, mine[index] as Deed, theirs[index] as Deed)),
          'M@0',
          'T@0',
        ];
        expect(names(merged).sort()).toEqual(wanted.sort());
      }),
      { numRuns: 400 },
    );
  });

  it('undo their own alone: what the other one did stays in every earlier state', () => {
    const earlier = doc([shape('a'), shape('b'), shape('c')]);
    const saved = doc([shape('a', { x: 5 }), shape('b'), shape('c')]);
    const theirs = doc([shape('a', { x: 5 }), shape('b', { x: 7 }), shape('c'), shape('e')]);
    expect(names({ doc: withTheirs(saved, earlier, theirs) })).toEqual(['A@0', 'B@7', 'C@0', 'E@0']);
  });
});
