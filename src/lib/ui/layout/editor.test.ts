import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import type { LayoutData, PatternForUse } from '$lib/contract/data';
import { unionBoxes } from '$lib/core/geom/box';
import { apply } from '$lib/core/geom/affine';
import { colourFill, freshFill, gradientFill, type Fill, type PatternFill } from '$lib/core/recipe/fill';
import { freshGradient } from '$lib/core/recipe/gradient';
import {
  freshPage,
  freshShape,
  pagePatternMatrix,
  shapeBox,
  type Shape,
  type ShapeGroup,
} from '$lib/core/recipe/layout';
import { LIMITS } from '$lib/core/recipe/limits';
import { freshMask } from '$lib/core/recipe/mask';
import { recipe } from '../../../../tests/support/recipes';
import { toasts } from '../state/toasts.svelte';
import { align, combine, freeShapes, grid, group, hold, membersOf, sameSize, ungroup } from './arrange';
import { applyChanges, diffLayout } from './doc';
import { LayoutEditor } from './editor.svelte';
import { gradientAt, putGradient } from './steer';

const art = recipe({});
const pattern = (id: string, name: string): PatternForUse => ({
  ...{ id, name, newest: 1, recipes: { 1: art }, faults: {} },
  ...{
    hasDraft: false,
    archivedAt: null,
    credit: { author: '', source: '', licence: '', attribution: false },
  },
  colourways: [{ id: 'dusk', name: 'Dusk', colours: { ink: { colour: '#30204a' } } }],
});
const dots = (id: string, over: Partial<PatternFill> = {}): PatternFill => ({
  ...freshFill(id, 'waves'),
  ...over,
});
const box = (
  id: string,
  x: number,
  y: number,
  fills: Fill[] = [dots(`${id}f`)],
  over: Partial<Shape> = {},
): Shape =>
  freshShape({
    ...{ id, name: id.toUpperCase(), form: { kind: 'rectangle', radius: 0 } },
    ...{ x, y, width: 40, height: 30, fills },
    ...over,
  });

/** An editor of a page of 400 × 300 px; what it wants from the server is at hand already. */
function editing(shapes: Shape[], groups: ShapeGroup[] = []): LayoutEditor {
  const data: LayoutData = {
    ...freshPage(400, 300),
    ...{ id: 'l', projectId: 'p', projectName: 'P', name: 'L', version: 1, archivedAt: null },
    shapes,
    groups,
  };
  return new LayoutEditor(data, [pattern('waves', 'Waves'), pattern('reeds', 'Reeds')]);
}
const shapeOf = (editor: LayoutEditor, id: string): Shape => {
  const found = editor.doc.shapes.find((shape) => shape.id === id);
  if (!found) throw new Error(`no shape ${id}`);
  return found;
};
const fillsOf = (editor: LayoutEditor, id: string): readonly Fill[] => shapeOf(editor, id).fills;
const lastToast = (): string => toasts.list[toasts.list.length - 1]?.message ?? '';

describe('saving', () => {
  // Fails where an empty list of changes goes out: the server refuses it, and the view said “Not saved”.
  it('sends nothing where the document is another one and says the same', async () => {
    const sent = vi.fn(() => Promise.resolve(new Response('{"version":2}', { status: 200 })));
    vi.stubGlobal('fetch', sent);
    const editor = editing([box('a', 0, 0)]);
    editor.saver.want({ ...editor.history.doc, shapes: [...editor.history.doc.shapes] });
    expect(await editor.saver.flush()).toBe(true);
    expect([sent.mock.calls.length, editor.saver.version]).toEqual([0, 1]);
    editor.saver.want({ ...editor.history.doc, name: 'Other' });
    expect(await editor.saver.flush()).toBe(true);
    expect([sent.mock.calls.length, editor.saver.version]).toEqual([1, 2]);
    vi.unstubAllGlobals();
  });
});

describe('filling', () => {
  it('another pattern keeps how the one before lay, and leaves its colours and revision behind', async () => {
    const held = dots('f', { scaleX: 7, scaleY: 2, rotation: 45, offset: { x: 5, y: 0 }, opacity: 0.2 });
    const editor = editing([box('a', 0, 0, [{ ...held, held: 1, colours: { ink: { colour: '#ff0000' } } }])]);
    editor.select(['a']);
    await editor.fillWith('reeds');
    expect(fillsOf(editor, 'a')).toEqual([{ ...held, pattern: 'reeds', held: null, colours: {} }]);
    editor.history.undo();
    expect(fillsOf(editor, 'a')[0]).toMatchObject({ pattern: 'waves', held: 1 });
  });

  it('without a shape says what to do first', async () => {
    const editor = editing([box('a', 0, 0)]);
    await editor.fillWith('reeds');
    expect(lastToast()).toMatch(/Select a shape first/);
    expect(editor.history.canUndo).toBe(false);
  });

  it('a plain colour, a gradient and a pattern in turn keep the opacity, the pattern and its blend too', async () => {
    const editor = editing([box('a', 0, 0, [colourFill('f', { colour: '#112233' })])]);
    editor.select(['a']);
    editor.changeActive((fill) => ({ ...fill, opacity: 0.35, blend: 'screen' }));
    editor.fillGradient();
    expect(fillsOf(editor, 'a')[0]).toMatchObject({ kind: 'gradient', opacity: 0.35 });
    editor.changeActive((fill) => ({ ...fill, blend: 'multiply' }));
    await editor.fillWith('waves');
    expect(fillsOf(editor, 'a')).toMatchObject([{ kind: 'pattern', opacity: 0.35, blend: 'multiply' }]);
    editor.fillPlain('#445566', false, 'pool');
    expect(fillsOf(editor, 'a')).toMatchObject([
      { kind: 'colour', colour: '#445566', link: 'pool', opacity: 0.35 },
    ]);
    // Another colour without a link lets the old link go.
    editor.fillPlain('#778899');
    expect(fillsOf(editor, 'a')[0]).not.toHaveProperty('link');
  });

  it('works on the leading pattern, or on the fill that was chosen', () => {
    const fills = [
      colourFill('c', { colour: '#ffffff' }),
      dots('d'),
      gradientFill('g', freshGradient({ colour: '#000000' }, { colour: '#ffffff' })),
    ];
    const editor = editing([box('a', 0, 0, fills)]);
    editor.select(['a']);
    expect(editor.activeOf(shapeOf(editor, 'a'))?.id).toBe('d');
    editor.workOn(shapeOf(editor, 'a'), 'c');
    expect(editor.layer).toBe(2);
    editor.removeFill();
    expect(fillsOf(editor, 'a').map(({ id }) => id)).toEqual(['d', 'g']);
    expect(editor.layer).toBeNull();
  });

  it('moves a fill up and down in its stack and stays on it', () => {
    const editor = editing([box('a', 0, 0, [dots('1'), dots('2'), dots('3')])]);
    editor.select(['a']);
    editor.layer = 2;
    editor.restackFill('front');
    expect([fillsOf(editor, 'a').map(({ id }) => id), editor.layer]).toEqual([['2', '1', '3'], 1]);
    expect(editor.activeOf(shapeOf(editor, 'a'))?.id).toBe('1');
    editor.restackFill('back');
    editor.restackFill('back');
    expect([fillsOf(editor, 'a').map(({ id }) => id), editor.layer]).toEqual([['1', '2', '3'], 2]);
  });

  it('lays a watermark over what is there, and refuses more fills than a shape may have', async () => {
    const full = Array.from({ length: LIMITS.fills }, (_, index) => dots(`d${index}`));
    const editor = editing([box('a', 0, 0), box('b', 50, 0, full)]);
    editor.select(['a']);
    await editor.addFill({ kind: 'pattern', pattern: 'reeds', watermark: true });
    expect(fillsOf(editor, 'a')[1]).toMatchObject({
      pattern: 'reeds',
      opacity: 0.2,
      ground: { kind: 'none' },
    });
    editor.select(['b']);
    await editor.addFill({ kind: 'colour' });
    expect(lastToast()).toMatch(/at most \d+ fills; “B” has as many/);
    expect(fillsOf(editor, 'b')).toHaveLength(LIMITS.fills);
  });

  it('of a stroke leaves the fills of the shape alone', async () => {
    const editor = editing([box('a', 0, 0)]);
    editor.select(['a']);
    editor.setStroke({ width: 6 });
    editor.part = 'stroke';
    await editor.fillWith('reeds');
    const { stroke, fills } = shapeOf(editor, 'a');
    expect(stroke).toMatchObject({ width: 6, fills: [{ kind: 'pattern', pattern: 'reeds' }] });
    expect(fills).toMatchObject([{ pattern: 'waves' }]);
    editor.removeStroke();
    expect([shapeOf(editor, 'a').stroke, editor.part]).toEqual([null, 'fill']);
  });

  it('is copied to other shapes by chosen properties', () => {
    const from = dots('f', { scaleX: 3, scaleY: 3, rotation: 30, opacity: 0.5 });
    const editor = editing([box('a', 0, 0, [from]), box('b', 0, 0), box('c', 0, 0, [])]);
    editor.select(['b', 'c']);
    editor.takeLike(from, new Set(['scale', 'opacity']));
    expect(fillsOf(editor, 'b')).toMatchObject([{ scaleX: 3, rotation: 0, opacity: 0.5 }]);
    // A shape without a fill takes nothing of which the pattern is no part.
    expect(fillsOf(editor, 'c')).toEqual([]);
    editor.takeLike(from, new Set(['pattern', 'scale', 'rotation']));
    expect(fillsOf(editor, 'c')).toMatchObject([{ pattern: 'waves', scaleX: 3, rotation: 30, opacity: 1 }]);
    const ids = ['a', 'b', 'c'].flatMap((id) => fillsOf(editor, id).map((fill) => fill.id));
    expect(new Set(ids).size).toBe(ids.length);
  });

  it('shows the colours of its colourway, and its own over them', () => {
    const editor = editing([box('a', 0, 0, [dots('f', { colourway: 'dusk' })])]);
    const fill = fillsOf(editor, 'a')[0] as PatternFill;
    expect(editor.tintsOf(fill).ink?.colour).toBe('#30204a');
    const own = { ...fill, colours: { ink: { colour: '#ff0000' } } } as PatternFill;
    expect(editor.tintsOf(own).ink?.colour).toBe('#ff0000');
  });
});

describe('masks and gradients', () => {
  const fade = freshGradient({ colour: '#000000' }, { colour: '#ffffff' });

  it('lie on the fill or on the shape, each as one step', () => {
    const editor = editing([box('a', 0, 0)]);
    editor.select(['a']);
    editor.setMask('fill', freshMask());
    editor.setMask('shape', { kind: 'gradient', gradient: fade });
    expect([shapeOf(editor, 'a').mask?.kind, fillsOf(editor, 'a')[0]?.mask?.kind]).toEqual([
      'gradient',
      'painted',
    ]);
    editor.history.undo();
    expect([shapeOf(editor, 'a').mask, fillsOf(editor, 'a')[0]?.mask?.kind]).toEqual([null, 'painted']);
  });

  it('are found and put where they lie; a drag of one is a single step', () => {
    const editor = editing([box('a', 0, 0, [dots('f', { wash: fade })])]);
    editor.select(['a']);
    const shape = shapeOf(editor, 'a');
    expect(gradientAt(editor, shape, 'wash')).toBe(fade);
    for (const place of ['fill', 'fill-mask', 'shape-mask'] as const)
      expect(gradientAt(editor, shape, place)).toBeNull();
    for (const x of [0.2, 0.4, 0.6]) putGradient(editor, 'wash', { ...fade, to: { x, y: 1 } }, true);
    editor.history.commit();
    expect((fillsOf(editor, 'a')[0] as PatternFill).wash?.to.x).toBe(0.6);
    editor.history.undo();
    expect((fillsOf(editor, 'a')[0] as PatternFill).wash).toEqual(fade);
    expect(editor.history.canUndo).toBe(false);
  });
});

describe('shapes together', () => {
  const three = (): LayoutEditor => {
    const editor = editing([box('a', 10, 20), box('b', 130, 90), box('c', 60, 200)]);
    editor.select(['a', 'b', 'c']);
    return editor;
  };

  it('line up with each other or with the page, and their patterns come along', () => {
    const editor = three();
    const place = (id: string) => {
      const shape = shapeOf(editor, id);
      return apply(pagePatternMatrix(shape, shape.fills[0] as PatternFill), { x: 0, y: 0 });
    };
    align(editor, 'left', 'selection');
    expect(editor.doc.shapes.map(({ x }) => x)).toEqual([10, 10, 10]);
    for (const id of ['a', 'b', 'c']) expect(place(id).x).toBeCloseTo(10, 9);
    align(editor, 'bottom', 'page');
    expect(editor.doc.shapes.map(({ y, height }) => y + height)).toEqual([300, 300, 300]);
  });

  it('take the size of the frontmost', () => {
    const editor = three();
    editor.change((shape) => ({ ...shape, width: 90, height: 80 }), { ids: new Set(['c']) });
    sameSize(editor, 'width');
    expect(editor.doc.shapes.map(({ width, height }) => [width, height])).toEqual([
      [90, 30],
      [90, 30],
      [90, 80],
    ]);
  });

  it('are grouped where the frontmost lies, nested, and let go one level at a time', () => {
    const editor = three();
    editor.select(['a', 'c']);
    group(editor);
    expect(editor.doc.shapes.map(({ id }) => id)).toEqual(['b', 'a', 'c']);
    const [inner] = editor.doc.groups;
    editor.select(['b', 'a', 'c']);
    group(editor);
    // The outer group takes what was selected out of the inner one, which holds nothing then and goes.
    const [outer] = editor.doc.groups;
    expect(editor.doc.groups).toHaveLength(1);
    expect(outer?.id).not.toBe(inner?.id);
    expect(membersOf(editor.doc, outer?.id ?? '')).toEqual(new Set(['a', 'b', 'c']));
    ungroup(editor);
    expect([editor.doc.groups, editor.doc.shapes.map((shape) => shape.group)]).toEqual([
      [],
      [null, null, null],
    ]);
  });

  it('that are locked or hidden, by themselves or with their group, cannot be chosen', () => {
    const holds = { id: 'g', name: 'G', parent: null, locked: true, hidden: false };
    const editor = editing([box('a', 0, 0), box('b', 0, 0, [], { group: 'g' }), box('c', 0, 0)], [holds]);
    expect(freeShapes(editor.doc).map(({ id }) => id)).toEqual(['a', 'c']);
    editor.select(['c']);
    hold(editor, 'hidden');
    expect(freeShapes(editor.doc).map(({ id }) => id)).toEqual(['a']);
    hold(editor, 'hidden');
    expect(freeShapes(editor.doc).map(({ id }) => id)).toEqual(['a', 'c']);
    expect(editor.isLocked('b')).toBe(true);
  });

  it('stand in rows and columns under ids of their own; too many are refused', () => {
    const editor = editing([box('a', 10, 20)]);
    editor.select(['a']);
    grid(editor, 3, 2, { x: 50, y: 60 });
    expect(editor.doc.shapes.map(({ x, y }) => [x, y])).toEqual([
      [10, 20],
      [60, 20],
      [110, 20],
      [10, 80],
      [60, 80],
      [110, 80],
    ]);
    expect(new Set(editor.doc.shapes.map(({ name }) => name)).size).toBe(6);
    expect(new Set(editor.doc.shapes.map(({ fills }) => fills[0]?.id)).size).toBe(6);
    editor.select(['a']);
    grid(editor, 1000, 1000, { x: 1, y: 1 });
    expect(lastToast()).toMatch(/a layout holds at most/);
    expect(editor.doc.shapes).toHaveLength(6);
  });

  it('are united into the backmost, of which the pattern stays where it lay', () => {
    const editor = editing([box('a', 10, 20), box('b', 30, 30)]);
    const before = pagePatternMatrix(shapeOf(editor, 'a'), fillsOf(editor, 'a')[0] as PatternFill);
    editor.select(['a', 'b']);
    combine(editor, 'unite');
    expect(editor.doc.shapes.map(({ id }) => id)).toEqual(['a']);
    const united = shapeOf(editor, 'a');
    expect(shapeBox(united)).toMatchObject({ x: 10, y: 20, width: 60, height: 40 });
    const after = pagePatternMatrix(united, united.fills[0] as PatternFill);
    for (const key of ['a', 'b', 'c', 'd', 'e', 'f'] as const) expect(after[key]).toBeCloseTo(before[key], 6);
    // What does not overlap leaves nothing to intersect: the layout stays, a sentence says so.
    const apart = editing([box('a', 0, 0), box('b', 200, 200)]);
    apart.select(['a', 'b']);
    combine(apart, 'intersect');
    expect(apart.doc.shapes).toHaveLength(2);
    expect(lastToast()).not.toBe('');
  });

  it('come back to where they were, whatever was done, step by step', () => {
    const acts: ((editor: LayoutEditor) => void)[] = [
      (editor) => align(editor, 'middle', 'page'),
      (editor) => sameSize(editor, 'both'),
      group,
      ungroup,
      (editor) => grid(editor, 2, 1, { x: 7, y: 0 }),
      (editor) => editor.double(),
      (editor) => editor.restack('front'),
      (editor) => editor.remove(),
      (editor) => editor.fillPlain('#123456'),
      (editor) => editor.anchor('page'),
      (editor) => editor.continueFirst(),
      (editor) => hold(editor, 'locked'),
      (editor) => combine(editor, 'unite'),
    ];
    fc.assert(
      fc.property(
        fc.array(fc.record({ act: fc.nat(acts.length - 1), of: fc.array(fc.nat(5), { maxLength: 4 }) }), {
          maxLength: 8,
        }),
        (steps) => {
          const editor = three();
          const first = editor.history.doc;
          for (const { act, of } of steps) {
            editor.select(of.flatMap((index) => editor.doc.shapes[index]?.id ?? []));
            acts[act]?.(editor);
            const ids = editor.doc.shapes.map(({ id }) => id);
            expect(new Set(ids).size).toBe(ids.length);
            const known = new Set(editor.doc.groups.map(({ id }) => id));
            for (const shape of editor.doc.shapes)
              expect(shape.group === null || known.has(shape.group)).toBe(true);
          }
          while (editor.history.canUndo) editor.history.undo();
          expect(diffLayout(first, editor.history.doc)).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('that are undone are no longer selected, and are again when they come back', () => {
    const editor = three();
    editor.double();
    const doubled = [...editor.selected];
    expect(doubled).toHaveLength(3);
    editor.history.undo();
    expect(editor.selected.size).toBe(0);
    editor.history.redo();
    expect([...editor.selected]).toEqual(doubled);
  });

  it('are moved with one box around them', () => {
    const editor = three();
    const before = unionBoxes(editor.chosen.map(shapeBox));
    editor.moveSelected({ x: 12, y: -4 });
    const after = unionBoxes(editor.chosen.map(shapeBox));
    expect([(after?.x ?? 0) - (before?.x ?? 0), (after?.y ?? 0) - (before?.y ?? 0)]).toEqual([12, -4]);
  });
});

describe('what is kept of undo', () => {
  it('leads from any state of a layout to any other one', () => {
    const ids = ['a', 'b', 'c', 'd', 'e'];
    const state = fc.record({
      shapes: fc.shuffledSubarray(ids, { minLength: 0 }),
      moved: fc.integer({ min: 0, max: 3 }),
      bleed: fc.integer({ min: 0, max: 2 }),
      grouped: fc.boolean(),
    });
    const docOf = ({
      shapes,
      moved,
      bleed,
      grouped,
    }: {
      shapes: string[];
      moved: number;
      bleed: number;
      grouped: boolean;
    }) => ({
      ...freshPage(400, 300),
      ...{
        name: 'L',
        bleed,
        groups: grouped ? [{ id: 'g', name: 'G', parent: null, locked: false, hidden: false }] : [],
      },
      shapes: shapes.map((id) => box(id, moved, 0, [], { group: grouped ? 'g' : null })),
    });
    fc.assert(
      fc.property(state, state, (one, other) => {
        const [from, to] = [docOf(one), docOf(other)];
        expect(applyChanges(from, diffLayout(from, to))).toEqual(to);
      }),
    );
  });
});
