import { nanoid } from 'nanoid';
import { SvelteMap } from 'svelte/reactivity';
import type { LayoutInUse, LayoutSummary, MockupData } from '$lib/contract/data';
import type { Colourway } from '$lib/core/colour/colourway';
import type { Point } from '$lib/core/geom/point';
import { carriedOver, shapesOf } from '$lib/core/mockup/cut-shapes';
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
import { patternsOn } from '$lib/core/mockup/patterns-on';
import type { PageOnSheet } from '$lib/core/mockup/on-sheet';
import { cutSheet, OBJECTS, type ObjectKind } from '$lib/core/mockup/objects';
import { freshGrid } from '$lib/core/mockup/photo';
import type { MaskStroke } from '$lib/core/recipe/mask';
import type { Problem } from '$lib/core/recipe/problem';
import { checkStrokes } from '$lib/core/recipe/stroke';
import type { Sheet } from '$lib/core/mockup/sheet';
import { toPx } from '$lib/core/num/length';
import { freeName } from '$lib/core/recipe/edit';
import { freshFill, type Fill } from '$lib/core/recipe/fill';
import { LayoutEditor } from '../layout/editor.svelte';
import { call } from '../state/api';
import { makeNamed } from '../state/make-named';
import { OpenDocument, type Doc } from '../state/open-document.svelte';
import type { SaveState } from '../state/saver.svelte';
import { toasts } from '../state/toasts.svelte';
import type { PageThere } from './draw-sheet';
import { layOf, pageOf } from './pages';

/** A mock-up that is open: what stands in it, and the layouts that are seen on it, each of which can be worked on here. */
export class MockupSession extends OpenDocument<Mockup, MockupData> {
  readonly id: string;
  readonly projectId: string;
  readonly editors = new SvelteMap<string, LayoutEditor>();
  /** The parts of the cut sheets that layouts are, by their names. */
  private readonly partsOf = new Map<string, readonly string[]>();
  /** The layouts of the project that can be shown. */
  layouts: readonly LayoutSummary[] = $state.raw([]);
  private wanted: string | null = $state(null);
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

  constructor(
    data: MockupData,
    used: readonly LayoutInUse[],
    layouts: readonly LayoutSummary[],
    mayChange = true,
  ) {
    const { id: own } = data;
    const api = {
      fetch: () => call('GET /mock-ups/{id}', { id: own }),
      save: (body: Doc<Mockup> & { base: number }) => call('PUT /mock-ups/{id}', { id: own, body }),
    };
    const ready = async (body: Mockup): Promise<void> => {
      for (const id of layoutsIn(body)) await this.open(id);
    };
    super(data, api, ready, 'mock-up');
    this.mayChange = mayChange;
    this.id = data.id;
    this.projectId = data.projectId;
    this.layouts = layouts;
    for (const one of used) this.put(one);
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
    history.adopt({ ...history.doc, body: { ...history.doc.body, camera } });
  }

  /** Another object beside those that stand there, on a cut sheet of its own. */
  add(kind: ObjectKind): void {
    if (!this.hasRoom()) return;
    const { objects } = this.body;
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
    if (!photo || !this.hasRoom()) return;
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
    if (!one || !this.hasRoom()) return;
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

  /** Whether so many more objects may stand there; where not, it is said. */
  private hasRoom(more = 1): boolean {
    const { surfaces, objects } = MOCKUP_LIMITS;
    const [most, what] = this.body.photo
      ? [surfaces, 'A photograph has at most {} surfaces; take another one for more.']
      : [objects, 'A mock-up has at most {} objects; make another one for more.'];
    const fits = this.body.objects.length + more <= most;
    if (!fits) toasts.problem(what.replace('{}', String(most)));
    return fits;
  }

  /** Stands an object there once in each of the colourways, side by side, seen by one camera. */
  sideBySide(id: string, colourways: readonly (Colourway | null)[]): void {
    const one = this.body.objects.find((held) => held.id === id);
    if (!one) return;
    if (!this.hasRoom(colourways.length - 1)) return;
    const { left, right } = footprint(one.object);
    const step = (right - left) * 1.28;
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

  /**
   * Makes a layout that is the cut sheet of an object, and shows it: all of its parts filled with a pattern where one is named,
   * else with all that the object shows now.
   */
  async cut(id: string, pattern: string | null): Promise<void> {
    const one = this.body.objects.find((held) => held.id === id);
    const cut = one && cutSheet(one.object);
    if (!one || !cut?.ok) return;
    const newId = (): string => nanoid(12);
    const bare = shapesOf(cut.sheet, newId);
    const before = {
      shapes: this.editorOf(one)?.doc.shapes ?? [],
      parts: one.layout === null ? [] : (this.partsOf.get(one.layout) ?? []),
    };
    const fill = (): Fill => ({ ...freshFill(newId(), pattern ?? ''), anchored: 'page' });
    const shapes =
      pattern === null
        ? carriedOver(before, bare, newId)
        : bare.map((shape) => ({ ...shape, fills: [fill()] }));
    const made = await makeNamed(
      `${this.doc.name}: ${one.name}`.slice(0, 72),
      this.layouts.map((layout) => layout.name),
      (name) =>
        call('POST /projects/{id}/layouts', {
          id: this.projectId,
          body: {
            ...{ name, measure: 'mm', ppi: 300, object: one.object, shapes },
            width: toPx(cut.sheet.width, 'mm'),
            height: toPx(cut.sheet.height, 'mm'),
          },
        }),
    );
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

  /** The layouts of the project, as they are now. */
  async refreshList(): Promise<void> {
    const found = await call('GET /projects/{id}', { id: this.projectId });
    if (found.ok) this.layouts = found.value.layoutList;
  }

  /** Opens a layout that is not open yet; true where it is. */
  async open(id: string): Promise<boolean> {
    if (this.editors.has(id)) return true;
    const found = await call('GET /layouts/{id}', { id });
    if (!found.ok) {
      toasts.problem(found.failure.message);
      return false;
    }
    this.put(found.value);
    return true;
  }
  private put({ layout, patterns, pages }: LayoutInUse): void {
    const editor = new LayoutEditor(layout, patterns, pages);
    editor.mayChange = this.mayChange;
    this.editors.set(layout.id, editor);
    const cut = layout.object && cutSheet(layout.object);
    if (cut?.ok)
      this.partsOf.set(
        layout.id,
        cut.sheet.panels.map(({ name }) => name),
      );
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
