import type { Point } from '$lib/core/geom/point';
import { joins } from '$lib/core/picture/make';
import { ownSize } from '$lib/core/recipe/made';
import {
  grows,
  PICTURED_LIMITS,
  type Retouch,
  type RetouchKind,
  type RetouchStroke,
} from '$lib/core/recipe/pictured';
import { partsOfStroke, strokeArea, type BrushStroke } from '$lib/core/geom/brush-stroke';
import { STROKE_LIMITS } from '$lib/core/recipe/stroke';
import { toasts } from '../state/toasts.svelte';
import type { PictureEditor } from './editor.svelte';
import type { Maker } from './maker.svelte';

/** What is painted on the unit: which stroke comes next, with which brush, and from where it takes. */
export class Retoucher {
  /** What a stroke does; `null` while nothing is painted. */
  does: RetouchKind | null = $state(null);
  brush: Omit<BrushStroke, 'points'> = $state({ size: 40, softness: 0.5, strength: 1 });
  /** Whether the next press says where a clone takes from. */
  pointing = $state(false);
  /** Where the next clone takes from, px of the unit; once it was painted, how far away that lay. */
  source: Point | null = $state.raw(null);
  from: Point | null = $state.raw(null);
  /** The stroke that is just healed. */
  healing: BrushStroke | null = $state.raw(null);
  /** Strokes are healed one after the other, however fast they are painted: each looks at what the last one left. */
  private healed: Promise<void> = Promise.resolve();

  constructor(
    private readonly editor: PictureEditor,
    private readonly maker: Maker,
  ) {
    const { width, height } = ownSize(editor.pictured.pictured);
    this.brush.size = Math.max(4, Math.round(Math.min(width, height) / 10));
  }

  get strokes(): readonly RetouchStroke[] {
    return this.editor.pictured.pictured.retouch?.strokes ?? [];
  }

  /** Why a kind of stroke would do nothing; `null` where it does what it says. */
  why(does: RetouchKind): string | null {
    const { pictured } = this.editor.pictured;
    if (does === 'heal' || does === 'clone') return null;
    if (pictured.symmetry.on) return 'The images of a symmetry are not joined: there is no other original.';
    if (grows(pictured)) return 'A grown unit is made of patches: there is no original below it.';
    return joins(pictured) ? null : 'The edges are not joined: all of it is the original.';
  }

  choose(does: RetouchKind): void {
    this.does = this.does === does ? null : does;
    this.pointing = this.does === 'clone' && !this.source && !this.from;
  }

  point(at: Point): void {
    this.source = at;
    this.from = null;
    this.pointing = false;
  }

  /** Shows a stroke as it is painted; one that heals is looked for once it is whole. */
  live(stroke: BrushStroke | null): void {
    const { does } = this;
    if (!does) return;
    if (!stroke) return void (does === 'heal' ? (this.healing = null) : this.editor.history.cancel());
    if (does === 'heal') return void (this.healing = stroke);
    const made = this.made(stroke);
    if (made) this.lay([made], true);
  }

  async set(stroke: BrushStroke): Promise<void> {
    const { does } = this;
    if (this.strokes.length >= STROKE_LIMITS.strokes)
      return void toasts.problem(
        `A repeat holds at most ${STROKE_LIMITS.strokes} strokes; take some back, or open it as a picture and go on there.`,
      );
    if (does === 'heal') return this.heal(stroke);
    const made = this.made(stroke);
    if (!made) return;
    if ('from' in made) this.from = made.from;
    this.lay([made]);
  }

  takeBack(all = false): void {
    this.retouch(({ strokes }) => (all ? [] : strokes.slice(0, -1)));
  }

  setOn(on: boolean): void {
    this.editor.steps((from) => ({ ...from, retouch: { strokes: [], ...from.retouch, on } }));
  }

  private made(stroke: BrushStroke): RetouchStroke | null {
    const { does } = this;
    if (does === 'keep' || does === 'join') return { ...stroke, does };
    if (does !== 'clone') return null;
    const [x = 0, y = 0] = stroke.points;
    const from = this.from ?? (this.source && { x: this.source.x - x, y: this.source.y - y });
    return from && { ...stroke, does, from: { x: Math.round(from.x), y: Math.round(from.y) } };
  }

  private async heal(stroke: BrushStroke): Promise<void> {
    const most = PICTURED_LIMITS.healed;
    const parts = partsOfStroke(stroke, most);
    if (parts.some((part) => strokeArea(part) > most)) {
      this.healing = null;
      return void toasts.problem('This brush is too wide to heal with; make it narrower.');
    }
    this.healing = stroke;
    this.healed = this.healed
      .then(() => this.healParts(stroke, parts))
      .catch(() => {
        this.healing = null;
        toasts.problem('This could not be healed; try it with another brush.');
      });
    return this.healed;
  }

  private async healParts(stroke: BrushStroke, parts: readonly BrushStroke[]): Promise<void> {
    const { pictured, lay } = this.editor.pictured;
    const healed: RetouchStroke[] = [];
    for (const part of parts) {
      const from = await this.maker.healFrom({ pictured, lay }, part);
      // The view was left, or all was stopped.
      if (!from) return;
      healed.push({ ...part, does: 'heal', from });
    }
    if (this.healing === stroke) this.healing = null;
    this.lay(healed);
  }

  private lay(strokes: readonly RetouchStroke[], live = false): void {
    this.retouch(({ strokes: held }) => [...held, ...strokes], live);
  }

  private retouch(change: (from: Retouch) => readonly RetouchStroke[], live = false): void {
    this.editor.steps((from) => {
      const held = from.retouch ?? { on: true, strokes: [] };
      return { ...from, retouch: { on: true, strokes: change(held) } };
    }, live);
  }
}
