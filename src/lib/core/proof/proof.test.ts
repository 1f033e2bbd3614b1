import { describe, expect, it } from 'vitest';
import { block, dot, place, recipe } from '../../../../tests/support/recipes';
import { Inks, NO_INKS } from '../colour/inks';
import type { DrawnShape } from '../draw/list';
import { lowerShape } from '../draw/lower';
import { freshNumbers } from '../mockup/objects';
import { toPx } from '../num/length';
import {
  colourFill,
  coveringLayout,
  coveringPicture,
  freshFill,
  gradientFill,
  type Fill,
} from '../recipe/fill';
import { freshGradient } from '../recipe/gradient';
import { freshPage, freshShape, type Layout, type Shape } from '../recipe/layout';
import type { Recipe } from '../recipe/recipe';
import { patternLookup } from '../scene/library';
import type { ProofContext, ProofPattern } from './context';
import { freshProof, type ProofLimits } from './limits';
import { Proof } from './proof';
import type { ProofKind, ProofNote } from './note';

const mm = (length: number): number => toPx(length, 'mm');
const print = freshProof().print;

/** A pattern of the library as a proof knows it, at revision `newest`, with one recipe for all revisions. */
function library(
  given: Record<string, { recipe: Recipe } & Partial<ProofPattern>>,
  limits: Partial<ProofLimits> = {},
): ProofContext {
  const all = Object.entries(given).map(([id, { recipe: art, ...more }]) => {
    const pattern = {
      ...{ id, name: id, newest: 1, hasDraft: false, archivedAt: null },
      credit: { author: '', source: '', licence: '', attribution: false },
      ...more,
    };
    const recipes = Object.fromEntries(Array.from({ length: pattern.newest }, (_, at) => [at + 1, art]));
    return { ...pattern, recipes, colourways: [] };
  });
  return {
    limits: { ...print, ...limits },
    lookup: patternLookup(all),
    patterns: new Map(all.map((pattern) => [pattern.id, pattern])),
    inks: NO_INKS,
    press: null,
    object: null,
  };
}

/** Ink dots of 60 px on paper, far apart: nothing to say about it. */
const sound = recipe({
  ground: { kind: 'slot', slot: 'paper' },
  motifs: [dot('d', 60)],
  placings: [place('d', 50, 50)],
});

let count = 0;
const box = (
  x: number,
  y: number,
  width: number,
  height: number,
  fills: readonly Fill[],
  more: Partial<Shape> = {},
): Shape => {
  count += 1;
  const id = `s${count}`;
  return freshShape({
    ...{ id, name: `Shape ${id}`, form: { kind: 'rectangle', radius: 0 }, x, y, width, height, fills },
    ...more,
  });
};
const use = (pattern: string, more: Partial<ReturnType<typeof freshFill>> = {}): Fill => {
  count += 1;
  return { ...freshFill(`f${count}`, pattern), ...more };
};
const plain = (colour: string): Fill => {
  count += 1;
  return colourFill(`c${count}`, { colour });
};
const page = (shapes: Shape[], more: Partial<Layout> = {}): Layout => ({
  ...freshPage(1000, 800),
  ...{ bleed: mm(3), shapes },
  ...more,
});
const notesOf = (layout: Layout, context: ProofContext): ProofNote[] => new Proof().notes(layout, context);
const kinds = (layout: Layout, context: ProofContext): ProofKind[] =>
  notesOf(layout, context).map(({ kind }) => kind);

/** Words of some width: their outline is a rectangle, which is all that a proof looks at. */
const words = (text: string, x: number, y: number, fills: readonly Fill[]): Shape =>
  box(x, y, 200, 40, fills, {
    form: {
      ...{ kind: 'text', d: 'M0 0H200V40H0Z', width: 200, height: 40, text },
      ...{ font: 'bitter-700', size: 40, align: 'start' },
    },
  });

/** What is planted, and what it says: its kind, its figure worked by hand, and whether a mend clears it. */
const PLANTED: Record<
  string,
  { layout: Layout; context?: ProofContext; kind: ProofKind; figure: string; mends: boolean }
> = {
  // 600 px over 960 px of the page: 60 px to 96 CSS px, that is an inch.
  'a coarse picture': {
    layout: page([
      box(20, 100, 960, 480, [
        coveringPicture('p1', { asset: 'a', width: 600, height: 300 }, { width: 960, height: 480 }),
      ]),
    ]),
    ...{ kind: 'picture', figure: '60 ppi', mends: false },
  },
  // A block 0.4 px high at half its scale is 0.2 px: 0.15 pt.
  'a thin line in a pattern': {
    layout: page([box(100, 100, 300, 300, [use('thin', { scaleX: 0.5, scaleY: 0.5 })])]),
    context: library({
      thin: { recipe: recipe({ motifs: [block('b', 80, 0.4)], placings: [place('b', 50, 50)] }) },
    }),
    ...{ kind: 'line', figure: '0.15 pt', mends: true },
  },
  'a thin stroke': {
    layout: page([
      box(100, 100, 300, 300, [plain('#808080')], {
        stroke: { width: toPx(0.1, 'pt'), cap: 'butt', join: 'miter', dashes: [], fills: [plain('#000000')] },
      }),
    ]),
    ...{ kind: 'line', figure: '0.1 pt', mends: true },
  },
  // Blocks of 99.8 px in a unit of 100 px stand 0.2 px apart: 0.05 mm.
  'a narrow gap': {
    layout: page([box(100, 100, 300, 300, [use('near')])]),
    context: library({
      near: {
        recipe: recipe({
          ground: { kind: 'slot', slot: 'paper' },
          motifs: [block('b', 99.8, 60)],
          placings: [place('b', 50, 50)],
        }),
      },
    }),
    ...{ kind: 'gap', figure: '0.05 mm', mends: true },
  },
  'a page without bleed': {
    layout: page([box(-mm(3), 100, 200, 200, [plain('#204060')])], { bleed: 0 }),
    ...{ kind: 'bleed', figure: '0 of 3 mm', mends: true },
  },
  'a shape that stops at the cut': {
    layout: page([box(0, 100, 200, 200, [use('sound')])]),
    ...{ kind: 'bleed', figure: '3 mm short', mends: true },
  },
  'a shape in the margin': {
    layout: page([box(mm(2), 100, 200, 200, [plain('#204060')])], { margin: mm(5) }),
    ...{ kind: 'margin', figure: '2 of 5 mm', mends: true },
  },
  // Color.js 0.7.1 says 4.478 for WCAG 2.1.
  'text that is hard to read': {
    layout: page([words('Open', 100, 100, [plain('#777777')])]),
    ...{ kind: 'text', figure: '4.48 : 1', mends: true },
  },
  // Words nearly in the colour of the dots behind them.
  'text on a pattern': {
    layout: page([box(50, 50, 600, 300, [use('sound')]), words('Open', 100, 100, [plain('#182838')])]),
    ...{ kind: 'text', figure: '1.1 : 1', mends: false },
  },
  'a motif that is lost on its ground': {
    layout: page([box(100, 100, 300, 300, [use('sound', { colours: { ink: { colour: '#cccccc' } } })])]),
    ...{ kind: 'contrast', figure: '1.61 : 1', mends: false },
  },
  'a pattern that is held behind': {
    layout: page([box(100, 100, 300, 300, [use('sound', { held: 2 })])]),
    context: library({ sound: { recipe: sound, newest: 5 } }),
    ...{ kind: 'held', figure: '3 behind', mends: true },
  },
  'a pattern that is gone': {
    layout: page([box(100, 100, 300, 300, [use('gone')])]),
    ...{ kind: 'missing', figure: '', mends: false },
  },
  'a layout that is gone': {
    layout: page([
      box(100, 100, 300, 300, [
        coveringLayout('l1', 'gone', { width: 10, height: 10 }, { width: 300, height: 300 }),
      ]),
    ]),
    ...{ kind: 'missing', figure: '', mends: false },
  },
  'changes that are not published': {
    layout: page([box(100, 100, 300, 300, [use('sound')])]),
    context: library({ sound: { recipe: sound, hasDraft: true, newest: 4 } }),
    ...{ kind: 'draft', figure: 'revision 4', mends: false },
  },
  'a pattern of the archive': {
    layout: page([box(100, 100, 300, 300, [use('sound')])]),
    context: library({ sound: { recipe: sound, archivedAt: 1 } }),
    ...{ kind: 'archived', figure: '', mends: false },
  },
  'a credit that is due': {
    layout: page([box(100, 100, 300, 300, [use('sound')])]),
    context: library({
      sound: {
        recipe: sound,
        credit: { author: 'Oona Pell', source: '', licence: 'CC-BY-4.0', attribution: true },
      },
    }),
    ...{ kind: 'credit', figure: '', mends: false },
  },
  'a hidden shape': {
    layout: page([box(100, 100, 300, 300, [plain('#204060')], { hidden: true })]),
    ...{ kind: 'unseen', figure: '', mends: true },
  },
  'an empty shape': {
    layout: page([box(100, 100, 300, 300, [])]),
    ...{ kind: 'unseen', figure: '', mends: true },
  },
  'a fill that is not shown': {
    layout: page([box(100, 100, 300, 300, [plain('#204060'), { ...plain('#802020'), shown: false }])]),
    ...{ kind: 'unseen', figure: '', mends: true },
  },
  'a shape beyond the page': {
    layout: page([box(1200, 100, 300, 300, [plain('#204060')])]),
    ...{ kind: 'unseen', figure: '', mends: true },
  },
};

describe('a planted fault', () => {
  for (const [what, { layout, context = library({ sound: { recipe: sound } }), ...wanted }] of Object.entries(
    PLANTED,
  ))
    it(`is found, alone, with its figure${wanted.mends ? ', and its mend clears it' : ''}: ${what}`, () => {
      const notes = notesOf(layout, context);
      expect(
        notes.map(({ kind, figure, mend }) => ({
          ...{ kind, mends: mend !== null },
          figure: figure.replaceAll('\u00a0', ' '),
        })),
      ).toEqual([wanted]);
      const [note] = notes;
      if (note?.mend)
        expect(kinds({ ...layout, ...note.mend.change(layout, note.places) }, context)).toEqual([]);
    });
});

describe('a proof', () => {
  const context = library({ sound: { recipe: sound } });

  it('has nothing to say of a sound layout', () => {
    const layout = page(
      [
        box(-mm(3), -mm(3), 1000 + mm(6), 800 + mm(6), [use('sound')]),
        box(100, 100, 300, 100, [plain('#ffffff')]),
        words('Open', 120, 110, [plain('#102030')]),
        box(500, 300, 100, 100, [use('sound', { ground: { kind: 'none' } })]),
      ],
      { margin: mm(5) },
    );
    expect(notesOf(layout, context)).toEqual([]);
  });

  it('says once what is so at many places, and mends all of them in one step', () => {
    const layout = page(
      Array.from({ length: 12 }, (_, at) => box(80 * at + 10, 100, 60, 60, [use('sound', { held: 1 })])),
    );
    const held = library({ sound: { recipe: sound, newest: 2 } });
    const notes = notesOf(layout, held);
    expect(notes.map(({ kind, places }) => [kind, places.length])).toEqual([['held', 12]]);
    const mended = notes[0]!.mend!.change(layout, notes[0]!.places);
    expect(kinds({ ...layout, ...mended }, held)).toEqual([]);
  });

  it('shows the worst figure of many, and mends each by its own measure', () => {
    const thin = (scale: number): Fill => use('thin', { scaleX: scale, scaleY: scale });
    const context = library({
      thin: { recipe: recipe({ motifs: [block('b', 80, 0.4)], placings: [place('b', 50, 50)] }) },
    });
    const strokes = [0.2, 0.05, 0.1].map((width, at) =>
      box(100 + 200 * at, 100, 150, 150, [plain('#808080')], {
        stroke: {
          width: toPx(width, 'pt'),
          cap: 'butt',
          join: 'miter',
          dashes: [],
          fills: [plain('#000000')],
        },
      }),
    );
    const layout = page([
      ...strokes,
      box(100, 400, 150, 150, [thin(0.5)]),
      box(300, 400, 150, 150, [thin(0.4)]),
    ]);
    const notes = notesOf(layout, context);
    expect(notes.map(({ figure, places }) => [figure.replaceAll('\u00a0', ' '), places.length])).toEqual([
      ['from 0.05 pt', 3],
      ['0.15 pt', 1],
      ['0.12 pt', 1],
    ]);
    const mended = notes.reduce(
      (held, note) => ({ ...held, ...note.mend!.change(held, note.places) }),
      layout,
    );
    expect(kinds(mended, context)).toEqual([]);
  });

  it('carries a shape on beyond the cut while its pattern stays where it lay', () => {
    const layout = page([box(0, 0, 200, 200, [use('sound', { offset: { x: 7, y: 3 } })])]);
    const [note] = notesOf(layout, context);
    const [shape] = note!.mend!.change(layout, note!.places).shapes;
    const bleed = mm(3);
    expect([shape!.x, shape!.y, shape!.width, shape!.height].map((side) => Math.round(side * 100))).toEqual(
      [-bleed, -bleed, 200 + bleed, 200 + bleed].map((side) => Math.round(side * 100)),
    );
    const [fill] = shape!.fills;
    if (fill?.kind !== 'pattern') throw new Error('The fill is gone.');
    expect(shape!.x + fill.anchor.x + fill.offset.x).toBeCloseTo(7, 6);
    expect(shape!.y + fill.anchor.y + fill.offset.y).toBeCloseTo(3, 6);
  });

  it('looks at layouts that lie on a shape at the size at which they lie there', () => {
    const art = { motifs: [block('b', 80, 1)], placings: [place('b', 50, 50)] };
    const base = library({
      thin: {
        recipe: recipe(art),
        newest: 2,
        credit: { author: 'Oona Pell', source: '', licence: 'x', attribution: true },
      },
    });
    const photo = coveringPicture('np', { asset: 'a', width: 900, height: 450 }, { width: 200, height: 100 });
    const stroke = {
      width: 1,
      cap: 'butt' as const,
      join: 'miter' as const,
      dashes: [],
      fills: [plain('#000000')],
    };
    const inner = page(
      [
        box(10, 10, 100, 100, [{ ...use('thin'), held: 1 } as Fill]),
        box(120, 10, 200, 100, [photo], { stroke }),
      ],
      { width: 400, height: 200 },
    );
    const pages = new Map([['inner', inner]]);
    const lookup = Object.assign((fill: Parameters<ProofContext['lookup']>[0]) => base.lookup(fill), {
      pages,
    });
    const context = { ...base, lookup };
    // By itself it is sound but for what is held and due: 1 px are 0.75 pt, 900 px over 200 are 432 ppi.
    expect(notesOf(inner, context).map(({ kind }) => kind)).toEqual(['held', 'credit']);
    const lies = (scale: number): ProofNote[] => {
      const fill = { ...coveringLayout('nl', 'inner', inner, inner), scaleX: scale, scaleY: scale };
      return notesOf(page([box(50, 50, 400, 200, [fill])]), context);
    };
    expect(lies(1).map(({ kind }) => kind)).toEqual(['held', 'credit']);
    // At a quarter lines of 1 px are 0.1875 pt; at four times the picture has 108 ppi.
    expect(lies(0.25).map(({ kind, figure }) => [kind, figure.replaceAll('\u00a0', ' ')])).toEqual([
      ['line', '0.19 pt'],
      ['line', '0.19 pt'],
      ['held', '1 behind'],
      ['credit', ''],
    ]);
    const large = lies(4);
    expect(large.map(({ kind, figure }) => [kind, figure.replaceAll('\u00a0', ' ')])).toEqual([
      ['picture', '108 ppi'],
      ['held', '1 behind'],
      ['credit', ''],
    ]);
    expect(
      large.every(({ mend, places }) => mend === null && places.every(({ fill }) => fill === 'nl')),
    ).toBe(true);
  });

  it('knows what lies below: nearest first, through what is clear, not through pictures or blends', () => {
    const dark = plain('#101010');
    const over = (below: Shape[]): ProofKind[] =>
      kinds(page([...below, words('Open', 120, 110, [plain('#202020')])]), context);
    expect(over([box(100, 100, 300, 100, [plain('#ffffff')])])).toEqual([]);
    expect(over([box(100, 100, 300, 100, [dark])])).toEqual(['text']);
    // White over dark: only the nearer one is seen. A smaller white patch leaves some of the words on the dark.
    expect(over([box(100, 100, 300, 100, [dark]), box(110, 105, 250, 80, [plain('#ffffff')])])).toEqual([]);
    expect(over([box(100, 100, 300, 100, [dark]), box(150, 105, 50, 80, [plain('#ffffff')])])).toEqual([
      'text',
    ]);
    expect(over([box(100, 100, 300, 100, [{ ...dark, blend: 'multiply' }])])).toEqual([]);
    const fade = {
      ...{ kind: 'linear' as const, from: { x: 0, y: 0 }, to: { x: 1, y: 0 } },
      stops: [
        { at: 0, colour: '#ffffff' as const, opacity: 1 },
        { at: 1, colour: '#202020' as const, opacity: 1 },
      ],
    };
    expect(over([box(100, 100, 300, 100, [gradientFill('g', fade as never)])])).toEqual(['text']);
  });

  it('takes the colours of the use, not those of the pattern, and keeps quiet where motif and ground are one', () => {
    const blue = use('sound', { ground: { kind: 'colour', colour: '#102030' } });
    expect(kinds(page([box(100, 100, 300, 300, [blue])]), context)).toEqual([]);
    const near = use('sound', { ground: { kind: 'colour', colour: '#203040' } });
    expect(kinds(page([box(100, 100, 300, 300, [near])]), context)).toEqual(['contrast']);
  });

  it('finds a credit on the page by the author’s name, in any case', () => {
    const due = library({
      sound: {
        recipe: sound,
        credit: { author: 'Oona Pell', source: '', licence: 'CC-BY-4.0', attribution: true },
      },
    });
    const filled = box(100, 100, 300, 300, [use('sound')]);
    const text = words('Pattern: OONA PELL', 500, 500, [plain('#102030')]);
    expect(kinds(page([filled, text]), due)).toEqual([]);
    expect(kinds(page([filled, { ...text, hidden: true }]), due)).toContain('credit');
  });

  it('counts motifs that are drawn too often, and only within the page', () => {
    // A unit of 1 px over 500 × 400 px of page: 200,000 motifs, however far the shape reaches beyond it.
    const tiny = use('sound', { scaleX: 0.01, scaleY: 0.01 });
    const few = library({ sound: { recipe: sound } }, { line: 0, gap: 0, bleed: 0 });
    const [note] = notesOf(page([box(500, 400, 50_000, 50_000, [tiny])], { bleed: 0 }), few);
    expect(note?.kind).toBe('copies');
    const copies = Number(note!.figure.replaceAll(/[^0-9]/g, ''));
    expect(copies).toBeGreaterThan(200_000);
    expect(copies).toBeLessThan(203_000);
  });

  it('looks for nothing where a limit is 0, and by other limits for the screen', () => {
    const thin = library(
      { thin: { recipe: recipe({ motifs: [block('b', 80, 0.1)], placings: [place('b', 50, 50)] }) } },
      { line: 0 },
    );
    expect(kinds(page([box(100, 100, 300, 300, [use('thin')])]), thin)).toEqual([]);
    const picture = coveringPicture(
      'p9',
      { asset: 'a', width: 400, height: 400 },
      { width: 300, height: 300 },
    );
    const layout = page([box(100, 100, 300, 300, [picture])], { bleed: 0 });
    // 128 ppi: coarse in print, less than two pixels to a px on a screen.
    const weights = (limits: ProofLimits): string[] =>
      notesOf(layout, { ...context, limits }).map(({ weight }) => weight);
    expect(weights(print)).toEqual(['wrong']);
    expect(weights(freshProof().screen)).toEqual(['look']);
  });

  // Once a mend went through all shapes for each of its places: at 3,000 of them nine million looks.
  it('mends thousands of places in one pass over the shapes', () => {
    const context = library({ sound: { recipe: sound, newest: 2 } });
    const shapes = Array.from({ length: 3000 }, () => box(100, 100, 60, 60, [use('sound', { held: 1 })]));
    const layout = page(shapes);
    const [note] = notesOf(layout, context);
    expect(note!.places).toHaveLength(3000);
    let looked = 0;
    const watched = {
      ...layout,
      shapes: new Proxy(layout.shapes, {
        get: (all, key) => {
          if (typeof key === 'string' && /^\d+$/.test(key)) looked += 1;
          return Reflect.get(all, key) as unknown;
        },
      }),
    };
    const mended = note!.mend!.change(watched, note!.places);
    expect(mended.shapes.every(({ fills }) => fills[0]?.kind === 'pattern' && fills[0].held === null)).toBe(
      true,
    );
    expect(looked).toBeLessThan(2 * shapes.length);
  });

  it('says whether a pattern closes round an object, and closes it where it can', () => {
    const round = (kind: 'label' | 'cup', panel: string): [Layout, ProofContext] => {
      const wall = box(0, 0, 900, 300, [use('sound', { anchored: 'page' })], { name: panel });
      const object = { kind, numbers: freshNumbers(kind) };
      return [page([wall], { bleed: 0 }), { ...library({ sound: { recipe: sound } }, { bleed: 0 }), object }];
    };
    const [label, context] = round('label', 'Label');
    const notes = notesOf(label, context);
    expect(notes.map(({ kind }) => kind)).toEqual(['joint']);
    expect(notes[0]!.mend!.label).toMatch(/^Close it with \d+ repeats$/);
    expect(kinds({ ...label, ...notes[0]!.mend!.change(label, notes[0]!.places) }, context)).toEqual([]);
    // Flat art on a cone meets itself at an angle.
    const cup = notesOf(...round('cup', 'Wall'));
    expect(cup.map(({ kind, figure, mend }) => [kind, figure, mend])).toEqual([
      ['joint', 'closes at no scale', null],
    ]);
  });

  it('says what a press makes of colours, and where inks are not printed as they look', () => {
    const inks = new Inks([
      { hex: '#57213f', name: 'Plum', ink: { name: 'Plum', tint: 1, overprint: false } },
    ]);
    const press = {
      inkLimit: 300,
      view: {
        of: (hex: string) => ({ ink: hex === '#000000' ? 3.4 : 1, delta: hex === '#0000ff' ? 21.4 : 0 }),
      },
    };
    const context = { ...library({ sound: { recipe: sound } }), inks, press };
    const stops = { colour: '#57213f' };
    const blended = { ...plain('#e0b040'), blend: 'screen' as const };
    const shapes = [
      box(100, 100, 60, 60, [plain('#0000ff')]),
      box(200, 100, 60, 60, [plain('#000000')]),
      box(300, 100, 60, 60, [plain('#57213f')]),
      box(300, 130, 60, 60, [blended]),
      box(100, 300, 60, 60, [gradientFill('g', freshGradient(stops, { colour: '#e0b040' }))]),
      box(200, 300, 60, 60, [gradientFill('g', freshGradient(stops, { colour: '#ffffff' }))]),
    ];
    const found = (of: ProofContext): unknown[] =>
      notesOf(page(shapes), of)
        .filter(({ kind }) => ['ink', 'inks', 'gamut'].includes(kind))
        .map(({ kind, weight, figure, places }) => [
          ...[kind, weight, figure],
          places.map(({ shape }) => shapes.findIndex(({ id }) => id === shape)),
        ]);
    expect(found(context)).toEqual([
      ['inks', 'wrong', '', [4]],
      ['ink', 'wrong', '340\u00a0%', [1]],
      ['inks', 'look', 'screen', [3]],
      ['gamut', 'look', 'ΔE 21.4', [0]],
    ]);
    // On a screen there are neither.
    expect(found({ ...context, inks: NO_INKS, press: null })).toEqual([]);
  });

  it('looks anew only at what changed: a shape that stayed keeps its findings', () => {
    const proof = new Proof();
    const shapes = [
      box(100, 100, 60, 60, [use('sound', { held: 1 })]),
      box(300, 100, 60, 60, [use('sound')]),
    ];
    const held = library({ sound: { recipe: sound, newest: 2 } });
    const asked: string[] = [];
    const lookup: ProofContext['lookup'] = (fill) => {
      asked.push(fill.id);
      return held.lookup(fill);
    };
    const drawn = new Map<string, DrawnShape>();
    const look = (layout: Layout, context: ProofContext): ProofNote[] => {
      asked.length = 0;
      return proof.notes(layout, context, (shape) => {
        const known = drawn.get(shape.id) ?? lowerShape(shape, held.lookup);
        drawn.set(shape.id, known);
        return known;
      });
    };
    const once = { ...held, lookup };
    const first = look(page(shapes), once);
    // Each fill is asked for on its shape, and for what is due on the page.
    expect(asked).toHaveLength(4);
    const moved = page([shapes[0]!, { ...shapes[1]!, x: 400 }]);
    expect(look(moved, once).map(({ key }) => key)).toEqual(first.map(({ key }) => key));
    expect(asked).toHaveLength(3);
    look(moved, { ...once, limits: { ...once.limits, line: 1 } });
    expect(asked).toHaveLength(4);
  });
});
