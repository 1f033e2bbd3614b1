import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filledShape } from '../../../../tests/support/scenes';
import { freshFill } from './fill';
import { freshPage, type Shape } from './layout';
import { applyChanges, compactChanges, diffLayout, type LayoutDoc } from './layout-changes';
import { carried, mergeDocs } from './merge-layouts';

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
const names = ({ doc: { shapes } }: { doc: LayoutDoc }) => shapes.map(({ name, x }) => `${name}@${x}`);

describe('two people in one layout', () => {
  const base = doc([shape('a'), shape('b'), shape('c')]);

  it('keep what each changed, drew and took away', () => {
    const mine = doc([shape('a', { x: 5 }), shape('b'), shape('d')], { bleed: 3 });
    const theirs = doc([shape('a'), shape('b', { x: 7 }), shape('c'), shape('e')], { ppi: 200 });
    const merged = mergeDocs(base, mine, theirs);
    expect(names(merged)).toEqual(['A@5', 'B@7', 'E@0', 'D@0']);
    expect(merged.clashes).toEqual([]);
    expect(merged.doc).toMatchObject({ bleed: 3, ppi: 200 });
  });

  it('keep the fields that each changed of the same shape', () => {
    const mine = doc([shape('a', { x: 5, fills: [] }), shape('b'), shape('c')]);
    const theirs = doc([shape('a', { rotation: 30, name: 'Sign' }), shape('b'), shape('c')]);
    const { doc: both, clashes } = mergeDocs(base, mine, theirs);
    expect(both.shapes[0]).toMatchObject({ x: 5, rotation: 30, name: 'Sign', fills: [] });
    expect(clashes).toEqual([]);
  });

  it('keep what each changed of the fills of one shape: values of one, another one, their order', () => {
    const [under, over] = [freshFill('under', 'p'), freshFill('over', 'q')];
    const was = doc([shape('a', { fills: [under, over] })]);
    const mine = doc([shape('a', { fills: [{ ...over, opacity: 0.5 }, under] })]);
    const theirs = doc([shape('a', { fills: [under, { ...over, scaleX: 2 }, freshFill('third', 'r')] })]);
    const { doc: both, clashes } = mergeDocs(was, mine, theirs);
    expect(both.shapes[0]?.fills).toEqual([
      { ...over, opacity: 0.5, scaleX: 2 },
      under,
      freshFill('third', 'r'),
    ]);
    expect(clashes).toEqual([]);
  });

  it('clash in the same field alone: theirs stands, and both values are told', () => {
    const mine = doc([shape('a', { x: 5, y: 1 }), shape('b'), shape('c')]);
    const theirs = doc([shape('a', { x: 8, width: 4 }), shape('b'), shape('c')]);
    const { doc: both, clashes } = mergeDocs(base, mine, theirs);
    expect(both.shapes[0]).toMatchObject({ x: 8, y: 1, width: 4 });
    expect(clashes).toEqual([{ shape: 'a', name: 'A', kind: 'field', path: ['x'], mine: 5, theirs: 8 }]);
    const fill = (scaleX: number) => [{ ...freshFill('f', 'p'), scaleX }];
    const [one, two, three] = [1, 2, 3].map((scale) => doc([shape('a', { fills: fill(scale) })]));
    expect(mergeDocs(one!, two!, three!).clashes).toMatchObject([
      { path: ['fills', 'f', 'scaleX'], mine: 2, theirs: 3 },
    ]);
    const renamed = mergeDocs(base, { ...base, name: 'Mine' }, { ...base, name: 'Theirs' });
    expect(renamed.clashes).toMatchObject([{ shape: null, path: ['name'], mine: 'Mine', theirs: 'Theirs' }]);
  });

  it('lose nothing that the other one took away meanwhile', () => {
    const gone = mergeDocs(
      base,
      doc([shape('a', { x: 5 }), shape('b'), shape('c')]),
      doc([shape('b'), shape('c')]),
    );
    expect(names(gone)).toEqual(['A@5', 'B@0', 'C@0']);
    expect(gone.clashes).toMatchObject([{ shape: 'a', kind: 'gone' }]);
    const theirs = doc([shape('a', { x: 3 }), shape('b'), shape('c')]);
    expect(names(mergeDocs(base, doc([shape('b')]), theirs))).toEqual(['A@3', 'B@0']);
    const alike = doc([shape('a', { x: 4 })]);
    expect(mergeDocs(base, alike, doc([shape('a', { x: 4 })])).clashes).toEqual([]);
  });

  it('are not said to clash by the order of keys, as the server writes them', () => {
    const turned = (one: Shape): Shape => Object.fromEntries(Object.entries(one).reverse()) as Shape;
    const mine = doc([shape('a', { x: 5 }), shape('b'), shape('c')]);
    const theirs = doc([turned(shape('a')), turned(shape('b', { x: 7 })), turned(shape('c'))]);
    const merged = mergeDocs(base, mine, theirs);
    expect(names(merged)).toEqual(['A@5', 'B@7', 'C@0']);
    expect(merged.clashes).toEqual([]);
  });

  it('have the stack of whoever changed it', () => {
    const mine = doc([shape('c'), shape('a'), shape('b')]);
    const theirs = doc([shape('a'), shape('x'), shape('b', { x: 2 }), shape('c')]);
    expect(names(mergeDocs(base, mine, theirs))).toEqual(['C@0', 'A@0', 'X@0', 'B@2']);
    expect(names(mergeDocs(base, doc([shape('a', { x: 1 }), shape('b'), shape('c')]), theirs))).toEqual([
      'A@1',
      'X@0',
      'B@2',
      'C@0',
    ]);
  });

  /**
   * What each of two did to each shape, and what must come of it, said plainly: who alone did something has it done; where both
   * did the same there is one; where both gave it another place theirs stands; what one took away and the other moved stays.
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
      return [`${name}@${at(moved(theirs) ? theirs : mine)}`];
    };
    const four = fc.tuple(deed, deed, deed, deed);
    fc.assert(
      fc.property(four, four, (mine, theirs) => {
        const merged = mergeDocs(before, after(mine, 'm'), after(theirs, 't'));
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
    expect(names({ doc: carried(saved, earlier, theirs) })).toEqual(['A@0', 'B@7', 'C@0', 'E@0']);
  });
});

describe('changes', () => {
  const part = fc.record({
    ids: fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 0, maxLength: 4 }),
    x: fc.integer({ min: 0, max: 3 }),
    name: fc.constantFrom('A', 'B'),
    bleed: fc.integer({ min: 0, max: 2 }),
    group: fc.option(fc.constantFrom('g', 'h')),
  });
  const state = part.map(({ ids, x, name, bleed, group }) =>
    doc(
      ids.map((id, index) => shape(id, { x: index === 0 ? x : 0, name, group: index === 1 ? group : null })),
      {
        bleed,
        groups: group === null ? [] : [{ id: group, name, parent: null, locked: false, hidden: false }],
      },
    ),
  );

  it('lead from any state to any other, also taken together and back', () => {
    fc.assert(
      fc.property(state, state, state, state, (one, two, three, four) => {
        const steps = [diffLayout(one, two), diffLayout(two, three), diffLayout(three, four)];
        expect(applyChanges(one, steps[0]!)).toEqual(two);
        expect(applyChanges(one, compactChanges(steps))).toEqual(four);
        const back = [diffLayout(four, three), diffLayout(three, two), diffLayout(two, one)];
        expect(applyChanges(four, compactChanges(back))).toEqual(one);
      }),
      { numRuns: 500 },
    );
  });

  it('name of a shape only the fields that differ, whatever the order of their keys', () => {
    const one = shape('a', { x: 1 });
    const turned = Object.fromEntries(Object.entries({ ...one, x: 2 }).reverse()) as Shape;
    expect(diffLayout(doc([one]), doc([turned]))).toEqual([{ do: 'patch-shape', id: 'a', fields: { x: 2 } }]);
  });
});
