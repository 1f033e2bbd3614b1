import { SvelteMap } from 'svelte/reactivity';
import type { LayoutData, LayoutInUse, PageForUse, PatternForUse } from '$lib/contract/data';
import { IN_ITSELF, nestingFault } from '$lib/core/draw/nested';
import { done } from '$lib/contract/failure';
import type { ShapeForm } from '$lib/core/geom/shapes';
import type { Point } from '$lib/core/geom/point';
import { isPlaced, type Fill, type PatternFill, type PlacedFill } from '$lib/core/recipe/fill';
import { heldShapes, leadingFill, withFill, type Shape } from '$lib/core/recipe/layout';
import type { Colourway } from '$lib/core/colour/colourway';
import type { Tint } from '$lib/core/colour/tint';
import { freeName } from '$lib/core/recipe/edit';
import { carried } from '$lib/core/recipe/merge-layouts';
import { followColourway, followRecipe } from '$lib/core/recipe/links';
import type { Recipe } from '$lib/core/recipe/recipe';
import { shownTints } from '$lib/core/recipe/recolour';
import { moveBy, type TransformScope } from '$lib/core/recipe/transform';
import { patternLookup, shownRevision } from '$lib/core/scene/library';
import { call } from '../state/api';
import { FONTS } from '../state/fonts';
import { Hand } from '../state/hand.svelte';
import { History } from '../state/history.svelte';
import type { KnownLinks } from '../state/links';
import { Saver } from '../state/saver.svelte';
import { sayLookOn } from '../state/look-on';
import { toasts } from '../state/toasts.svelte';
import { keepUndo, recallUndo } from '../state/undo-store';
import { applyChanges, changeShapes, diffLayout, docOf, type LayoutDoc } from './doc';
import { Follower } from './follower';
import { keepLocked, sayLocked } from './locks';
import { Together } from './together.svelte';
import type { GradientPlace } from '$lib/core/recipe/gradient';
import type { TextNumbers } from './text';

export type Tool = 'select' | ShapeForm['kind'] | 'line' | 'pen' | 'freehand' | 'brush' | 'text';

const STEPS = { diff: diffLayout, apply: applyChanges };

const heldCount = (doc: LayoutDoc): number =>
  [...doc.shapes, ...doc.groups].filter(({ locked }) => locked).length;

/** A layout that is open: its document as it is shown and saved, what is selected, and what of it is worked on. */
export class LayoutSession {
  readonly history: History<LayoutDoc>;
  readonly saver: Saver<LayoutDoc>;
  readonly together: Together;
  readonly id: string;
  readonly projectId: string;
  /** Patterns that fills here use, with the recipes that they show. */
  readonly patterns: SvelteMap<string, PatternForUse>;
  /** The layouts that lie in it, and in those. */
  readonly pages: SvelteMap<string, PageForUse>;
  private wanted: ReadonlySet<string> = $state.raw(new Set());
  /** The ids of the selected shapes. One that is undone is selected again when it comes back. */
  readonly selected: ReadonlySet<string> = $derived.by(() => {
    if (this.wanted.size === 0) return this.wanted;
    const here = new Set(this.history.doc.shapes.map(({ id }) => id));
    const found = [...this.wanted].filter((id) => here.has(id));
    return found.length === this.wanted.size ? this.wanted : new Set(found);
  });
  scope: TransformScope = $state('shape');
  readonly hand = new Hand<Tool>('select', [], ['brush']);
  /** True while the points of the one selected path are edited. */
  editingPoints = $state(false);
  /** What was changed about files that were brought in, under the ids of their shapes and pictures. */
  readonly cameIn = new SvelteMap<string, { file: string; notes: readonly string[] }>();
  protected lastFill: Fill | null = null;
  /** While a mask is painted: whose. */
  painting: 'fill' | 'shape' | null = $state(null);
  /** What the next text is set in. */
  textNumbers: TextNumbers = $state.raw({ font: FONTS[0]?.id ?? '', size: 0, align: 'start' });
  /** The gradient that a panel is open for: its line lies on the stage. */
  steered: GradientPlace | null = $state(null);

  /** The present colours of palettes, where they changed since the layout was loaded. */
  links: KnownLinks = $state.raw(new Map());
  private readonly follower = $derived.by(() => new Follower(this.links));

  /** The document as it looks now. Changes are made to `history.doc`, which keeps the colours as they were saved. */
  readonly doc = $derived.by(() => this.follower.doc(this.history.doc));
  readonly lookup = $derived.by(() =>
    patternLookup(
      this.follower.patterns(this.patterns.values()),
      new Map([...this.pages].map(([id, page]) => [id, this.follower.doc(page)])),
    ),
  );
  readonly chosen = $derived.by(() => this.doc.shapes.filter((shape) => this.selected.has(shape.id)));
  /** Whether a shape's fills are worked on or those of its stroke. */
  part: 'fill' | 'stroke' = $state('fill');
  /** Which fill is worked on, counted from the top; `null` is the leading one of each shape. */
  layer: number | null = $state(null);
  /** The selected shape where there is just one. */
  readonly single = $derived.by(() => (this.chosen.length === 1 ? (this.chosen[0] ?? null) : null));

  /** Sentences for shapes of this layout that are stored and cannot be read. */
  readonly damaged: readonly string[];
  /** Whether whoever has it open may change it. */
  mayChange = true;

  constructor(data: LayoutData, patterns: readonly PatternForUse[], pages: readonly PageForUse[] = []) {
    this.id = data.id;
    this.damaged = data.faults ?? [];
    this.projectId = data.projectId;
    const doc = docOf(data);
    this.textNumbers = { ...this.textNumbers, size: Math.round(Math.max(doc.width, doc.height) / 20) };
    this.history = new History(doc, (before, wanted) => this.guarded(before, wanted), carried);
    this.patterns = new SvelteMap(patterns.map((pattern) => [pattern.id, pattern]));
    this.pages = new SvelteMap(pages.map((page) => [page.id, page]));
    this.saver = new Saver(
      doc,
      data.version,
      (next, last, version) => {
        const changes = diffLayout(last, next);
        // What others did, taken back into an older state, may come to just what is stored.
        if (changes.length === 0) return Promise.resolve(done({ version }));
        return call('POST /layouts/{id}/changes', { id: data.id, body: { base: version, changes } });
      },
      (failure) => this.together.reconcile(failure),
    );
    this.together = new Together(this);
  }

  /** Brings the steps back that were kept in this tab; in the browser only. */
  recallUndo(): void {
    recallUndo(this.id, this.saver.version, this.history, STEPS);
  }

  /** What becomes of a change: locked shapes stay as they are, and it is said. */
  private guarded(before: LayoutDoc, wanted: LayoutDoc): LayoutDoc {
    if (!this.mayChange) {
      sayLookOn('layout');
      return before;
    }
    const { doc, refused } = keepLocked(before, wanted);
    if (refused.length > 0) toasts.problem(sayLocked(refused), 'unlock');
    else if (heldCount(doc) < heldCount(before)) toasts.settled('unlock');
    return doc;
  }

  select(ids: Iterable<string>): void {
    const before = this.chosen[0];
    this.lastFill = (before && this.activeOf(before)) ?? this.lastFill;
    this.wanted = new Set(ids);
    if (this.wanted.size > 0) toasts.settled('selection');
    this.layer = null;
    this.part = 'fill';
    this.painting = null;
    this.editingPoints = false;
  }

  /** Adds one to the selection or takes it out. */
  toggle(id: string): void {
    const next = new Set(this.selected);
    if (!next.delete(id)) next.add(id);
    this.wanted = next;
    this.layer = null;
  }

  /** Selects a shape and works on one of its fills, or of its stroke's. */
  workOn(shape: Shape, fillId: string): void {
    this.select([shape.id]);
    this.part = shape.fills.some(({ id }) => id === fillId) ? 'fill' : 'stroke';
    const stack = this.stackOf(shape);
    this.layer = stack.length - 1 - stack.findIndex(({ id }) => id === fillId);
  }

  /** The stack of fills that is worked on: the shape's, or its stroke's. */
  stackOf(shape: Shape): readonly Fill[] {
    return this.part === 'stroke' && shape.stroke ? shape.stroke.fills : shape.fills;
  }

  protected withStack(shape: Shape, fills: readonly Fill[]): Shape {
    return this.part === 'stroke' && shape.stroke
      ? { ...shape, stroke: { ...shape.stroke, fills } }
      : { ...shape, fills };
  }

  /** The fill of a shape that is worked on. */
  activeOf(shape: Shape): Fill | null {
    const fills = this.stackOf(shape);
    return this.layer === null ? leadingFill({ fills }) : (fills[fills.length - 1 - this.layer] ?? null);
  }

  /** The pattern in use that is worked on on a shape, if it is one. */
  activePattern(shape: Shape): PatternFill | null {
    const fill = this.activeOf(shape);
    return fill?.kind === 'pattern' ? fill : null;
  }

  /** Changes the selected shapes (or `ids`) as one step, or as part of a gesture with `live`. */
  change(change: (shape: Shape) => Shape, options: { live?: boolean; ids?: ReadonlySet<string> } = {}): void {
    const from = options.live ? this.history.settled : this.history.doc;
    const next = changeShapes(from, options.ids ?? this.selected, change);
    if (options.live) this.history.live(next);
    else this.history.commit(next);
  }

  /** Moves the selected shapes, what is worked on in them, or both, as the handles do. */
  moveSelected(by: Point, live = false): void {
    this.change((shape) => moveBy(shape, this.scope, by, this.activeOf(shape)?.id), { live });
  }

  /** Keeps the steps for when this layout is opened again in this tab, once all is saved. */
  keepUndo(): void {
    const keep = (): void => keepUndo(this.id, this.saver.version, this.history, STEPS);
    if (this.saver.clean) keep();
    else void this.saver.flush().then((saved) => saved && keep());
  }

  protected readonly lockedTest = $derived.by(() => heldShapes(this.doc, 'locked'));

  isLocked(id: string): boolean {
    return this.doc.shapes.some((shape) => shape.id === id && this.lockedTest(shape));
  }

  /** Changes the fill that is worked on of each selected shape. */
  changeActive(change: (fill: Fill, shape: Shape) => Fill, live = false, ids?: ReadonlySet<string>): void {
    this.change(
      (shape) => {
        const active = this.activeOf(shape);
        return active ? withFill(shape, active.id, (fill) => change(fill, shape)) : shape;
      },
      { live, ...(ids ? { ids } : {}) },
    );
  }

  /** Changes the patterns that are worked on. */
  changeFill(change: (fill: PatternFill) => PatternFill, live = false): void {
    this.changeActive((fill) => (fill.kind === 'pattern' ? change(fill) : fill), live);
  }

  /** Changes the patterns and pictures that are worked on. */
  changePlaced(change: (fill: PlacedFill, shape: Shape) => PlacedFill, live = false): void {
    this.changeActive((fill, shape) => (isPlaced(fill) ? change(fill, shape) : fill), live);
  }

  /** Changes the page or its name. */
  changePage(page: Partial<Omit<LayoutDoc, 'shapes'>>, live = false): void {
    const next = { ...this.history.settled, ...page };
    if (live) this.history.live(next);
    else this.history.commit(next);
  }

  /** Takes in what was saved elsewhere, up to a version at least. */
  refreshLayout(version?: number): Promise<void> {
    return this.together.refresh(version);
  }

  /** Asks the server for the newest revisions of the patterns in use; publishing elsewhere then shows here. */
  async refreshPatterns(): Promise<void> {
    const fresh = await call('GET /layouts/{id}', { id: this.id });
    if (fresh.ok) this.bringInUse(fresh.value);
  }

  /** Brings at hand what a layout shows. */
  bringInUse({ patterns, pages }: Pick<LayoutInUse, 'patterns' | 'pages'>): void {
    for (const pattern of patterns) this.patterns.set(pattern.id, pattern);
    for (const page of pages) this.pages.set(page.id, page);
  }

  /** Brings a layout at hand that is to lie in this one, with all that it shows; what cannot lie here is told. */
  protected async loadPage(id: string): Promise<PageForUse | null> {
    const found = await call('GET /layouts/{id}', { id });
    if (!found.ok) {
      toasts.problem(found.failure.message);
      return null;
    }
    const { layout, patterns, pages } = found.value;
    const all = new Map([...pages, layout].map((page) => [page.id, page]));
    const wrong = id === this.id || all.has(this.id) ? IN_ITSELF : nestingFault(id, all);
    if (wrong !== null) {
      toasts.problem(wrong);
      return null;
    }
    this.bringInUse({ patterns, pages: [...all.values()] });
    return layout;
  }

  /** Shows a pattern with another recipe in the place of one of its revisions, on this view alone. */
  showRecipe(id: string, revision: number, recipe: Recipe): void {
    const held = this.patterns.get(id);
    if (held) this.patterns.set(id, { ...held, recipes: { ...held.recipes, [revision]: recipe } });
  }

  /** The recipe that a fill shows, where it is known. */
  recipeOf(fill: Fill | null) {
    if (fill?.kind !== 'pattern') return null;
    const pattern = this.patterns.get(fill.pattern);
    const recipe = pattern?.recipes[shownRevision(fill, pattern.newest)];
    return recipe ? followRecipe(recipe, this.links) : null;
  }

  /** The colourways of the pattern that a fill shows. */
  colourwaysOf(fill: PatternFill): Colourway[] {
    const ways = this.patterns.get(fill.pattern)?.colourways ?? [];
    return ways.map((way) => followColourway(way, this.links));
  }

  /** The tint that a fill shows in each slot. */
  tintsOf(fill: PatternFill): Record<string, Tint> {
    const slots = this.recipeOf(fill)?.slots ?? [];
    return shownTints(fill, { slots, colourways: this.colourwaysOf(fill) });
  }

  /** Brings patterns at hand that are not used here yet. */
  async loadPatterns(ids: readonly string[]): Promise<void> {
    for (const id of ids) await this.loadPattern(id);
  }

  protected async loadPattern(id: string): Promise<boolean> {
    if (this.patterns.has(id)) return true;
    const found = await call('GET /patterns/{id}', { id });
    if (!found.ok || !found.value.recipe) {
      toasts.problem(
        found.ok
          ? (found.value.faults.recipe ??
              `“${found.value.name}” is not published yet; publish it on the bench first.`)
          : found.failure.message,
      );
      return false;
    }
    const { name, newest, recipe, colourways, hasDraft, archivedAt, credit } = found.value;
    const recipes = { [newest]: recipe };
    const kept = { name, newest, hasDraft, archivedAt, credit, colourways };
    this.patterns.set(id, { id, ...kept, recipes, faults: {} });
    return true;
  }

  get tool(): Tool {
    return this.hand.tool;
  }

  /** Takes a tool into the hand; what was edited on the stage is done with. */
  take(tool: Tool): void {
    this.hand.take(tool);
    this.editingPoints = false;
    this.painting = null;
  }

  freshName(base: string): string {
    return freeName(
      base,
      this.doc.shapes.map((shape) => shape.name),
    );
  }
}
