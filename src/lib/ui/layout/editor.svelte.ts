import { nanoid } from 'nanoid';
import { SvelteMap } from 'svelte/reactivity';
import type { LayoutData, PatternDetail, PatternForUse } from '$lib/contract/data';
import type { ShapeForm } from '$lib/core/geom/shapes';
import type { Box } from '$lib/core/geom/box';
import { freshFill, FILL_VERSION, type Fill, type PatternFill } from '$lib/core/recipe/fill';
import type { Shape } from '$lib/core/recipe/layout';
import type { Colourway } from '$lib/core/colour/colourway';
import { tintOf, type Links, type Tint } from '$lib/core/colour/tint';
import { freeName } from '$lib/core/recipe/edit';
import { followColourway, followRecipe } from '$lib/core/recipe/links';
import { recolourLayout, shownTints, type Exchange } from '$lib/core/recipe/recolour';
import { LIMITS } from '$lib/core/recipe/limits';
import { restack } from '$lib/core/recipe/stack';
import { moveBy, withPattern, type TransformScope } from '$lib/core/recipe/transform';
import { patternLookup, shownRevision } from '$lib/core/scene/library';
import { call } from '../state/api';
import { History } from '../state/history.svelte';
import { Saver } from '../state/saver.svelte';
import { toasts } from '../state/toasts.svelte';
import { changeShapes, diffLayout, docOf, type LayoutDoc } from './doc';
import { Follower } from './follower';

export type Tool = 'select' | ShapeForm['kind'];

const SHAPE_NAMES: Record<ShapeForm['kind'], string> = {
  rectangle: 'Rectangle',
  ellipse: 'Ellipse',
  polygon: 'Polygon',
  star: 'Star',
};

const FRESH_FORMS: Record<ShapeForm['kind'], ShapeForm> = {
  rectangle: { kind: 'rectangle', radius: 0 },
  ellipse: { kind: 'ellipse' },
  polygon: { kind: 'polygon', sides: 6 },
  star: { kind: 'star', points: 5, inner: 0.5 },
};

/** Everything the layout view does to its document: selection, shapes, fills, history, saving. */
export class LayoutEditor {
  readonly history: History<LayoutDoc>;
  readonly saver: Saver<LayoutDoc>;
  readonly id: string;
  readonly projectId: string;
  /** Patterns that fills here use, with the recipes that they show. */
  readonly patterns: SvelteMap<string, PatternForUse>;
  selected: ReadonlySet<string> = $state.raw(new Set());
  scope: TransformScope = $state('shape');
  tool: Tool = $state('select');

  /** The present colours of palettes, where they changed since the layout was loaded. */
  links: Links = $state.raw(new Map());
  private readonly follower = $derived.by(() => new Follower(this.links));

  /** The document as it looks now. Changes are made to `history.doc`, which keeps the colours as they were saved. */
  readonly doc = $derived.by(() => this.follower.doc(this.history.doc));
  readonly lookup = $derived.by(() => patternLookup(this.follower.patterns(this.patterns.values())));
  readonly chosen = $derived.by(() => this.doc.shapes.filter((shape) => this.selected.has(shape.id)));
  /** The selected shape where there is just one. */
  readonly single = $derived.by(() => (this.chosen.length === 1 ? (this.chosen[0] ?? null) : null));

  constructor(data: LayoutData, patterns: readonly PatternForUse[]) {
    this.id = data.id;
    this.projectId = data.projectId;
    const doc = docOf(data);
    this.history = new History(doc);
    this.patterns = new SvelteMap(patterns.map((pattern) => [pattern.id, pattern]));
    this.saver = new Saver(doc, data.version, (next, last, version) =>
      call('POST', `/layouts/${data.id}/changes`, { base: version, changes: diffLayout(last, next) }),
    );
  }

  select(ids: Iterable<string>): void {
    this.selected = new Set(ids);
  }

  /** Adds one to the selection or takes it out. */
  toggle(id: string): void {
    const next = new Set(this.selected);
    if (!next.delete(id)) next.add(id);
    this.selected = next;
  }

  /** Changes the selected shapes (or `ids`) as one step, or as part of a gesture with `live`. */
  change(change: (shape: Shape) => Shape, options: { live?: boolean; ids?: ReadonlySet<string> } = {}): void {
    const from = options.live ? this.history.settled : this.history.doc;
    const next = changeShapes(from, options.ids ?? this.selected, change);
    if (options.live) this.history.live(next);
    else this.history.commit(next);
  }

  /** Changes the pattern fills of the selected shapes. */
  changeFill(change: (fill: PatternFill) => PatternFill, live = false): void {
    this.change((shape) => withPattern(shape, change), { live });
  }

  /** Changes the page or its name. */
  changePage(page: Partial<Omit<LayoutDoc, 'shapes'>>, live = false): void {
    const next = { ...this.history.settled, ...page };
    if (live) this.history.live(next);
    else this.history.commit(next);
  }

  /** Adds a shape of a form in a box of the page, selects it, and goes back to selecting. */
  addShape(kind: ShapeForm['kind'], box: Box): void {
    if (this.doc.shapes.length >= LIMITS.shapes) {
      toasts.problem(`A layout holds at most ${LIMITS.shapes} shapes.`);
      return;
    }
    const id = nanoid(12);
    const shape: Shape = {
      id,
      name: this.freshName(SHAPE_NAMES[kind]),
      form: FRESH_FORMS[kind],
      ...box,
      rotation: 0,
      fill: null,
    };
    this.history.commit({ ...this.history.doc, shapes: [...this.history.doc.shapes, shape] });
    this.select([id]);
    this.tool = 'select';
  }

  remove(): void {
    if (this.selected.size === 0) return;
    this.history.commit({
      ...this.history.doc,
      shapes: this.history.doc.shapes.filter((shape) => !this.selected.has(shape.id)),
    });
    this.select([]);
  }

  /** Doubles the selected shapes with their fills, a little to the right and down. */
  double(): void {
    const step = Math.max(this.doc.width, this.doc.height) / 60;
    const copies = this.chosen.map((shape): Shape => ({
      ...moveBy(shape, 'shape', { x: step, y: step }),
      id: nanoid(12),
      name: this.freshName(shape.name),
      fill: shape.fill && { ...shape.fill, id: nanoid(12) },
    }));
    if (copies.length === 0) return;
    this.history.commit({ ...this.history.doc, shapes: [...this.history.doc.shapes, ...copies] });
    this.select(copies.map((shape) => shape.id));
  }

  restack(towards: 'front' | 'back'): void {
    if (this.selected.size > 0)
      this.history.commit({
        ...this.history.doc,
        shapes: restack(this.history.doc.shapes, this.selected, towards),
      });
  }

  /** Fills shapes with a pattern; one that had a pattern keeps its scale, rotation, offset and opacity. */
  async fillWith(patternId: string, ids: ReadonlySet<string> = this.selected): Promise<void> {
    if (ids.size === 0) {
      toasts.problem('Select a shape first, then choose the pattern to fill it with.');
      return;
    }
    if (!(await this.loadPattern(patternId))) return;
    this.change((shape) => ({ ...shape, fill: refilled(shape.fill, patternId) }), { ids });
  }

  /** Fills the selected shapes with one plain colour. */
  fillPlain(colour: string, live = false, link?: string): void {
    this.change(
      (shape) => {
        const held = shape.fill;
        const id = held?.kind === 'colour' ? held.id : nanoid(12);
        return {
          ...shape,
          fill: {
            kind: 'colour',
            version: FILL_VERSION,
            id,
            ...tintOf(colour, link),
            opacity: held?.opacity ?? 1,
          },
        };
      },
      { live },
    );
  }

  clearFill(): void {
    this.change((shape) => ({ ...shape, fill: null }));
  }

  /** Exchanges colours of one palette for another's in all of the layout, as one step. */
  recolour(exchanges: readonly Exchange[]): void {
    const colours = (fill: Fill) => {
      const recipe = this.recipeOf(fill);
      return recipe && fill.kind === 'pattern'
        ? { slots: recipe.slots, colourways: this.colourwaysOf(fill) }
        : null;
    };
    this.history.commit(recolourLayout(this.history.doc, colours, exchanges));
  }

  /** Takes over what was saved elsewhere, unless there is work of one's own under way: then the next save asks. */
  async refreshLayout(): Promise<void> {
    const fresh = await call<{ layout: LayoutData; patterns: PatternForUse[] }>('GET', `/layouts/${this.id}`);
    if (!fresh.ok || !this.saver.clean || this.history.inGesture) return;
    const { layout, patterns } = fresh.value;
    if (layout.version <= this.saver.version) return;
    for (const pattern of patterns) this.patterns.set(pattern.id, pattern);
    const doc = docOf(layout);
    this.history.commit(doc);
    this.saver.want(doc);
    this.saver.rebase(doc, layout.version);
  }

  /** Asks the server for the newest revisions of the patterns in use; publishing elsewhere then shows here. */
  async refreshPatterns(): Promise<void> {
    const fresh = await call<{ layout: LayoutData; patterns: PatternForUse[] }>('GET', `/layouts/${this.id}`);
    if (!fresh.ok) return;
    for (const pattern of fresh.value.patterns) this.patterns.set(pattern.id, pattern);
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

  private async loadPattern(id: string): Promise<boolean> {
    if (this.patterns.has(id)) return true;
    const found = await call<PatternDetail>('GET', `/patterns/${id}`);
    if (!found.ok || !found.value.recipe) {
      toasts.problem(
        found.ok
          ? `“${found.value.name}” is not published yet; publish it on the bench first.`
          : found.failure.message,
      );
      return false;
    }
    const { name, newest, recipe, colourways } = found.value;
    this.patterns.set(id, { id, name, newest, recipes: { [newest]: recipe }, colourways });
    return true;
  }

  private freshName(base: string): string {
    return freeName(
      base,
      this.doc.shapes.map((shape) => shape.name),
    );
  }
}

/** A fill of `patternId` that keeps what can be kept of the fill before; colours and hold belong to the old pattern. */
function refilled(before: Fill | null, patternId: string): PatternFill {
  if (before?.kind !== 'pattern')
    return { ...freshFill(nanoid(12), patternId), opacity: before?.opacity ?? 1 };
  return before.pattern === patternId
    ? before
    : { ...before, pattern: patternId, held: null, colourway: null, colours: {} };
}
