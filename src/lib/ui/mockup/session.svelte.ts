import { nanoid } from 'nanoid';
import { SvelteMap } from 'svelte/reactivity';
import type { LayoutInUse, LayoutSummary, MockupData } from '$lib/contract/data';
import type { Colourway } from '$lib/core/colour/colourway';
import type { Point } from '$lib/core/geom/point';
import { shapesOf } from '$lib/core/mockup/cut-shapes';
import {
  centred,
  footprint,
  freshStanding,
  layoutsIn,
  MOCKUP_LIMITS,
  roomBeside,
  type Camera,
  type Mockup,
  type Standing,
} from '$lib/core/mockup/mockup';
import type { PageOnSheet } from '$lib/core/mockup/on-sheet';
import { cutSheet, OBJECTS, type ObjectKind } from '$lib/core/mockup/objects';
import { freshGrid } from '$lib/core/mockup/photo';
import type { MaskStroke } from '$lib/core/recipe/mask';
import type { Problem } from '$lib/core/recipe/problem';
import { checkStrokes } from '$lib/core/recipe/stroke';
import type { Sheet } from '$lib/core/mockup/sheet';
import { toPx } from '$lib/core/num/length';
import { freeName } from '$lib/core/recipe/edit';
import { freshFill } from '$lib/core/recipe/fill';
import { patternFills } from '$lib/core/recipe/layout';
import { LayoutEditor } from '../layout/editor.svelte';
import type { LayoutDoc } from '../layout/doc';
import { call } from '../state/api';
import { History } from '../state/history.svelte';
import { Saver, type SaveState } from '../state/saver.svelte';
import { toasts } from '../state/toasts.svelte';
import type { PageThere } from './draw-sheet';
import { layOf, pageOf } from './pages';

export type MockupDoc = { name: string; body: Mockup };

/** A mock-up that is open: what stands in it, and the layouts that are seen on it, each of which can be worked on here. */
export class MockupSession {
  readonly id: string;
  readonly projectId: string;
  readonly history: History<MockupDoc>;
  readonly saver: Saver<MockupDoc>;
  readonly editors = new SvelteMap<string, LayoutEditor>();
  /** The layouts of the project that can be shown. */
  layouts: readonly LayoutSummary[] = $state.raw([]);
  private wanted: string | null = $state(null);
  readonly doc = $derived.by(() => this.history.doc);
  readonly body = $derived.by(() => this.doc.body);
  /** What stands there: the same list while one only looks around. */
  private readonly objects = $derived.by(() => this.body.objects);
  /** The object that is worked on. */
  readonly chosen = $derived.by(
    () => this.body.objects.find(({ id }) => id === this.wanted) ?? this.body.objects[0] ?? null,
  );
  /** Its layout. */
  readonly editor = $derived.by(() => this.editorOf(this.chosen));
  private readonly made = new Map<string, { of: readonly unknown[]; page: PageThere }>();
  /** What each object shows, by its id. */
  readonly pages: ReadonlyMap<string, PageThere> = $derived.by(() => {
    const pages = new Map<string, PageThere>();
    for (const one of this.objects) {
      const page = this.pageOf(one);
      if (page) pages.set(one.id, page);
    }
    return pages;
  });

  constructor(data: MockupData, used: readonly LayoutInUse[], layouts: readonly LayoutSummary[]) {
    this.id = data.id;
    this.projectId = data.projectId;
    this.layouts = layouts;
    const doc = { name: data.name, body: data.body };
    this.history = new History(doc);
    this.saver = new Saver(doc, data.version, (next, _last, base) =>
      call('PUT', `/mock-ups/${data.id}`, { base, ...next }),
    );
    for (const { layout, patterns } of used) this.editors.set(layout.id, new LayoutEditor(layout, patterns));
  }

  /** How it stands with saving: of all that is worked on here, what needs a word most. */
  readonly saveState: SaveState = $derived.by(() => {
    const states = [this.saver.state, ...[...this.editors.values()].map(({ saver }) => saver.state)];
    const order = ['stale', 'failed', 'saving', 'pending'];
    return states.sort((one, other) => rank(order, one) - rank(order, other))[0] ?? { kind: 'saved' };
  });

  async flush(): Promise<boolean> {
    const all = await Promise.all([this.saver, ...this.savers].map((saver) => saver.flush()));
    return all.every(Boolean);
  }
  get clean(): boolean {
    return this.saver.clean && this.savers.every(({ clean }) => clean);
  }
  private get savers() {
    return [...this.editors.values()].map(({ saver }) => saver);
  }

  choose(id: string | null): void {
    this.wanted = id;
  }

  editorOf(one: Standing | null): LayoutEditor | null {
    return (one?.layout && this.editors.get(one.layout)) || null;
  }

  change(change: (body: Mockup) => Mockup, live = false): void {
    const from = live ? this.history.settled : this.history.doc;
    const next = { ...from, body: change(from.body) };
    if (live) this.history.live(next);
    else this.history.commit(next);
  }
  changeOne(id: string, change: (one: Standing) => Standing, live = false): void {
    this.change(
      (body) => ({ ...body, objects: body.objects.map((one) => (one.id === id ? change(one) : one)) }),
      live,
    );
  }
  /** Where one looks from belongs to the mock-up, but looking around is no step that one takes back. */
  look(camera: Camera): void {
    const { history } = this;
    if (history.inGesture) return;
    history.adopt({ ...history.doc, body: { ...history.doc.body, camera } }, (held) => ({
      ...held,
      body: { ...held.body, camera },
    }));
  }

  /** Another object beside those that stand there, on a cut sheet of its own. */
  async add(kind: ObjectKind): Promise<void> {
    const { objects } = this.body;
    if (objects.length >= MOCKUP_LIMITS.objects) {
      toasts.problem(`A mock-up has at most ${MOCKUP_LIMITS.objects} objects; make another one for more.`);
      return;
    }
    const name = freeName(
      OBJECTS[kind].label,
      objects.map((one) => one.name),
    );
    const fresh = freshStanding(nanoid(12), kind, name);
    const one = { ...fresh, x: roomBeside(objects, fresh.object) };
    this.change((body) => ({ ...body, objects: centred([...body.objects, one]) }));
    this.choose(one.id);
  }
  /** Another surface on the photograph, in its middle. */
  addSurface(): void {
    const { photo, objects } = this.body;
    if (!photo) return;
    if (objects.length >= MOCKUP_LIMITS.surfaces)
      return void toasts.problem(`A photograph has at most ${MOCKUP_LIMITS.surfaces} surfaces.`);
    const name = freeName(
      'Surface',
      objects.map((held) => held.name),
    );
    const one = { ...freshStanding(nanoid(12), 'board', name), grid: freshGrid(photo) };
    this.change((body) => ({ ...body, objects: [...body.objects, one] }));
    this.choose(one.id);
  }
  /** Paints what lies in front of the surfaces of a photograph. */
  paintFront(stroke: MaskStroke): void {
    const { photo } = this.body;
    if (!photo) return;
    const strokes = [...photo.strokes, stroke];
    const problems: Problem[] = [];
    checkStrokes(strokes, 'photo', problems);
    if (problems[0]) return void toasts.problem(problems[0].message);
    this.change((body) => ({ ...body, photo: { ...photo, strokes } }));
  }
  clearFront(): void {
    this.change((body) => (body.photo ? { ...body, photo: { ...body.photo, strokes: [] } } : body));
  }
  remove(id: string): void {
    this.change((body) => ({ ...body, objects: body.objects.filter((one) => one.id !== id) }));
  }
  /** The same object again beside it. */
  double(id: string): void {
    const one = this.body.objects.find((held) => held.id === id);
    if (!one || this.body.objects.length >= MOCKUP_LIMITS.objects) return;
    const names = this.body.objects.map(({ name }) => name);
    const copy = {
      ...one,
      id: nanoid(12),
      name: freeName(one.name, names),
      x: roomBeside(this.body.objects, one.object),
    };
    this.change((body) => ({ ...body, objects: centred([...body.objects, copy]) }));
    this.choose(copy.id);
  }

  /** Stands an object there once in each of the colourways, side by side, seen by one camera. */
  sideBySide(id: string, colourways: readonly (Colourway | null)[]): void {
    const one = this.body.objects.find((held) => held.id === id);
    if (!one) return;
    const others = this.body.objects.filter((held) => held.id !== id);
    const { left, right } = footprint(one.object);
    const step = (right - left) * 1.28;
    const room = MOCKUP_LIMITS.objects - others.length;
    if (colourways.length > room) {
      toasts.problem(
        `There is room for ${room} of them: a mock-up has at most ${MOCKUP_LIMITS.objects} objects.`,
      );
      return;
    }
    const row = colourways.map((way, at): Standing => ({
      ...one,
      id: at === 0 ? one.id : nanoid(12),
      name: `${one.name}, ${way?.name ?? 'as it is'}`.slice(0, 80),
      colourway: way?.id ?? null,
      x: one.x + (at - (colourways.length - 1) / 2) * step,
    }));
    this.change((body) => ({
      ...body,
      objects: body.objects.flatMap((held) => (held.id === id ? row : [held])),
    }));
  }

  /** Shows another layout of the project on an object, or none. */
  async show(id: string, layout: string | null): Promise<void> {
    if (layout !== null && !(await this.open(layout))) return;
    this.changeOne(id, (one) => ({ ...one, layout, slid: { x: 0, y: 0 }, colourway: null }));
  }

  /** Makes a layout that is the cut sheet of an object, all of its parts filled with a pattern where one is named, and shows it. */
  async cut(id: string, pattern: string | null): Promise<void> {
    const one = this.body.objects.find((held) => held.id === id);
    const cut = one && cutSheet(one.object);
    if (!one || !cut?.ok) return;
    const fill = (shape: string) => ({ ...freshFill(`${shape}f`, pattern ?? ''), anchored: 'page' as const });
    const shapes = shapesOf(cut.sheet, () => nanoid(12)).map((shape) =>
      pattern === null ? shape : { ...shape, fills: [fill(shape.id)] },
    );
    const name = freeName(
      `${this.doc.name}: ${one.name}`.slice(0, 72),
      this.layouts.map((layout) => layout.name),
    );
    const made = await call<{ id: string }>('POST', `/projects/${this.projectId}/layouts`, {
      ...{ name, measure: 'mm', ppi: 300, object: one.object, shapes },
      width: toPx(cut.sheet.width, 'mm'),
      height: toPx(cut.sheet.height, 'mm'),
    });
    if (!made.ok) return void toasts.problem(made.failure.message);
    await this.refreshList();
    await this.show(id, made.value.id);
  }

  /**
   * Puts a pattern onto the chosen object: into what is selected on it, in the place of the pattern that covers most of it,
   * or onto a new cut sheet where it shows nothing.
   */
  async fillWith(pattern: string): Promise<void> {
    const one = this.chosen;
    if (!one) return void toasts.problem('Put an object there first, then choose its pattern.');
    const editor = this.editorOf(one);
    if (!editor) return this.cut(one.id, pattern);
    if (editor.selected.size > 0) return editor.fillWith(pattern);
    const first = patternsOn(editor.doc)[0];
    if (first) return editor.exchangePattern(new Set(first.fills), pattern);
    const empty = editor.doc.shapes.filter(({ fills }) => fills.length === 0).map((shape) => shape.id);
    if (empty.length > 0) return editor.fillWith(pattern, new Set(empty));
    toasts.problem(`Nothing on “${editor.doc.name}” is filled with a pattern; select a part of it first.`);
  }

  sheetOf({ object }: Standing): Sheet | null {
    const cut = cutSheet(object);
    return cut.ok ? cut.sheet : null;
  }

  /** How the page of an object's layout lies on its sheet. */
  layOf(one: Standing): PageOnSheet | null {
    const editor = this.editorOf(one);
    return editor && layOf(one, editor.doc);
  }

  /** A place on an object's sheet (mm) on the page of its layout, px. */
  onPage(one: Standing, sheet: Point): Point | null {
    const lies = this.layOf(one);
    return lies && { x: toPx(sheet.x - lies.at.x, 'mm'), y: toPx(sheet.y - lies.at.y, 'mm') };
  }

  /** Takes over what was saved elsewhere, unless there is work of one's own under way: then the next save asks. */
  async refresh(version: number): Promise<void> {
    await this.saver.rest();
    if (version <= this.saver.version || !this.saver.clean || this.history.inGesture) return;
    const found = await call<MockupData>('GET', `/mock-ups/${this.id}`);
    if (!found.ok || !this.saver.clean) return;
    await this.take(found.value);
  }
  /** Saves one's own state over what was saved elsewhere. */
  keepMine({ name, body, version }: MockupData): void {
    this.saver.rebase({ name, body }, version);
  }
  /** Shows what was saved elsewhere; undo brings one's own back. */
  async takeTheirs(data: MockupData): Promise<void> {
    await this.take(data);
  }
  private async take({ name, body, version }: MockupData): Promise<void> {
    for (const id of layoutsIn(body)) await this.open(id);
    const doc = { name, body };
    this.history.commit(doc);
    this.saver.want(doc);
    this.saver.rebase(doc, version);
  }

  /** The layouts of the project, as they are now. */
  async refreshList(): Promise<void> {
    const found = await call<{ layoutList: LayoutSummary[] }>('GET', `/projects/${this.projectId}`);
    if (found.ok) this.layouts = found.value.layoutList;
  }

  /** Opens a layout that is not open yet; true where it is. */
  async open(id: string): Promise<boolean> {
    if (this.editors.has(id)) return true;
    const found = await call<LayoutInUse>('GET', `/layouts/${id}`);
    if (!found.ok) {
      toasts.problem(found.failure.message);
      return false;
    }
    this.editors.set(id, new LayoutEditor(found.value.layout, found.value.patterns));
    return true;
  }

  private pageOf(one: Standing): PageThere | null {
    const editor = this.editorOf(one);
    const lies = this.layOf(one);
    if (!editor || !lies) return null;
    const { doc, lookup, patterns } = editor;
    const of = [doc, lookup, one.colourway, lies.at.x, lies.at.y];
    const held = this.made.get(one.id);
    if (held?.of.every((part, at) => part === of[at])) return held.page;
    const page = pageOf(one, doc, lies.at, { lookup, patterns });
    this.made.set(one.id, { of, page });
    return page;
  }
}

const rank = (order: readonly string[], { kind }: SaveState): number => {
  const at = order.indexOf(kind);
  return at < 0 ? order.length : at;
};

/** A pattern that is on a layout, the fills that show it, and how much of the page their shapes cover, px². */
export type PatternOn = { pattern: string; fills: string[]; area: number };

/** The patterns on a layout, the one that covers most first. */
export function patternsOn({ shapes }: Pick<LayoutDoc, 'shapes'>): PatternOn[] {
  const found = new Map<string, PatternOn>();
  for (const shape of shapes)
    for (const { pattern, id } of patternFills(shape)) {
      const one = found.get(pattern) ?? { pattern, fills: [], area: 0 };
      found.set(pattern, {
        ...one,
        fills: [...one.fills, id],
        area: one.area + shape.width * shape.height,
      });
    }
  return [...found.values()].sort((one, other) => other.area - one.area);
}
