import { nanoid } from 'nanoid';
import type { Point } from '$lib/core/geom/point';
import { colourFill } from '$lib/core/recipe/fill';
import { freshShape, type Shape } from '$lib/core/recipe/layout';
import { toasts } from '../state/toasts.svelte';
import { changeShapes } from './doc';
import type { LayoutEditor } from './editor.svelte';
import { INK, SHAPE_NAMES } from './shapes';
import { anchorOnPage, setText, withText, type SetText, type TextNumbers } from './text';

/** Words that are being written on the stage: each letter shows at once, and all of it is one step. */
export class TextWriter {
  text: string = $state('');
  /** A sentence while the words cannot be set; the stage shows what could. */
  problem: string | null = $state(null);
  /** The text as it is set now, `null` while it is empty. */
  set: SetText | null = $state.raw(null);
  private readonly fresh: Shape | null;
  private running: Promise<void> = Promise.resolve();
  private wanted = 0;

  private constructor(
    private readonly editor: LayoutEditor,
    readonly id: string,
    /** Where the anchor of the text lies on the page. */
    readonly at: Point,
    readonly numbers: TextNumbers,
    fresh: Shape | null,
  ) {
    this.fresh = fresh;
  }

  /** Words for a new text whose first baseline begins at a place of the page; `null` where the layout is full. */
  static begin(editor: LayoutEditor, at: Point): TextWriter | null {
    if (!editor.hasRoomFor(1)) return null;
    const id = nanoid(12);
    const fills = [colourFill(nanoid(12), { colour: INK })];
    const fresh = freshShape({ id, name: '', form: { kind: 'ellipse' }, ...at, width: 1, height: 1, fills });
    editor.select([]);
    return new TextWriter(editor, id, at, editor.textNumbers, fresh);
  }

  /** Other words for a text shape; `null` where its font cannot be had, which is said. */
  static async change(editor: LayoutEditor, shape: Shape): Promise<TextWriter | null> {
    if (shape.form.kind !== 'text') return null;
    const { text, font, size, align } = shape.form;
    const made = await setText(text, { font, size, align });
    if (!made.ok) {
      toasts.problem(made.message);
      return null;
    }
    const at = anchorOnPage(shape, made.set);
    const writer = new TextWriter(editor, shape.id, at, { font, size, align }, null);
    writer.text = text;
    writer.set = made.set;
    return writer;
  }

  /** The shape as it is shown, once there are letters. */
  get shape(): Shape | null {
    return this.editor.doc.shapes.find(({ id }) => id === this.id) ?? null;
  }

  write(text: string): void {
    this.text = text;
    this.wanted += 1;
    const turn = this.wanted;
    this.running = this.running.then(() => (turn === this.wanted ? this.show(text) : undefined));
  }

  private async show(text: string): Promise<void> {
    if (text.trim() === '') {
      this.problem = null;
      this.set = null;
      const { settled } = this.editor.history;
      this.editor.history.live({ ...settled, shapes: settled.shapes.filter(({ id }) => id !== this.id) });
      return;
    }
    const made = await setText(text, this.numbers);
    this.problem = made.ok ? null : made.message;
    if (!made.ok) return;
    this.set = made.set;
    const { settled } = this.editor.history;
    if (this.fresh) {
      const named = { ...this.fresh, name: this.editor.freshName(nameOf(text)) };
      const shape = withText(named, made.set, this.at);
      this.editor.history.live({ ...settled, shapes: [...settled.shapes, shape] });
    } else
      this.editor.history.live(
        changeShapes(settled, new Set([this.id]), (shape) => withText(shape, made.set, this.at)),
      );
  }

  /** Ends the writing and keeps what could be set as one step. */
  async end(): Promise<void> {
    await this.running;
    if (this.problem) toasts.problem(this.problem);
    const { history } = this.editor;
    history.commit();
    if (this.shape) this.editor.select([this.id]);
  }
}

const nameOf = (text: string): string =>
  text.trim().replace(/\s+/g, ' ').slice(0, 40).trim() || SHAPE_NAMES.text;

/** Sets the words of text shapes in another font or size, or stands their lines otherwise, as one step. */
export async function restyleText(editor: LayoutEditor, change: Partial<TextNumbers>): Promise<void> {
  editor.textNumbers = { ...editor.textNumbers, ...change };
  const done = new Map<string, Shape>();
  for (const shape of editor.chosen) {
    if (shape.form.kind !== 'text') continue;
    const { text, font, size, align } = shape.form;
    const before = await setText(text, { font, size, align });
    const after = await setText(text, { font, size, align, ...change });
    if (!before.ok || !after.ok) {
      const failed = before.ok ? after : before;
      if (!failed.ok) toasts.problem(failed.message);
      return;
    }
    // Lines that stand otherwise stay in their place as a whole.
    const held = change.align
      ? { ...before.set, form: { ...before.set.form, align: change.align } }
      : before.set;
    done.set(shape.id, withText(shape, after.set, anchorOnPage(shape, held)));
  }
  editor.change((shape) => done.get(shape.id) ?? shape);
}
