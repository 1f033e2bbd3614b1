import { nanoid } from 'nanoid';
import { colourFill, isPlaced, type Fill } from '$lib/core/recipe/fill';
import type { Mask } from '$lib/core/recipe/mask';
import {
  allFills,
  mapFills,
  withFill,
  type Shape,
  type ShapeGroup,
  type ShapeStroke,
} from '$lib/core/recipe/layout';
import { tintOf } from '$lib/core/colour/tint';
import { fillLike, type FillProperty } from '$lib/core/recipe/copy-fill';
import { recolourLayout, type Exchange } from '$lib/core/recipe/recolour';
import { freeNames } from '$lib/core/recipe/edit';
import { LIMITS } from '$lib/core/recipe/limits';
import { restack } from '$lib/core/recipe/stack';
import { anchorTo, continuing, moveBy } from '$lib/core/recipe/transform';
import { toasts } from '../state/toasts.svelte';
import { moveInStack, tidyGroups } from './doc';
import { sayLocked } from './locks';
import { FRESH_COLOUR, freshOf, freshStroke, refilled, type NewFill } from './fresh-fills';

import { MeasuredTrial } from './measured-trial.svelte';
import { LayoutSession } from './session.svelte';

/** What the layout view does to its document: it adds, orders and takes away shapes, and fills them. */
export class LayoutEditor extends LayoutSession {
  /** Numbers of a measured pattern that are changed where it is used. */
  readonly trial: MeasuredTrial = new MeasuredTrial(this);
  /** A pattern that was brought along: the next shape that is drawn without a fill is filled with it. */
  inHand: { id: string; name: string } | null = $state.raw(null);

  /** Takes a pattern into the hand, and a tool that draws. */
  async bring(patternId: string): Promise<void> {
    if (!(await this.loadPattern(patternId))) return;
    this.inHand = { id: patternId, name: this.patterns.get(patternId)?.name ?? '' };
    if (this.tool === 'select') this.take('rectangle');
  }

  private withBrought(shape: Shape): Shape {
    const { inHand } = this;
    if (!inHand || shape.fills.length > 0 || shape.stroke) return shape;
    this.inHand = null;
    return { ...shape, fills: [refilled(null, inHand.id)] };
  }

  /** Adds shapes in front and selects them; `group` is a fresh group that they lie in. */
  addShapes(shapes: readonly Shape[], group: ShapeGroup | null = null): void {
    const { doc } = this.history;
    if (!this.hasRoomFor(shapes.length)) return;
    const names = freeNames(
      shapes.map(({ name }) => name),
      doc.shapes.map(({ name }) => name),
    );
    const named = shapes.map((shape, index) => ({
      ...this.withBrought(shape),
      name: names[index] ?? shape.name,
    }));
    const groups = group ? [...doc.groups, group] : doc.groups;
    this.history.commit({ ...doc, shapes: [...doc.shapes, ...named], groups });
    this.select(shapes.map(({ id }) => id));
  }

  /** Whether so many shapes more may be added; where not, it is said. */
  hasRoomFor(count: number): boolean {
    const room = this.history.doc.shapes.length + count <= LIMITS.shapes;
    if (!room) toasts.problem(`A layout holds at most ${LIMITS.shapes} shapes.`);
    return room;
  }

  /** A shape like another one under ids of its own; it gets a name of its own when it is added. */
  copyOf(shape: Shape): Shape {
    const copy = mapFills(shape, (fill) => ({ ...fill, id: nanoid(12) }));
    return { ...copy, id: nanoid(12) };
  }

  /** What a brush stroke is filled with: the paint that was last worked on, plain, or a colour. */
  brushFill(): Fill {
    const first = this.chosen[0];
    const last = (first && this.activeOf(first)) ?? this.lastFill ?? colourFill('', { colour: FRESH_COLOUR });
    return { ...last, id: nanoid(12), mask: null, blend: 'normal', opacity: 1 };
  }

  remove(): void {
    const gone = this.withoutLocked(this.selected);
    if (gone.size === 0) return;
    const { doc } = this.history;
    const shapes = doc.shapes.filter((shape) => !gone.has(shape.id));
    this.history.commit(tidyGroups({ ...doc, shapes }));
    this.select([]);
  }

  /** Doubles the selected shapes with their fills, a little to the right and down. */
  double(): void {
    const step = Math.max(this.doc.width, this.doc.height) / 60;
    const copies = this.chosen.map((shape) => this.copyOf(moveBy(shape, 'shape', { x: step, y: step })));
    if (copies.length > 0) this.addShapes(copies);
  }

  restack(towards: 'front' | 'back'): void {
    const { doc } = this.history;
    const free = this.withoutLocked(this.selected);
    if (free.size > 0) this.history.commit({ ...doc, shapes: restack(doc.shapes, free, towards) });
  }

  /** Puts a shape in front of another one of the stack, or behind it where it came from the front. */
  restackTo(id: string, target: string): void {
    if (id === target || !this.withoutLocked(new Set([id])).has(id)) return;
    const { doc } = this.history;
    const at = (wanted: string): number => doc.shapes.findIndex((shape) => shape.id === wanted);
    this.history.commit(moveInStack(doc, id, at(target)));
  }

  /** Those of some shapes that may be changed; of the others it is said. */
  withoutLocked(ids: ReadonlySet<string>): ReadonlySet<string> {
    const wanted = this.doc.shapes.filter(({ id }) => ids.has(id));
    const locked = wanted.filter(this.lockedTest);
    if (locked.length > 0) toasts.problem(sayLocked(locked.map(({ name }) => name)), 'unlock');
    return new Set(wanted.flatMap((shape) => (this.lockedTest(shape) ? [] : [shape.id])));
  }

  /** Fills shapes with a pattern; one that had a pattern keeps its scale, rotation, offset and opacity. */
  async fillWith(patternId: string, ids: ReadonlySet<string> = this.selected): Promise<void> {
    if (ids.size === 0) {
      toasts.problem('Select a shape first, then choose the pattern to fill it with.', 'selection');
      return;
    }
    if (!(await this.loadPattern(patternId))) return;
    this.change((shape) => this.refill(shape, (held) => refilled(held, patternId)), { ids });
  }

  /** Puts another pattern in the place of that of some fills, wherever they are. */
  async exchangePattern(fills: ReadonlySet<string>, patternId: string): Promise<void> {
    if (!(await this.loadPattern(patternId))) return;
    const holders = this.doc.shapes.filter((shape) => allFills(shape).some(({ id }) => fills.has(id)));
    this.change(
      (shape) => mapFills(shape, (fill) => (fills.has(fill.id) ? refilled(fill, patternId) : fill)),
      {
        ids: new Set(holders.map(({ id }) => id)),
      },
    );
  }

  /** Fills the selected shapes with one plain colour, in the place of what is worked on. */
  fillPlain(colour: string, live = false, link?: string): void {
    const tint = tintOf(colour, link);
    this.change(
      (shape) =>
        this.refill(shape, (held) => {
          if (held?.kind !== 'colour')
            return { ...colourFill(nanoid(12), tint), opacity: held?.opacity ?? 1 };
          const { link: _link, ...rest } = held;
          return { ...rest, ...tint };
        }),
      { live },
    );
  }

  /** Fills the selected shapes with a gradient, in the place of what is worked on. */
  fillGradient(): void {
    this.change((shape) =>
      this.refill(shape, (held) =>
        held?.kind === 'gradient'
          ? held
          : { ...freshOf({ kind: 'gradient' }, shape), opacity: held?.opacity ?? 1 },
      ),
    );
  }

  /** Fills the selected shapes with a picture that covers them; one that showed a picture keeps how it lay. */
  fillPicture({ asset, width, height }: { asset: string; width: number; height: number }): void {
    this.change((shape) =>
      this.refill(shape, (held) => {
        const fresh = freshOf({ kind: 'picture', asset, width, height }, shape);
        return {
          ...fresh,
          opacity: held?.opacity ?? 1,
          blend: held?.blend ?? 'normal',
          mask: held?.mask ?? null,
        };
      }),
    );
  }

  /** Fills the selected shapes with another layout, which covers them; one that showed a layout keeps how it lay. */
  async fillLayout(id: string): Promise<void> {
    const page = await this.loadPage(id);
    if (!page) return;
    const { width, height } = page;
    this.change((shape) =>
      this.refill(shape, (held) => {
        if (held?.kind === 'layout') return { ...held, layout: id };
        const fresh = freshOf({ kind: 'layout', layout: id, width, height }, shape);
        const { opacity = 1, blend = 'normal', mask = null } = held ?? {};
        return { ...fresh, opacity, blend, mask };
      }),
    );
  }

  /** Lays another layout over the fills of the selected shapes. */
  async layOverLayout(id: string): Promise<void> {
    const page = await this.loadPage(id);
    if (page) await this.addFill({ kind: 'layout', layout: id, width: page.width, height: page.height });
  }

  /** Makes the fills that are worked on like another one, in chosen properties. */
  takeLike(from: Fill, properties: ReadonlySet<FillProperty>): void {
    this.change((shape) => {
      const held = this.activeOf(shape);
      const next = fillLike(held, from, properties, nanoid(12));
      if (!next) return shape;
      return held ? withFill(shape, held.id, () => next) : this.withStack(shape, [next]);
    });
  }

  /** Sets the mask of the fills that are worked on, or of the selected shapes. */
  setMask(over: 'fill' | 'shape', mask: Mask | null, live = false): void {
    if (over === 'fill') this.changeActive((fill) => ({ ...fill, mask }), true);
    else this.change((shape) => ({ ...shape, mask }), { live: true });
    if (!live) this.history.commit();
  }

  /** Starts painting the mask of the one selected shape, or of the fill that is worked on. */
  paintMask(over: 'fill' | 'shape'): void {
    if (this.withoutLocked(this.selected).size === 0) return;
    this.hand.letGo();
    this.painting = over;
  }

  /** Puts a fill in the place of the one that is worked on, or as the first. */
  private refill(shape: Shape, make: (held: Fill | null) => Fill): Shape {
    const held = this.activeOf(shape);
    if (!held) return this.withStack(shape, [...this.stackOf(shape), make(null)]);
    return withFill(shape, held.id, make);
  }

  /** Takes all fills of the selected shapes away. */
  clearFill(): void {
    this.layer = null;
    this.change((shape) => ({ ...shape, fills: [] }));
  }

  /** Lays another fill over those of the selected shapes and works on it. */
  async addFill(what: NewFill): Promise<void> {
    if (what.kind === 'pattern' && !(await this.loadPattern(what.pattern))) return;
    const full = this.chosen.find((shape) => this.stackOf(shape).length >= LIMITS.fills);
    if (full) {
      toasts.problem(`A shape has at most ${LIMITS.fills} fills; “${full.name}” has as many already.`);
      return;
    }
    this.change((shape) => this.withStack(shape, [...this.stackOf(shape), freshOf(what, shape)]));
    this.layer = 0;
  }

  /** Gives the selected shapes a stroke, or other numbers for theirs. */
  setStroke(change: Partial<Omit<ShapeStroke, 'fills'>>, live = false): void {
    this.change((shape) => ({ ...shape, stroke: { ...(shape.stroke ?? freshStroke(shape)), ...change } }), {
      live: true,
    });
    if (!live) this.history.commit();
  }

  removeStroke(): void {
    this.part = 'fill';
    this.layer = null;
    this.change((shape) => ({ ...shape, stroke: null }));
  }

  /** Takes the fill that is worked on away. */
  removeFill(): void {
    this.change((shape) => {
      const active = this.activeOf(shape);
      const rest = this.stackOf(shape).filter(({ id }) => id !== active?.id);
      return active ? this.withStack(shape, rest) : shape;
    });
    this.layer = null;
  }

  /** Moves the fill that is worked on up or down among those of its shape. */
  restackFill(towards: 'front' | 'back'): void {
    const first = this.chosen[0];
    const active = first && this.activeOf(first);
    const stack = first ? this.stackOf(first) : [];
    const at = stack.length - 1 - stack.findIndex(({ id }) => id === active?.id);
    this.change((shape) => {
      const held = this.activeOf(shape);
      return held ? this.withStack(shape, restack(this.stackOf(shape), new Set([held.id]), towards)) : shape;
    });
    const most = stack.length - 1;
    this.layer = Math.max(0, Math.min(most, at + (towards === 'front' ? -1 : 1)));
  }

  /** Anchors what is worked on to its shapes or to the page; nothing moves. */
  anchor(anchored: 'shape' | 'page'): void {
    this.changePlaced((fill, shape) => anchorTo(shape, fill, anchored));
  }

  /** Lays the patterns of all selected shapes as that of the first one lies, so that they continue one pattern. */
  continueFirst(): void {
    const first = this.chosen[0];
    const from = first && this.activeOf(first);
    if (!first || !from || !isPlaced(from)) return;
    this.changePlaced((fill) => continuing(fill, from, first));
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
}
