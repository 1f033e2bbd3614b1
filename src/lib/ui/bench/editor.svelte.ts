import { SvelteMap } from 'svelte/reactivity';
import type { PatternDetail } from '$lib/contract/data';
import type { Point } from '$lib/core/geom/point';
import { isIdentity } from '$lib/core/geom/affine';
import { wrapDegrees } from '$lib/core/num/tolerance';
import { intoUnit } from '$lib/core/lattice/reduce';
import { latticeOf, pitchOf } from '$lib/core/lattice/repeat';
import { checkRecipe } from '$lib/core/recipe/check';
import {
  changeMotif,
  changePlacings,
  fitUnit,
  freeName,
  makeIndependent,
  mergeSlots,
  removeMotif,
} from '$lib/core/recipe/edit';
import {
  emptyRecipe,
  freshPlacing,
  groundSlots,
  motifSize,
  type ComposedRecipe,
  type Motif,
  type MotifContent,
  type Placing,
  type Recipe,
} from '$lib/core/recipe/recipe';
import { alignBoxes, type Alignment } from '$lib/core/recipe/align';
import { restack } from '$lib/core/recipe/stack';
import { resolveSlots } from '$lib/core/colour/slots';
import { lonePicture } from '$lib/core/scene/drawing';
import { resolveGround } from '$lib/core/scene/pattern';
import type { WidestGap } from '$lib/core/scene/gap';
import { asComposed } from '$lib/core/scene/by-hand';
import { motifReach } from '$lib/core/scene/ink';
import { compileMotif } from '$lib/core/scene/motif';
import { compileUnit, type MotifCache, type PieceCache, type UnitScene } from '$lib/core/scene/unit';
import { toasts } from '../state/toasts.svelte';
import { PatternKeeper } from './keeper.svelte';
import { lastMeasured } from './measured-start';
import {
  MANY_PIECES,
  freshColour,
  freshContent,
  freshRecipe,
  newId,
  type FormChoice,
  FORM_CHOICES,
} from './fresh';

/** A motif put into a gap fills so much of its circle. */
const GAP_SHARE = 0.9;

/** Everything the bench does to its pattern: motifs, placings, unit, colours, history. */
export class BenchEditor extends PatternKeeper {
  selected: ReadonlySet<string> = $state.raw(new Set());
  motif: string | null = $state(null);
  /** A PDF of which a page is to be chosen. */
  pdf: File | null = $state.raw(null);

  private readonly cache: MotifCache = new WeakMap();
  private readonly pieces: PieceCache = new WeakMap();
  /** What could not be kept of files that motifs were made from, as long as the bench is open. */
  readonly notes = new SvelteMap<string, readonly string[]>();
  private moving: ReadonlySet<string> | null = $state.raw(null);
  /** What is being dragged, as long as the drag lasts. */
  readonly movingPieces = $derived.by(() => (this.history.inGesture ? this.moving : null));
  readonly kind = $derived.by(() => this.recipe.kind);
  readonly measure = $derived.by(() => this.recipe.measure);
  /** The recipe as placed motifs; an empty one while the pattern is a measured one, whose panels never ask. */
  readonly composed = $derived.by(() =>
    this.recipe.kind === 'composed' ? this.recipe : emptyRecipe('px', { width: 1, height: 1 }),
  );
  readonly scene = $derived.by(() =>
    compileUnit(this.recipe, {
      upright: true,
      cache: this.cache,
      pieces: this.pieces,
      // The search for abutting edges among thousands of pieces would hold the page; files have it all the same.
      skipAbutments: this.history.inGesture || this.composed.placings.length > MANY_PIECES,
    }),
  );
  /** While pieces are dragged: the scene parted into what lies behind them, the pieces, and what lies in front. */
  readonly parted = $derived.by(() => (this.movingPieces ? this.part(this.movingPieces) : null));
  /** The pieces that are being dragged, compiled as they lie now. */
  readonly moved = $derived.by((): UnitScene | null => {
    const moving = this.movingPieces;
    if (!moving) return null;
    const placings = this.composed.placings.filter((placing) => moving.has(placing.id));
    return this.compilePart({ ...this.composed, placings, ground: { kind: 'clear' } });
  });
  /** The newest revision compiled, while it is looked back at. */
  readonly publishedScene = $derived.by(() =>
    this.published ? compileUnit(this.published, { upright: true }) : null,
  );
  private readonly slots = $derived.by(() => this.recipe.slots);
  readonly colours = $derived.by(() => resolveSlots(this.slots, {}));
  /** The recipe and its scene, but for where dragged pieces lie just now: the same objects as long as a drag lasts. */
  readonly still = $derived.by(() => (this.movingPieces ? this.settled : this.composed));
  readonly stillScene = $derived.by(() => this.parted?.whole ?? this.scene);
  readonly ground = $derived.by(() => resolveGround(this.stillScene, this.colours));
  readonly chosen = $derived.by(() =>
    this.composed.placings.filter((placing) => this.selected.has(placing.id)),
  );
  readonly single = $derived.by(() => (this.chosen.length === 1 ? (this.chosen[0] ?? null) : null));
  readonly problems = $derived.by(() => {
    const found = checkRecipe(this.movingPieces ? this.still : this.recipe);
    const { fault } = this.stillScene;
    return found.length === 0 && fault ? [fault] : found;
  });

  constructor(pattern: PatternDetail | null, measured = false) {
    const fresh = measured ? lastMeasured(newId) : freshRecipe();
    super(pattern, pattern?.draft ?? pattern?.recipe ?? fresh);
  }

  /** The recipe as it was before the gesture that is under way. */
  get settled(): ComposedRecipe {
    const { settled } = this.history;
    return settled.kind === 'composed' ? settled : this.composed;
  }

  commit(recipe: Recipe): void {
    this.history.commit(recipe);
  }

  /** Changes the selected placings, as part of a gesture with `live`, else as one step with places brought into the unit. */
  change(change: (placing: Placing) => Placing, live = false): void {
    const from = live ? this.settled : this.composed;
    const next = changePlacings(from, this.selected, change);
    if (live) {
      if (this.moving !== this.selected) this.moving = this.selected;
      this.history.live(next);
    } else this.commit(this.tidied(next));
  }

  private compilePart(recipe: ComposedRecipe): UnitScene {
    return compileUnit(recipe, {
      upright: true,
      cache: this.cache,
      pieces: this.pieces,
      skipAbutments: true,
    });
  }

  /** The settled scene without the moving pieces, cut where the hindmost of them lies in the stack. */
  private part(moving: ReadonlySet<string>): { whole: UnitScene; behind: UnitScene; inFront: UnitScene } {
    const { settled } = this;
    const at = settled.placings.findIndex((placing) => moving.has(placing.id));
    const still = (placings: readonly Placing[]): Placing[] => placings.filter(({ id }) => !moving.has(id));
    return {
      whole: this.compilePart(settled),
      behind: this.compilePart({ ...settled, placings: still(settled.placings.slice(0, at)) }),
      inFront: this.compilePart({
        ...settled,
        placings: still(settled.placings.slice(at)),
        ground: { kind: 'clear' },
      }),
    };
  }

  /** Ends a gesture on placings. */
  settle(): void {
    this.moving = null;
    this.commit(this.tidied(this.composed));
  }

  /** Adds a built-in form as a motif and places it once. */
  addForm(choice: FormChoice): void {
    const label = FORM_CHOICES.find((known) => known.id === choice)?.label ?? 'Motif';
    const behind = groundSlots(this.composed.ground);
    const held = this.composed.slots.find((slot) => !behind.includes(slot.id));
    const slot = held ?? { id: newId(), name: 'Ink', colour: freshColour(this.composed) };
    this.addMotif(label, freshContent(choice, this.composed.unit, slot.id), held ? [] : [slot]);
  }

  /** Adds a motif with nothing in it yet, placed once in the middle, to be drawn; answers its id. */
  addEmpty(): string {
    const recipe = this.composed;
    const id = newId();
    const name = freeName(
      'Motif',
      recipe.motifs.map((held) => held.name),
    );
    const motif: Motif = {
      id,
      name,
      content: { kind: 'drawing', asset: null, width: 0.01, height: 0.01, elements: [] },
    };
    const { width, height } = recipe.unit;
    const placing = freshPlacing(newId(), id, { x: width / 2, y: height / 2 });
    this.commit({ ...recipe, motifs: [...recipe.motifs, motif], placings: [...recipe.placings, placing] });
    this.select([placing.id]);
    return id;
  }

  /** Turns a measured pattern into placed motifs, to go on by hand. */
  goOnByHand(): void {
    if (this.recipe.kind !== 'measured') return;
    const { recipe, note } = asComposed(this.recipe, newId);
    this.commit(recipe);
    if (note) toasts.show(note, { kind: 'problem' });
  }

  /** Adds placings that were scattered; they are the selection, so that one key takes them away again. */
  addPlacings(placings: Placing[]): void {
    this.commit({ ...this.composed, placings: [...this.composed.placings, ...placings] });
    this.select(placings.map((placing) => placing.id));
  }

  /** Turns the chosen pieces over, across or down, each in its place. */
  mirror(across: boolean): void {
    this.change((placing) => ({
      ...placing,
      // Turning over a piece that is itself turned reverses the turn.
      rotation: wrapDegrees(-placing.rotation),
      scaleX: across ? -placing.scaleX : placing.scaleX,
      scaleY: across ? placing.scaleY : -placing.scaleY,
    }));
  }

  /** Cuts the chosen pieces loose from the other placings of their motifs. */
  cutLoose(): void {
    if (this.selected.size > 0) this.commit(makeIndependent(this.composed, this.selected, newId));
    this.select(this.selected);
  }

  /** Lines the chosen pieces up by their boxes, or spreads them evenly between the outer two. */
  align(how: Alignment): void {
    const pieces = this.scene.pieces.filter(
      (piece) => this.selected.has(piece.id) && isIdentity(piece.image),
    );
    const shifts = new Map(
      alignBoxes(
        how,
        pieces.map(({ id, box }) => ({ id, box })),
        this.selected.size === 1 ? { x: 0, y: 0, ...this.composed.unit } : null,
      ),
    );
    this.change((placing) => {
      const by = shifts.get(placing.id);
      return by ? { ...placing, x: placing.x + by.x, y: placing.y + by.y } : placing;
    });
  }

  /** Adds a motif with the slots that it brought and places it once, as one step; answers its id. */
  addMotif(name: string, content: MotifContent, brought: Recipe['slots']): string {
    const recipe = this.composed;
    const merged = mergeSlots(recipe.slots, content, brought);
    const motif: Motif = {
      id: newId(),
      name: freeName(
        name,
        recipe.motifs.map((held) => held.name),
      ),
      content: merged.content,
    };
    // One step with its first placing.
    this.history.live({ ...recipe, slots: merged.slots, motifs: [...recipe.motifs, motif] });
    this.place(motif.id);
    return motif.id;
  }

  /**
   * Places a motif once more, beside the last one. A picture comes in at its true size; of other motifs one that is larger
   * than the unit is scaled to fit.
   */
  place(motifId: string): void {
    const recipe = this.composed;
    const motif = recipe.motifs.find((held) => held.id === motifId);
    if (!motif) return;
    const size = motifSize(motif.content);
    const isPicture = lonePicture(motif.content) !== null;
    const room = Math.min((0.8 * recipe.unit.width) / size.width, (0.8 * recipe.unit.height) / size.height);
    const fit = isPicture ? 1 : Math.min(1, room);
    const count = recipe.placings.length;
    const { width, height } = recipe.unit;
    const at = { x: width * (0.5 + 0.13 * count), y: height * (0.5 + 0.17 * count) };
    const placing = freshPlacing(newId(), motifId, at, fit);
    this.commit(this.tidied({ ...recipe, placings: [...recipe.placings, placing] }));
    this.select([placing.id]);
    if (isPicture && (size.width > width || size.height > height))
      toasts.show(`“${motif.name}” is larger than the unit; it lies there at its true size.`, {
        action: { label: 'Fit the unit to the art', run: () => this.fit() },
      });
  }

  /** Puts the chosen motif into the widest gap, as large as the circle lets it be, a little air left round it. */
  fillGap({ at, radius }: WidestGap): void {
    const recipe = this.composed;
    const motif = recipe.motifs.find((held) => held.id === this.motif);
    if (!motif) return;
    const reach = motifReach(compileMotif(motif));
    const scale = (radius * GAP_SHARE) / Math.max(reach, 1e-6);
    const placing = freshPlacing(newId(), motif.id, at, scale);
    this.commit(this.tidied({ ...recipe, placings: [...recipe.placings, placing] }));
    this.select([placing.id]);
  }

  select(ids: Iterable<string>): void {
    this.selected = new Set(ids);
    const [first] = this.chosen;
    if (first) this.motif = first.motif;
  }

  toggle(id: string): void {
    const next = new Set(this.selected);
    if (!next.delete(id)) next.add(id);
    this.select(next);
  }

  remove(): void {
    if (this.selected.size === 0) return;
    const { composed: recipe, selected } = this;
    this.commit({ ...recipe, placings: recipe.placings.filter((placing) => !selected.has(placing.id)) });
    this.select([]);
  }

  double(): void {
    const step = Math.min(this.composed.unit.width, this.composed.unit.height) / 10;
    const copies = this.chosen.map((placing) => ({
      ...placing,
      id: newId(),
      x: placing.x + step,
      y: placing.y + step,
    }));
    if (copies.length === 0) return;
    this.commit(this.tidied({ ...this.composed, placings: [...this.composed.placings, ...copies] }));
    this.select(copies.map((copy) => copy.id));
  }

  restack(towards: 'front' | 'back'): void {
    if (this.selected.size > 0)
      this.commit({ ...this.composed, placings: restack(this.composed.placings, this.selected, towards) });
  }

  /** Changes a motif from how it was before the gesture: shown with `live`, else kept as one step. */
  setMotif(id: string, change: (motif: Motif) => Motif, live = false): void {
    const next = changeMotif(this.settled, id, change);
    if (live) this.history.live(next);
    else this.commit(next);
  }

  changeMotif(id: string, change: (motif: Motif) => Motif): void {
    this.commit(changeMotif(this.composed, id, change));
  }

  /** Puts another drawing in the place of a motif's, with the slots that it brings; all placings follow. */
  replaceContent(id: string, content: MotifContent, brought: Recipe['slots']): void {
    const merged = mergeSlots(this.composed.slots, content, brought);
    const recipe = { ...this.composed, slots: merged.slots };
    this.commit(changeMotif(recipe, id, (motif) => ({ ...motif, content: merged.content })));
  }

  removeMotif(id: string): void {
    this.commit(removeMotif(this.composed, id));
    this.select([]);
    this.motif = null;
  }

  /** Fits the unit to the art with `margin` px round it. */
  fit(margin = 0): void {
    const box = this.scene.artBox;
    if (!box) {
      toasts.problem('There is no art to fit the unit to; place a motif first.');
      return;
    }
    this.commit(fitUnit(this.composed, box, margin));
  }

  /** Each placing's middle brought into the unit: the plane stays the same, and numbers stay small. */
  private tidied(recipe: ComposedRecipe): ComposedRecipe {
    const { unit, gap, repeat } = recipe;
    // A mirror and a plane group draw every placing in several images: there the place that was set is the one kept.
    if (repeat.kind === 'mirror' || repeat.kind === 'group') return recipe;
    const lattice = latticeOf(unit, gap, repeat);
    const pitch = pitchOf(unit, gap, repeat);
    const placings = recipe.placings.map((placing) => {
      const at: Point = intoUnit(lattice, pitch, placing);
      return at.x === placing.x && at.y === placing.y ? placing : { ...placing, ...at };
    });
    return placings.every((placing, index) => placing === recipe.placings[index])
      ? recipe
      : { ...recipe, placings };
  }
}
