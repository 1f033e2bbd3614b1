import { PLANE_GROUPS, type PlaneGroup } from '$lib/core/lattice/groups';
import type { Hex } from '$lib/core/colour/parse';
import { ownSize, type MadeBy } from '$lib/core/recipe/made';
import { type Few, type SourcePicture } from '$lib/core/recipe/pictured';
import type { Size } from '$lib/core/lattice/size';
import type { Point } from '$lib/core/geom/point';
import type { BrushStroke } from '$lib/core/geom/brush-stroke';
import type { Histograms, Judged, Pixels, PictureWork, Shown, Ways } from '$lib/contract/picture-work';
import { PictureWorker, Stopped } from '$lib/workers/client';
import { DISTANCES } from '../state/distances';
import type { Proposal } from './proposals';
import { readPixels } from './read-pixels';

/** The picture is worked on at so many px a side at most; what is kept is made from all of it by the server. */
const MOST_SIDE = 2400;
/** A texture is seen with so many px a side at most, its lengths in proportion: it is made anew with each number. */
const TEXTURE_SIDE = 1024;
/** Joins are measured on a unit of so many px a side at most. */
const JUDGED_SIDE = 480;
/** Where a stroke is healed from is looked for in a unit of so many px a side at most. */
const HEALED_SIDE = 1200;

/** Work that takes longer than this, ms, is said. */
const SAID_AFTER = 300;

/** The shorter side of a repeat in the tray, px. */
const TRAY_SIDE = 46;

/** Makes what the picture view shows: one ask of a kind at a time, and after it the newest one that came meanwhile. */
export class Maker {
  private readonly worker = new PictureWorker();
  /** What takes longer has a thread of its own, so that the hand never waits for it. */
  private readonly slow = new PictureWorker();
  /** What only compares waits for nothing, and nothing waits for it. */
  private readonly compared = new PictureWorker();
  unit: (Pixels & { histograms: Histograms }) | null = $state.raw(null);
  tray: ReadonlyMap<PlaneGroup, Pixels> = $state.raw(new Map());
  judged: Judged | null = $state.raw(null);
  ways: Ways | null = $state.raw(null);
  /** Ways to make the unit harder to find, with the figure of each from each distance, and what they were worked out for. */
  proposed: { of: string; offers: (Proposal & { figures: number[] })[] } = $state.raw({ of: '', offers: [] });
  /** How far apart the picture repeats by itself, once that was looked for. */
  period: PictureWork['period']['reply'] | null = $state.raw(null);
  /** Why the picture cannot be shown. */
  fault: string | null = $state(null);
  /** The asset of the picture that the workers have; `null` before the first one. */
  held: string | null = $state(null);
  /** What `judged` was measured of. */
  judgedOf: string = $state('');
  /** Whether the unit takes so long that one sees it being made. */
  making = $state(false);
  private readonly busy = new Set<keyof PictureWork>();
  private readonly next = new Map<keyof PictureWork, () => void>();

  /** The picture that numbers make, as it is worked on. */
  texture: Pixels | null = $state.raw(null);

  /** Brings the picture to the workers: fetched, or made from its numbers. */
  open({ asset, texture }: Pick<SourcePicture, 'asset' | 'texture'>): void {
    this.run('take', async () => {
      if (texture) {
        const made = await this.slow.ask('texture', { texture, most: TEXTURE_SIDE });
        await this.worker.ask('take', { ...made, data: made.data.slice() });
        await this.compared.ask('take', { ...made, data: made.data.slice() });
        this.texture = made;
      } else {
        const read = await readPixels(asset, MOST_SIDE).catch(() => null);
        if (!read)
          return void (this.fault =
            'The picture of this pattern cannot be read any more; bring it in again.');
        await this.slow.ask('take', read);
        await this.compared.ask('take', read);
        await this.worker.ask('take', read, [read.data.buffer]);
      }
      this.held = asset;
      if (!texture) this.run('period', async () => void (this.period = await this.slow.ask('period', null)));
    });
  }

  /** Makes the unit at `scale` px to one of the region's. */
  draw(steps: Shown, scale: number): void {
    this.run('unit', async () => {
      const said = setTimeout(() => (this.making = true), SAID_AFTER);
      try {
        this.unit = await this.worker.ask('unit', { ...steps, scale });
      } finally {
        clearTimeout(said);
        this.making = false;
      }
    });
  }

  drawTray(steps: Shown): void {
    this.run('tray', async () => {
      const made = await this.worker.ask('tray', { ...steps, groups: PLANE_GROUPS, side: TRAY_SIDE });
      this.tray = new Map(PLANE_GROUPS.map((group, index) => [group, made[index]!]));
    });
  }

  /** `size` is that of the unit, px; `of` tells what is measured from what was before. */
  judge(steps: Shown, size: Size, of: string): void {
    this.run('judge', async () => {
      this.judged = await this.slow.ask('judge', {
        ...steps,
        size,
        most: JUDGED_SIDE,
        distances: DISTANCES.map(({ px }) => px),
      });
      this.judgedOf = of;
    });
  }

  /** What each way to join would come to; a symmetry has none. */
  compare(steps: Shown): void {
    if (steps.pictured.symmetry.on) return void (this.ways = null);
    this.run('ways', async () => {
      this.ways = await this.compared.ask('ways', { ...steps, most: JUDGED_SIDE });
    });
  }

  /** What each way to make the unit harder to find would come to, worked out while `of` is what is shown. */
  propose(proposals: readonly Proposal[], colours: readonly Hex[], of: string): void {
    this.run('proposals', async () => {
      const figures = await this.compared.ask('proposals', {
        asked: proposals.map(({ recipe: { pictured, lay, unit } }) => ({
          pictured,
          lay,
          colours,
          size: unit,
        })),
        most: JUDGED_SIDE,
        distances: DISTANCES.map(({ px }) => px),
      });
      this.proposed = { of, offers: proposals.map((one, index) => ({ ...one, figures: figures[index]! })) };
    });
  }

  /** The colours that tell the unit best; `null` where others are looked for meanwhile. */
  async findColours(steps: MadeBy, how: Few['how'], count: number): Promise<Hex[] | null> {
    try {
      return await this.slow.ask('colours', { ...steps, how, count });
    } catch (error) {
      if (error instanceof Stopped) return null;
      throw error;
    }
  }

  /** From where a stroke is healed best; `null` where the work was stopped. */
  async healFrom(steps: MadeBy, stroke: BrushStroke): Promise<Point | null> {
    try {
      return await this.slow.ask('healFrom', { ...steps, stroke, most: HEALED_SIDE });
    } catch (error) {
      if (error instanceof Stopped) return null;
      throw error;
    }
  }

  /** Gives up what is being made, and has the picture brought again to threads that are free. */
  restart(source: Pick<SourcePicture, 'asset' | 'texture'>): void {
    this.stop();
    this.held = null;
    // What was given up says so first, and lets its kind go.
    setTimeout(() => this.open(source));
  }

  stop(): void {
    this.next.clear();
    this.worker.stop();
    this.slow.stop();
    this.compared.stop();
  }

  private run(kind: keyof PictureWork, work: () => Promise<void>): void {
    if (this.busy.has(kind)) {
      this.next.set(kind, () => this.run(kind, work));
      return;
    }
    this.busy.add(kind);
    work()
      .catch((error: unknown) => {
        if (!(error instanceof Stopped)) this.fault = 'This could not be made; change the last number back.';
      })
      .finally(() => {
        this.busy.delete(kind);
        const next = this.next.get(kind);
        this.next.delete(kind);
        next?.();
      });
  }
}

/** How many px of the made unit a px of the screen shows at most one of, so that nothing is made larger than it is seen. */
export function unitScale(steps: MadeBy, shownWidth: number): number {
  const { width } = ownSize(steps.pictured);
  return Math.min(1, Math.max(16, shownWidth) / width);
}
