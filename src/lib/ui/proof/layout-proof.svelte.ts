import { nanoid } from 'nanoid';
import { NO_INKS } from '$lib/core/colour/inks';
import { unionBoxes, type Box } from '$lib/core/geom/box';
import type { ObjectSpec } from '$lib/core/mockup/objects';
import { toPx } from '$lib/core/num/length';
import { colourFill } from '$lib/core/recipe/fill';
import { freshShape, shapeBox } from '$lib/core/recipe/layout';
import type { ProofContext } from '$lib/core/proof/context';
import type { ProofSettings } from '$lib/core/proof/limits';
import type { ProofNote } from '$lib/core/proof/note';
import { Proof } from '$lib/core/proof/proof';
import { CompiledShapes } from '../layout/compiled-shapes';
import type { LayoutEditor } from '../layout/editor.svelte';
import { INK } from '../layout/shapes';
import { setText } from '../layout/text';
import { call } from '../state/api';
import { changeProject } from '../state/project';
import { toasts } from '../state/toasts.svelte';

/** How long after the last change a proof looks again, ms: at once where one reads it, else when there is time. */
const SOON = 60;
const LATER = 900;

/** The proof of a layout that is open: its notes follow the work, its limits are those of the project. */
export class LayoutProof {
  notes: readonly ProofNote[] = $state.raw([]);
  open = $state(false);
  settings: ProofSettings = $state.raw() as ProofSettings;
  private readonly proof = new Proof();
  private readonly compiled = new CompiledShapes();
  private readonly patterns = $derived.by(() => new Map(this.editor.patterns));

  constructor(
    private readonly editor: LayoutEditor,
    private readonly object: ObjectSpec | null,
    settings: ProofSettings,
    /** What the layout is printed with. */
    private readonly print: () => Pick<ProofContext, 'inks' | 'press'>,
  ) {
    this.settings = settings;
  }

  /** Looks again after each change, once what is dragged is let go of; called while a component is made. */
  follow(): void {
    $effect(() => {
      const { history, doc, lookup } = this.editor;
      if (history.inGesture) return;
      // What it is proofed by is only looked up once what is dragged is let go of.
      const by = [doc, lookup, this.patterns, this.settings, this.print()];
      if (by.length === 0) return;
      const timer = setTimeout(() => this.look(), this.open ? SOON : LATER);
      return () => clearTimeout(timer);
    });
  }

  look(): void {
    const { doc, lookup } = this.editor;
    const { settings, patterns, object } = this;
    const print = settings.medium === 'print' ? this.print() : { inks: NO_INKS, press: null };
    const context = { limits: settings[settings.medium], lookup, patterns, object, ...print };
    this.notes = this.proof.notes(doc, context, (shape) => this.compiled.of(shape, lookup));
  }

  /** Selects what a note is about; answers where that lies on the page, `null` where the note is about the page itself. */
  goTo({ places }: ProofNote): Box | null {
    const ids = new Set(places.map(({ shape }) => shape));
    const shapes = this.editor.doc.shapes.filter(({ id }) => ids.has(id));
    const [shape] = shapes;
    const fill = places[0]?.fill;
    if (shapes.length === 1 && shape && fill) this.editor.workOn(shape, fill);
    else this.editor.select(ids);
    return unionBoxes(shapes.map(shapeBox));
  }

  /** What the button of a note says that mends it; `null` where it is left to the person. */
  mendOf({ mend, writes }: ProofNote): string | null {
    return mend?.label ?? (writes === undefined ? null : 'Write it on the page');
  }

  async mend(note: ProofNote): Promise<void> {
    const { history } = this.editor;
    if (note.mend) history.commit({ ...history.doc, ...note.mend.change(history.doc, note.places) });
    else if (note.writes !== undefined) await this.write(note.writes);
    this.look();
  }

  /** Writes what is missing small into the lower left corner of the page, within its margin. */
  private async write(words: string): Promise<void> {
    const { editor } = this;
    const { font } = editor.textNumbers;
    const made = await setText(words, { font, size: toPx(6, 'pt'), align: 'start' });
    if (!made.ok) return void toasts.problem(made.message);
    const { form } = made.set;
    const { margin, height, width } = editor.doc;
    const least = Math.max(margin, Math.min(width, height) * 0.02);
    const share = Math.min(1, (width - 2 * least) / form.width);
    const size = { width: form.width * share, height: form.height * share };
    editor.addShapes([
      freshShape({
        ...{ id: nanoid(12), name: 'Credit', form, ...size, x: least, y: height - least - size.height },
        fills: [colourFill(nanoid(12), { colour: INK })],
      }),
    ]);
  }

  /** Has the layouts of the project proofed by other limits, here and for whoever else works on them. */
  async setSettings(settings: ProofSettings): Promise<void> {
    const before = this.settings;
    this.settings = settings;
    const saved = await changeProject(this.editor.projectId, { proof: settings });
    if (saved.ok) return;
    if (this.settings === settings) this.settings = before;
    toasts.problem(saved.failure.message);
  }

  /** Takes over limits that were changed elsewhere. */
  async refresh(): Promise<void> {
    const found = await call('GET /projects/{id}', { id: this.editor.projectId });
    if (found.ok) this.settings = found.value.proof;
  }
}
