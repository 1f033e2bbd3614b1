import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { LayoutData, LayoutInUse, LayoutSummary, MockupData, PatternForUse } from '$lib/contract/data';
import { done, fail, type Outcome } from '$lib/contract/failure';
import type { Address } from '$lib/contract/routes';
import { shapesOf } from '$lib/core/mockup/cut-shapes';
import {
  footprint,
  freshMockup,
  freshStanding,
  MOCKUP_LIMITS,
  photoMockup,
  type Mockup,
  type Standing,
} from '$lib/core/mockup/mockup';
import { cutSheet, type ObjectKind } from '$lib/core/mockup/objects';
import { fromPx } from '$lib/core/num/length';
import { colourFill, freshFill } from '$lib/core/recipe/fill';
import { freshPage, freshShape, patternFills, type Shape } from '$lib/core/recipe/layout';
import { STROKE_LIMITS } from '$lib/core/recipe/stroke';
import { layoutSvg } from '$lib/core/svg/layout';
import { block, place, recipe } from '../../../../tests/support/recipes';
import { toasts } from '../state/toasts.svelte';
import { MockupSession } from './session.svelte';

const [INK, DUSK] = ['#108020', '#30204a'] as const;
const art = recipe({
  slots: [{ id: 'ink', name: 'Ink', colour: INK }],
  motifs: [block('art', 40, 40)],
  placings: [place('art', 50, 50)],
});
const pattern = (id: string): PatternForUse => ({
  ...{ id, name: id, newest: 1, recipes: { 1: art }, faults: {} },
  ...{
    hasDraft: false,
    archivedAt: null,
    credit: { author: '', source: '', licence: '', attribution: false },
  },
  colourways: [{ id: 'dusk', name: 'Dusk', colours: { ink: { colour: DUSK } } }],
});
const data = (id: string, page: Partial<LayoutData>): LayoutData => ({
  ...freshPage(400, 300),
  ...{ id, projectId: 'p', projectName: 'P', name: id, version: 1, archivedAt: null },
  ...page,
});

/** The layouts that the project has, and the names that something else holds already. */
const studio = vi.hoisted(() => ({ layouts: new Map<string, unknown>(), taken: new Set<string>() }));
vi.mock('../state/api', () => ({
  call: (
    address: Address,
    { id = '', body: sent }: { id?: string; body?: { name: string } } = {},
  ): Promise<Outcome<unknown>> => {
    if (address === 'POST /projects/{id}/layouts') {
      if (studio.taken.has(sent!.name)) return Promise.resolve(fail('name_taken', 'It is taken.', 'name'));
      const made = `made ${studio.layouts.size}`;
      studio.layouts.set(made, data(made, sent as Partial<LayoutData>));
      return Promise.resolve(done({ id: made }));
    }
    if (address === 'GET /projects/{id}')
      return Promise.resolve(done({ layoutList: [...studio.layouts.values()] }));
    if (address === 'GET /layouts/{id}') {
      const layout = studio.layouts.get(id) as LayoutData | undefined;
      if (!layout) return Promise.resolve(fail('not_found', 'That layout is gone.'));
      const used = new Set(layout.shapes.flatMap(patternFills).map((fill) => fill.pattern));
      return Promise.resolve(done({ layout, patterns: [...used].map(pattern) }));
    }
    if (address === 'GET /patterns/{id}') return Promise.resolve(done({ ...pattern(id), recipe: art }));
    return Promise.resolve(done({ version: 2 }));
  },
}));

const opened = (body: Mockup): MockupSession => {
  const all = [...studio.layouts.values()] as LayoutData[];
  const used = all.map((layout): LayoutInUse => ({ layout, patterns: [pattern('waves')], pages: [] }));
  const stored: MockupData = {
    ...{ id: 'm', projectId: 'p', projectName: 'P', name: 'Kiosk', version: 1 },
    ...{ updatedAt: 0, archivedAt: null, stillAt: null },
    body,
  };
  return new MockupSession(stored, used, all as unknown as LayoutSummary[]);
};
const standing = (kind: ObjectKind, over: Partial<Standing> = {}): Standing => ({
  ...freshStanding('one', kind),
  ...over,
});
/** The cut sheet of an object as a layout of the project: its first part filled with waves, and a logo upon it. */
const cutLayout = (id: string, one: Standing, more: Shape[] = []): string => {
  const cut = cutSheet(one.object);
  if (!cut.ok) throw new Error(cut.message);
  let count = 0;
  const parts = shapesOf(cut.sheet, () => `${id} part ${(count += 1)}`);
  const shapes = parts.map((part) => ({ ...part, fills: [freshFill(`${part.id} fill`, 'waves')] }));
  studio.layouts.set(id, data(id, { object: one.object, shapes: [...shapes, ...more] }));
  return id;
};
const logo = (x: number, y: number): Shape =>
  freshShape({
    ...{ id: 'logo', name: 'Logo', form: { kind: 'ellipse' }, x, y, width: 60, height: 40 },
    fills: [colourFill('logo fill', { colour: '#c02020' })],
  });
const lastToast = (): string => toasts.list.at(-1)?.message ?? '';
const shapesShown = (session: MockupSession, one: Standing): readonly Shape[] =>
  session.editorOf(one)!.doc.shapes;

beforeEach(() => {
  studio.layouts.clear();
  studio.taken.clear();
});

describe('objects in a mock-up', () => {
  it('stand beside each other, apart and in the middle, each under a name of its own', () => {
    const session = opened(freshMockup());
    for (const kind of ['cup', 'box', 'cup'] as const) session.add(kind);
    session.double(session.body.objects[1]!.id);
    const { objects } = session.body;
    expect(new Set(objects.map(({ name }) => name)).size).toBe(4);
    const ends = objects
      .map(({ object, x }) => {
        const { left, right } = footprint(object);
        return { left: x + left, right: x + right };
      })
      .sort((one, other) => one.left - other.left);
    for (const [at, { left }] of ends.entries())
      if (at > 0) expect(left).toBeGreaterThan(ends[at - 1]!.right);
    expect(ends[0]!.left + ends.at(-1)!.right).toBeCloseTo(0, 0);
    // What was put there last is worked on; each is one step.
    expect(session.chosen).toBe(objects.at(-1));
    for (let steps = 0; steps < 4; steps += 1) session.history.undo();
    expect(session.body.objects).toEqual([]);
  });

  it('are so many at most, and a sentence says so whichever way more are asked for', () => {
    const session = opened(freshMockup());
    for (let at = 0; at < MOCKUP_LIMITS.objects; at += 1) session.add('board');
    const full = session.body;
    session.add('board');
    expect(lastToast()).toContain('at most 12 objects');
    session.double(full.objects[0]!.id);
    session.sideBySide(full.objects[0]!.id, [null, null]);
    expect(session.body).toBe(full);
    const photo = { asset: 'a', width: 800, height: 600, strokes: [] };
    const surfaces = opened(photoMockup(photo, 'one'));
    for (let at = 1; at <= MOCKUP_LIMITS.surfaces; at += 1) surfaces.addSurface();
    expect(surfaces.body.objects).toHaveLength(MOCKUP_LIMITS.surfaces);
    expect(lastToast()).toContain('at most 6 surfaces');
  });

  it('stand in a row of colourways in the place of the one, all with its layout', () => {
    const one = standing('cup', { x: 120, name: 'Cup' });
    const session = opened(freshMockup([{ ...one, layout: cutLayout('sheet', one) }]));
    const dusk = { id: 'dusk', name: 'Dusk', colours: {} };
    session.sideBySide('one', [null, dusk, dusk]);
    const row = session.body.objects;
    expect(row.map(({ name, colourway }) => [name, colourway])).toEqual([
      ['Cup, as it is', null],
      ['Cup, Dusk', 'dusk'],
      ['Cup, Dusk', 'dusk'],
    ]);
    expect(new Set(row.map(({ layout }) => layout))).toEqual(new Set(['sheet']));
    expect(row.reduce((sum, { x }) => sum + x, 0) / 3).toBeCloseTo(120, 9);
    const { left, right } = footprint(one.object);
    expect(row[1]!.x - row[0]!.x).toBeGreaterThan(right - left);
    // Each shows the page in its colourway.
    const inks = row.map(({ id }) => {
      const drawn = layoutSvg(session.pages.get(id)!.scene, {
        patterns: 'live',
        width: '400',
        height: '300',
      });
      return [INK, DUSK].filter((colour) => drawn.includes(colour));
    });
    expect(inks).toEqual([[INK], [DUSK], [DUSK]]);
  });
});

describe('looking at a mock-up', () => {
  it('is kept with it and is no step', () => {
    const session = opened(freshMockup([standing('mug')]));
    session.look({ ...session.body.camera, turn: 77 });
    session.change((body) => ({ ...body, light: 'flat' }));
    session.look({ ...session.body.camera, turn: 80 });
    session.history.undo();
    expect([session.body.light, session.body.camera.turn, session.history.canUndo]).toEqual([
      'window',
      80,
      false,
    ]);
    // While something is dragged, where one looks from waits.
    session.changeOne('one', (held) => ({ ...held, x: 4 }), true);
    session.look({ ...session.body.camera, turn: 5 });
    expect([session.body.camera.turn, session.history.inGesture]).toEqual([80, true]);
  });
});

describe('what an object shows', () => {
  it('is a new cut sheet of true size, all of its parts filled with the pattern that was pressed', async () => {
    const session = opened(freshMockup([standing('box')]));
    studio.taken.add('Kiosk: Gift box');
    await session.fillWith('reeds');
    const [one] = session.body.objects;
    const { doc } = session.editorOf(one!)!;
    const cut = cutSheet(one!.object);
    if (!cut.ok) throw new Error(cut.message);
    // An archived layout holds the first name.
    expect(doc.name).toBe('Kiosk: Gift box 2');
    expect(fromPx(doc.width, 'mm')).toBeCloseTo(cut.sheet.width, 6);
    expect(doc.shapes.map(({ name }) => name)).toEqual(cut.sheet.panels.map(({ name }) => name));
    for (const shape of doc.shapes) expect(patternFills(shape)).toMatchObject([{ pattern: 'reeds' }]);
  });

  it('comes along to another form of the same: parts by their names, and the logo as far from them', async () => {
    const one = standing('box');
    const parts = cutSheet(one.object);
    if (!parts.ok) throw new Error(parts.message);
    const id = cutLayout('sheet', one, [logo(200, 160)]);
    const session = opened(freshMockup([{ ...one, layout: id }]));
    const before = shapesShown(session, session.chosen!);
    session.changeOne('one', (held) => ({
      ...held,
      object: { ...held.object, numbers: { ...held.object.numbers, width: 140 } },
    }));
    await session.cut('one', null);
    const now = session.chosen!;
    expect(now.layout).not.toBe(id);
    const after = shapesShown(session, now);
    const named = (all: readonly Shape[], name: string): Shape => all.find((shape) => shape.name === name)!;
    const middle = ({ x, y, width, height }: Shape): number[] => [x + width / 2, y + height / 2];
    const name = parts.sheet.panels[0]!.name;
    const from = (all: readonly Shape[]): number[] => {
      const [there, upon] = [middle(named(all, name)), middle(named(all, 'Logo'))];
      return upon.map((at, axis) => at - there[axis]!);
    };
    for (const [axis, by] of from(after).entries()) expect(by).toBeCloseTo(from(before)[axis]!, 6);
    expect(named(after, 'Logo').fills).toMatchObject([{ colour: '#c02020' }]);
    for (const { name: part } of parts.sheet.panels)
      expect(named(after, part).fills).toMatchObject([{ pattern: 'waves' }]);
    const ids = (all: readonly Shape[]): string[] =>
      all.flatMap((shape) => [shape.id, ...shape.fills.map((fill) => fill.id)]);
    expect(ids(after).filter((held) => ids(before).includes(held))).toEqual([]);
    // The layout before stays in the project as it was.
    expect((studio.layouts.get(id) as LayoutData).shapes).toEqual(before);
  });

  it('is filled where it is selected; else in the place of what covers most; else where it is empty', async () => {
    const one = standing('box');
    const id = cutLayout('sheet', one, [logo(0, 0)]);
    const session = opened(freshMockup([{ ...one, layout: id }]));
    const editor = session.editor!;
    await session.fillWith('reeds');
    const shown = (): string[] => [
      ...new Set(editor.doc.shapes.flatMap(patternFills).map((fill) => fill.pattern)),
    ];
    expect(shown()).toEqual(['reeds']);
    editor.select(['logo']);
    await session.fillWith('waves');
    expect(shown()).toEqual(['reeds', 'waves']);
    editor.select([]);
    await session.fillWith('stones');
    expect(shown()).toEqual(['stones', 'waves']);
    editor.select(editor.doc.shapes.map((shape) => shape.id));
    editor.fillPlain('#ffffff');
    editor.select([]);
    await session.fillWith('reeds');
    expect(lastToast()).toContain('select a part of it first');
  });

  it('is another layout of the project, or one that is gone: then a sentence, and what was shown stays', async () => {
    const one = standing('cup');
    const session = opened(
      freshMockup([{ ...one, layout: cutLayout('sheet', one), slid: { x: 5, y: 0 }, colourway: 'dusk' }]),
    );
    studio.layouts.set('page', data('page', {}));
    await session.show('one', 'gone');
    expect([session.chosen!.layout, lastToast()]).toEqual(['sheet', 'That layout is gone.']);
    await session.show('one', 'page');
    expect(session.chosen).toMatchObject({ layout: 'page', slid: { x: 0, y: 0 }, colourway: null });
    expect(session.pages.has('one')).toBe(true);
    await session.show('one', null);
    expect([session.editor, session.pages.size]).toEqual([null, 0]);
  });

  it('needs an object first', async () => {
    const session = opened(freshMockup());
    await session.fillWith('reeds');
    expect(lastToast()).toContain('Put an object there first');
  });
});

describe('what lies in front on a photograph', () => {
  it('is painted stroke by stroke, so many at most, and taken back as one step', () => {
    const photo = { asset: 'a', width: 800, height: 600, strokes: [] };
    const session = opened(photoMockup(photo, 'one'));
    const stroke = { points: [10, 10, 60, 60], size: 20, softness: 0, strength: 1, mode: 'erase' as const };
    for (let at = 0; at <= STROKE_LIMITS.strokes; at += 1) session.paintFront(stroke);
    expect(session.body.photo!.strokes).toHaveLength(STROKE_LIMITS.strokes);
    expect(lastToast()).toContain('at most 200 are kept');
    session.clearFront();
    expect(session.body.photo!.strokes).toEqual([]);
    session.history.undo();
    expect(session.body.photo!.strokes).toHaveLength(STROKE_LIMITS.strokes);
  });
});
