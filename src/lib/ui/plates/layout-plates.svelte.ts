import { SvelteSet } from 'svelte/reactivity';
import type { PaletteData, PressProfile } from '$lib/contract/data';
import { PressTable } from '$lib/core/colour/press-table';
import type { PressSettings } from '$lib/core/colour/press';
import type { ProofContext } from '$lib/core/proof/context';
import { inksOfPages } from '$lib/core/scene/page-inks';
import type { Box } from '$lib/core/geom/box';
import type { Point } from '$lib/core/geom/point';
import type { LayoutDoc } from '../layout/doc';
import type { LayoutEditor } from '../layout/editor.svelte';
import { call } from '../state/api';
import { changeProject } from '../state/project';
import { toasts } from '../state/toasts.svelte';
import { bytesOf, coverageOf, pictureOf, totalInk, type ShownPlate } from './plate-pixels';

/** How long after the last save plates are drawn anew, ms. */
const SOON = 250;

type Shown = {
  width: number;
  height: number;
  plates: ShownPlate[];
  look: ImageBitmap;
  beyond: { share: number; mask: Uint8Array } | null;
  /** The state of the layout that they show. */
  doc: LayoutDoc;
};

export const PLATE_MARKS = ['none', 'ink', 'beyond'] as const;
export type PlateMark = (typeof PLATE_MARKS)[number];

/** The plates of a layout that is open: drawn anew after each save, and which of them are looked at. */
export class LayoutPlates {
  open = $state(false);
  settings: PressSettings = $state.raw() as PressSettings;
  profiles: readonly PressProfile[] = $state.raw([]);
  shown: Shown | null = $state.raw(null);
  problem: string | null = $state(null);
  mark: PlateMark = $state('none');
  /** Where the pointer is on the page, px. */
  at: Point | null = $state.raw(null);
  /** The names of plates that are left out. */
  readonly off = new SvelteSet<string>();
  private table: PressTable | null = $state.raw(null);
  private asked = 0;
  private turns = $state(0);

  constructor(
    readonly editor: LayoutEditor,
    settings: PressSettings,
    private readonly palettes: () => readonly PaletteData[],
  ) {
    this.settings = settings;
  }

  /** They are looked at, or not any more. */
  look(open: boolean): void {
    if (open && !this.open) void this.readProfiles();
    this.open = open;
  }

  private readonly inks = $derived.by(() => {
    const { doc, patterns, pages, projectId } = this.editor;
    return inksOfPages(this.palettes(), projectId, [doc, ...pages.values()], [...patterns.values()]);
  });
  /** What the layout is printed with, as a proof takes it. */
  readonly printing = $derived.by((): Pick<ProofContext, 'inks' | 'press'> => {
    const { inkLimit } = this.settings;
    return { inks: this.inks, press: this.table && { view: this.table, inkLimit } };
  });

  /** What lies over the page: nothing while the page is another than the one that was drawn. */
  readonly over = $derived.by(() => {
    const { history } = this.editor;
    return this.open && this.shown && !history.inGesture && this.shown.doc === history.doc
      ? this.shown
      : null;
  });
  /** How much ink lies where in all, and where most of it does. */
  readonly sum = $derived.by(() => this.shown && totalInk(this.shown.plates, this.shown.width));
  readonly on = $derived.by(() => this.shown?.plates.filter(({ name }) => !this.off.has(name)) ?? []);

  /** Draws them after each save while they are looked at; called while a component is made. */
  follow(): void {
    $effect(() => {
      const { profile, intent, blackPoint } = this.settings;
      if (profile === null) return void (this.table = null);
      const asked = { id: profile, query: { intent, blackPoint } };
      void call('GET /press-profiles/{id}/table', asked).then((found) => {
        if (this.settings.profile !== profile || !found.ok) return;
        this.table = new PressTable(bytesOf(found.value.inks), bytesOf(found.value.deltas));
      });
    });
    $effect(() => {
      const { saver, history, lookup } = this.editor;
      const by = [saver.version, this.settings, lookup, history.doc, this.turns];
      if (!this.open || !saver.clean || by.length === 0) return;
      const timer = setTimeout(() => void this.draw(), SOON);
      return () => clearTimeout(timer);
    });
  }

  /** Something that they show may be another: an ink of a palette. */
  stale(): void {
    this.turns += 1;
  }

  private async draw(): Promise<void> {
    const { editor } = this;
    const { doc } = editor.history;
    const turn = (this.asked += 1);
    const found = await call('GET /layouts/{id}/plates', { id: editor.id, query: { side: 1200 } });
    if (turn !== this.asked) return;
    if (!found.ok) {
      this.problem = found.failure.message;
      this.shown = null;
      return;
    }
    const { plates, look, beyond, version, width, height } = found.value;
    // Somebody else saved between: that comes here too, and is drawn then.
    if (version !== editor.saver.version) return;
    const read = await Promise.all(
      plates.map(async ({ picture, ...plate }) => ({ ...plate, ink: await coverageOf(picture) })),
    );
    const mask = beyond && { share: beyond.share, mask: await coverageOf(beyond.picture) };
    const together = await pictureOf(look);
    if (turn !== this.asked) return;
    this.problem = null;
    this.shown = { width, height, plates: read, look: together, beyond: mask, doc };
    if (!mask && this.mark === 'beyond') this.mark = 'none';
  }

  /** Looks at where most ink lies: what is there is said as if the pointer were; answers that place and a little about it, px. */
  lookAtMost(): Box | null {
    const { shown, sum } = this;
    if (!shown || !sum) return null;
    const { width, height } = this.editor.doc;
    this.at = { x: ((sum.at.x + 0.5) / shown.width) * width, y: ((sum.at.y + 0.5) / shown.height) * height };
    const side = Math.min(width, height) / 10;
    return { x: this.at.x - side / 2, y: this.at.y - side / 2, width: side, height: side };
  }

  /** How much of a plate's ink lies under the pointer, 0 to 1; `null` where it is elsewhere. */
  under({ ink }: ShownPlate): number | null {
    const { at, shown } = this;
    const { width, height } = this.editor.doc;
    if (!at || !shown || at.x < 0 || at.y < 0 || at.x >= width || at.y >= height) return null;
    const [x, y] = [Math.floor((at.x / width) * shown.width), Math.floor((at.y / height) * shown.height)];
    return ink[y * shown.width + x]! / 255;
  }

  /** Has the project printed by another press, here and for whoever else works on it. */
  async setSettings(settings: PressSettings): Promise<void> {
    const before = this.settings;
    this.settings = settings;
    const saved = await changeProject(this.editor.projectId, { press: settings });
    if (saved.ok) {
      // What was asked for while it was not saved yet shows the press of before.
      this.settings = { ...settings };
      return;
    }
    if (this.settings === settings) this.settings = before;
    toasts.problem(saved.failure.message);
  }

  async refresh(): Promise<void> {
    const found = await call('GET /projects/{id}', { id: this.editor.projectId });
    if (found.ok) this.settings = found.value.press;
    await this.readProfiles();
  }
  async readProfiles(): Promise<void> {
    const found = await call('GET /press-profiles');
    if (found.ok) this.profiles = found.value;
  }
}
