import { describe, expect, it } from 'vitest';
import { colourFill, freshFill } from '$lib/core/recipe/fill';
import { freshPage, freshShape, type Shape, type ShapeGroup } from '$lib/core/recipe/layout';
import { ledgerItems, matches } from './ledger';
import { runsOf } from './runs';
import { lowerShape } from '$lib/core/draw/lower';

const shape = (id: string, group: string | null = null, over: Partial<Shape> = {}): Shape =>
  freshShape({
    ...{ id, name: id, form: { kind: 'ellipse' }, x: 0, y: 0, width: 9, height: 9, group },
    fills: [colourFill(`${id}1`, { colour: '#112233' }), freshFill(`${id}2`, 'waves')],
    ...over,
  });
const group = (id: string, parent: string | null = null): ShapeGroup => ({
  ...{ id, name: id, parent, locked: false, hidden: false },
});
const doc = {
  ...freshPage(100, 100),
  name: 'L',
  shapes: [
    shape('sea'),
    shape('boat', 'inner'),
    shape('sail', 'inner'),
    shape('flag', 'outer'),
    shape('sun'),
  ],
  groups: [group('outer'), group('inner', 'outer')],
};
const rows = (
  shows: (one: Shape) => boolean = () => true,
  { folded = [], opened = [] }: { folded?: string[]; opened?: string[] } = {},
): string[] =>
  ledgerItems(doc, { folded: new Set(folded), opened: new Set(opened) }, shows).map(
    ({ kind, id, depth }) => `${'  '.repeat(depth)}${kind === 'shape' ? '' : `${kind} `}${id}`,
  );

describe('the rows of the ledger', () => {
  it('go from the front to the back, groups before what lies in them', () => {
    expect(rows()).toEqual(['sun', 'group outer', '  flag', '  group inner', '    sail', '    boat', 'sea']);
  });

  it('leave out what is folded away, and hold a row for each fill of what is opened', () => {
    expect(rows(undefined, { folded: ['inner'], opened: ['sea'] })).toEqual([
      ...['sun', 'group outer', '  flag', '  group inner'],
      ...['sea', '  fill sea2', '  fill sea1'],
    ]);
  });

  it('of a filter are found by shape, group and what fills them, whatever the case', () => {
    const say = (fill: Shape['fills'][number]): string => (fill.kind === 'pattern' ? 'Waves Dusk' : 'colour');
    const found = (text: string): string[] => rows(matches(doc, text, say));
    expect(found('FLAG')).toEqual(['group outer', '  flag']);
    expect(found('inner')).toEqual(['group outer', '  group inner', '    sail', '    boat']);
    expect(found('dusk')).toHaveLength(rows().length);
    expect(found('moon')).toEqual([]);
  });
});

describe('the drawings that a page is shown in', () => {
  const lookup = () => null;
  const scenes = (count: number, blend: 'normal' | 'multiply' = 'normal') =>
    Array.from({ length: count }, (_, index) =>
      lowerShape(
        shape(`s${index}`, null, {
          fills: [{ ...colourFill(`f${index}`, { colour: '#112233' }), ...(index === 3 ? { blend } : {}) }],
        }),
        lookup,
      ),
    );

  it('hold all shapes in their order, a few each; one with a blend holds them all', () => {
    const many = scenes(200);
    expect(runsOf(many).flat()).toEqual(many);
    expect(runsOf(many).length).toBeGreaterThan(3);
    expect(runsOf(scenes(200, 'multiply'))).toHaveLength(1);
    expect(runsOf(scenes(5))).toHaveLength(1);
  });

  it('stay the same where nothing in them changed', () => {
    const many = scenes(200);
    const before = runsOf(many);
    const [changed] = scenes(1);
    const after = runsOf(
      many.map((scene, index) => (index === 60 && changed ? { ...changed, id: scene.id } : scene)),
      before,
    );
    expect(after.map((run, index) => run === before[index]).filter((same) => !same)).toHaveLength(1);
  });
});
