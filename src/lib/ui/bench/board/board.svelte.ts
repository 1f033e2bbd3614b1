import { about, rotation, scaling, translation, type Affine } from '$lib/core/geom/affine';
import { boxCentre, type Box } from '$lib/core/geom/box';
import type { PathOperation } from '$lib/core/geom/boolean';
import { transformPath, type Path } from '$lib/core/geom/path';
import type { Point } from '$lib/core/geom/point';
import type { ShapeForm } from '$lib/core/geom/shapes';
import { alignBoxes, type Alignment } from '$lib/core/recipe/align';
import { changeMotif } from '$lib/core/recipe/edit';
import { LIMITS } from '$lib/core/recipe/limits';
import { restack } from '$lib/core/recipe/stack';
import type { DrawingElement, ElementSource, Guide, Motif, Paint, Stroke } from '$lib/core/recipe/recipe';
import {
  asDrawing,
  drawingOf,
  elementsBox,
  formElement,
  pathElement,
  pathOf,
  pathText,
  transformElement,
} from '$lib/core/scene/drawing';
import { plainStroke } from '$lib/core/scene/motif';
import { Stopped, type BenchWorker } from '$lib/workers/client';
import { Hand } from '../../state/hand.svelte';
import { toasts } from '../../state/toasts.svelte';
import type { BenchEditor } from '../editor.svelte';
import { freshColour, newId } from '../fresh';
import { outlineText } from '../../state/fonts';

export type BoardTool =
  'choose' | 'points' | 'rectangle' | 'ellipse' | 'polygon' | 'star' | 'line' | 'path' | 'freehand' | 'text';

/** The drawing board: the elements of one motif, worked on in the motif's own px. Every step is one of the bench's history. */
export class Board {
  readonly hand = new Hand<BoardTool>('choose', ['points']);
  /** Indices of the chosen elements, in stack order. */
  selected: readonly number[] = $state.raw([]);
  /** What new elements are painted with; slots that are gone fall back to the first. */
  private fillSlot: string | null = $state(null);
  private newStroke: Stroke | null = $state.raw(null);
  filled = $state(true);
  busy = $state(false);

  readonly motif = $derived.by(
    (): Motif | null => this.editor.composed.motifs.find((held) => held.id === this.motifId) ?? null,
  );
  readonly elements = $derived.by((): DrawingElement[] =>
    this.motif ? asDrawing(this.motif.content).elements : [],
  );
  readonly chosen = $derived.by(() => this.selected.flatMap((index) => this.elements[index] ?? []));
  readonly single = $derived.by(() => (this.chosen.length === 1 ? (this.chosen[0] ?? null) : null));
  readonly box = $derived.by(() => elementsBox(this.chosen));
  readonly guides = $derived.by((): Guide[] => this.motif?.guides ?? []);

  constructor(
    readonly editor: BenchEditor,
    readonly motifId: string,
    private readonly worker: BenchWorker,
  ) {}

  get tool(): BoardTool {
    return this.hand.tool;
  }

  /** The elements as they were before the gesture that is under way. */
  get settled(): DrawingElement[] {
    const motif = this.editor.settled.motifs.find((held) => held.id === this.motifId);
    return motif ? asDrawing(motif.content).elements : [];
  }

  /** Shows or keeps a new row of elements. */
  put(elements: DrawingElement[], live = false): void {
    if (elements.length > LIMITS.elements) {
      toasts.problem(`A motif holds at most ${LIMITS.elements} elements.`);
      return;
    }
    const next = changeMotif(this.editor.settled, this.motifId, (motif) => ({
      ...motif,
      content: drawingOf(elements, motif.content.kind === 'drawing' ? motif.content.asset : null),
    }));
    if (live) this.editor.history.live(next);
    else this.editor.commit(next);
  }

  setGuides(guides: Guide[], live = false): void {
    const next = changeMotif(this.editor.settled, this.motifId, (motif) => ({ ...motif, guides }));
    if (live) this.editor.history.live(next);
    else this.editor.commit(next);
  }

  /** Changes the chosen elements, from how they were before the gesture. */
  change(change: (element: DrawingElement) => DrawingElement, live = false): void {
    const chosen = new Set(this.selected);
    this.put(
      this.settled.map((element, index) => (chosen.has(index) ? change(element) : element)),
      live,
    );
  }

  transform(matrix: Affine, live = false): void {
    this.change((element) => transformElement(element, matrix), live);
  }

  add(...elements: DrawingElement[]): void {
    const count = this.elements.length;
    this.put([...this.elements, ...elements]);
    this.selected = elements.map((_, index) => count + index);
  }

  /** The slot of new fills; a motif without colours gets one first. */
  private slot(): string {
    const { slots } = this.editor.composed;
    const held = slots.find((slot) => slot.id === this.fillSlot) ?? slots[0];
    if (held) return held.id;
    const slot = { id: newId(), name: 'Ink', colour: freshColour(this.editor.composed) };
    this.editor.commit({ ...this.editor.composed, slots: [slot] });
    return slot.id;
  }

  get paint(): { fill: Paint | null; stroke: Stroke | null } {
    const slot = this.slot();
    const stroke = this.newStroke && { ...this.newStroke, slot: this.known(this.newStroke.slot) ?? slot };
    return { fill: this.filled || !stroke ? slot : null, stroke };
  }

  private known(slot: string): string | null {
    return this.editor.composed.slots.some((held) => held.id === slot) ? slot : null;
  }

  /** The stroke of new lines: the one set, or one of a tenth of the grid's pitch. */
  get lineStroke(): Stroke {
    const slot = this.slot();
    const width = Math.max(0.5, this.editor.composed.aids.grid / 10);
    return this.newStroke ?? { ...plainStroke(slot, width, 'round'), join: 'round' };
  }

  /** Remembers what the chosen elements are painted with for the next one. */
  remember(fill: Paint | null, stroke: Stroke | null): void {
    if (typeof fill === 'string') this.fillSlot = fill;
    this.filled = fill !== null;
    this.newStroke = stroke;
  }

  addForm(form: ShapeForm, { x, y, width, height }: Box): void {
    this.add(formElement({ kind: 'form', form, x, y, width, height, rotation: 0 }, this.paint));
  }

  addLine(path: Path, closed = false): void {
    this.add(pathElement(path, closed ? this.paint : { fill: null, stroke: this.lineStroke }));
  }

  /** Sets a form's or a text's numbers anew. */
  async setSource(source: ElementSource, live = false): Promise<void> {
    const index = this.selected[0];
    const element = index === undefined ? undefined : this.settled[index];
    if (!element) return;
    if (source.kind === 'form') {
      const { fill, stroke, opacity } = element;
      return this.change(() => formElement(source, { fill, stroke, opacity }), live);
    }
    const d = await this.textPath(source);
    if (d !== null) this.change((held) => ({ ...held, d, source }), live);
  }

  async addText(text: string, font: string, size: number, at: Point): Promise<boolean> {
    const source = { kind: 'text' as const, text, font, size, ...at, rotation: 0 };
    const d = await this.textPath(source);
    if (d === null) return false;
    const fill = this.slot();
    this.add({ d, fill, fillRule: 'nonzero', stroke: null, opacity: 1, source });
    return true;
  }

  private async textPath(source: Extract<ElementSource, { kind: 'text' }>): Promise<string | null> {
    const made = await outlineText(source.text, source.font, source.size);
    if (!made.ok) {
      toasts.problem(made.message);
      return null;
    }
    const place = translation(source.x, source.y);
    const turned = about({ x: source.x, y: source.y }, rotation(source.rotation));
    return pathText(transformPath(turned, transformPath(place, pathOf(made))));
  }

  select(indices: Iterable<number>): void {
    this.selected = [...new Set(indices)].sort((one, other) => one - other);
    const first = this.chosen[0];
    if (first && !first.picture) this.remember(first.fill, first.stroke);
  }

  toggle(index: number): void {
    this.select(
      this.selected.includes(index)
        ? this.selected.filter((held) => held !== index)
        : [...this.selected, index],
    );
  }

  selectAll(): void {
    this.select(this.elements.keys());
  }

  remove(): void {
    if (this.selected.length === 0) return;
    const gone = new Set(this.selected);
    this.put(this.elements.filter((_, index) => !gone.has(index)));
    this.selected = [];
  }

  double(): void {
    const step = this.editor.composed.aids.showGrid ? this.editor.composed.aids.grid : 8;
    this.add(...this.chosen.map((element) => transformElement(element, translation(step, step))));
  }

  restack(towards: 'front' | 'back'): void {
    const marked = this.elements.map((element, index) => ({ id: String(index), element }));
    const ids = new Set(this.selected.map(String));
    const row = restack(marked, ids, towards);
    this.put(row.map(({ element }) => element));
    this.select(row.flatMap(({ id }, index) => (ids.has(id) ? [index] : [])));
  }

  mirror(across: boolean): void {
    if (this.box) this.transform(about(boxCentre(this.box), across ? scaling(-1, 1) : scaling(1, -1)));
  }

  turn(degrees: number): void {
    if (this.box) this.transform(about(boxCentre(this.box), rotation(degrees)));
  }

  align(how: Alignment): void {
    const items = this.selected.flatMap((index) => {
      const element = this.elements[index];
      const box = element && elementsBox([element]);
      return box ? [{ id: String(index), box }] : [];
    });
    // A single element lines up with the motif's own middle, which is where its placings turn about.
    const frame = items.length === 1 ? { x: 0, y: 0, width: 0, height: 0 } : null;
    const shifts = new Map(alignBoxes(how, items, frame));
    this.put(
      this.elements.map((element, index) => {
        const by = shifts.get(String(index));
        return by ? transformElement(element, translation(by.x, by.y)) : element;
      }),
    );
  }

  /** Puts the chosen areas together into one; the hindmost gives its paint and its place in the stack. */
  async combine(operation: PathOperation): Promise<void> {
    const areas = this.chosen.filter((element) => element.fill !== null && !element.picture);
    if (areas.length < 2 || areas.length < this.chosen.length) {
      toasts.problem(
        'Choose at least two filled shapes. A line or a stroke has to be turned into a closed shape first.',
      );
      return;
    }
    const elements = areas.map(({ d, fillRule }) => ({ d, fillRule }) as DrawingElement);
    const done = await this.work(() => this.worker.ask('combine', { operation, elements }));
    const [first] = areas;
    const at = this.selected[0];
    if (done === null || !first || at === undefined) return;
    const { fill, stroke, opacity } = first;
    const made: DrawingElement = { d: done, fillRule: 'nonzero', fill, stroke, opacity };
    const gone = new Set(this.selected);
    this.put(
      this.elements.flatMap((element, index) => (index === at ? [made] : gone.has(index) ? [] : [element])),
    );
    this.selected = [at];
  }

  /** Turns the strokes of the chosen elements into closed shapes of their own colour, in front of their fills. */
  async strokeOutlines(): Promise<void> {
    const next: DrawingElement[] = [];
    const chosen: number[] = [];
    for (const [index, element] of this.elements.entries()) {
      if (!this.selected.includes(index) || !element.stroke) {
        next.push(element);
        continue;
      }
      const { stroke, opacity } = element;
      const d = await this.work(() => this.worker.ask('outline', { d: element.d, stroke }));
      if (d === null) return;
      if (element.fill !== null) next.push({ ...element, stroke: null });
      chosen.push(next.length);
      next.push({ d, fill: stroke.slot, fillRule: 'nonzero', stroke: null, opacity });
    }
    if (chosen.length === 0) {
      toasts.problem('None of what is chosen has a stroke.');
      return;
    }
    this.put(next);
    this.select(chosen);
  }

  private async work(
    run: () => Promise<{ ok: true; d: string } | { ok: false; message: string }>,
  ): Promise<string | null> {
    this.busy = true;
    try {
      const done = await run();
      if (done.ok) return done.d;
      toasts.problem(done.message);
    } catch (error) {
      const message = error instanceof Stopped ? 'The work was stopped; nothing was changed.' : null;
      toasts.problem(message ?? 'The shapes could not be put together; simplify them and try again.');
    } finally {
      this.busy = false;
    }
    return null;
  }
}
