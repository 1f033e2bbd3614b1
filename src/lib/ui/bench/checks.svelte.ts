import type { CheckReply } from '$lib/contract/bench-work';
import { coveredShare, whiteShare } from '$lib/core/raster/coverage';
import { judgeJoins } from '$lib/core/raster/join';
import type { Recipe } from '$lib/core/recipe/recipe';
import { usedSlots } from '$lib/core/recipe/edit';
import { compileUnit, withoutGround } from '$lib/core/scene/unit';
import { seenSmaller } from '../state/smaller-pictures';
import { cellMarkup, underlayWidth } from '$lib/core/svg/pieces';
import { BenchWorker, Stopped } from '$lib/workers/client';
import { rasterOf } from '../state/raster';
import { MANY_PIECES } from './fresh';

/** Art nearer than this is called "nearly touching", px: half a millimetre. */
export const NEAR = 0.5 * (96 / 25.4);
/** Pictures for coverage and joins have about so many px a side. */
const SIDE = 384;

export type Coverage = { total: number; bySlot: { slot: string; share: number }[] };
export type Joins = { visible: boolean; where: string };

/** What the checks found out about the recipe on the bench. Newer work replaces older; the last answers stay until then. */
export class Checks {
  reply: CheckReply | null = $state.raw(null);
  coverage: Coverage | null = $state.raw(null);
  joins: Joins | null = $state.raw(null);
  running = $state(false);
  private readonly worker: BenchWorker;
  private turn = 0;

  constructor(worker: BenchWorker) {
    this.worker = worker;
  }

  /** Looks at a recipe that is sound; answers of an older look are dropped. */
  async look(recipe: Recipe): Promise<void> {
    const turn = (this.turn += 1);
    this.running = true;
    try {
      const [reply, pictures] = await Promise.all([
        this.worker.ask('checks', { recipe, near: NEAR }),
        lookAtPictures(recipe),
      ]);
      if (turn !== this.turn) return;
      this.reply = reply;
      this.coverage = pictures.coverage;
      this.joins = pictures.joins;
    } catch (error) {
      if (!(error instanceof Stopped)) throw error;
    } finally {
      if (turn === this.turn) this.running = false;
    }
  }
}

const manyPieces = (recipe: Recipe): boolean =>
  recipe.kind === 'composed' && recipe.placings.length > MANY_PIECES;

async function lookAtPictures(recipe: Recipe): Promise<{ coverage: Coverage; joins: Joins }> {
  // Coverage and joins do not change by the underlay, and among thousands of pieces its search would hold the page.
  const scene = compileUnit(recipe, { upright: true, skipAbutments: manyPieces(recipe) });
  const bare = withoutGround(scene);
  const { width, height } = scene.cell;
  const fit = SIDE / Math.max(width, height);
  const size = { width: Math.max(8, Math.round(width * fit)), height: Math.max(8, Math.round(height * fit)) };
  const svg = (drawn: string): string => {
    const markup = seenSmaller(drawn, scene, fit, new Map());
    return `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}" viewBox="0 0 ${width} ${height}" preserveAspectRatio="none">${markup}</svg>`;
  };
  const underlay = underlayWidth(fit);
  const real = Object.fromEntries(recipe.slots.map((slot) => [slot.id, slot.colour]));
  const whole = await rasterOf(svg(cellMarkup(bare, real, underlay)), size.width, size.height);
  const inks = [...usedSlots({ ...recipe, ground: { kind: 'clear' } })];
  const bySlot = await Promise.all(
    inks.map(async (slot) => {
      const colours = Object.fromEntries(
        recipe.slots.map(({ id }) => [id, id === slot ? '#ffffff' : '#000000']),
      );
      const raster = await rasterOf(svg(cellMarkup(bare, colours, underlay)), size.width, size.height);
      return { slot, share: whiteShare(raster) };
    }),
  );
  const judged = judgeJoins(whole);
  const where = [judged.across.visible ? 'left and right' : '', judged.down.visible ? 'top and bottom' : '']
    .filter((side) => side !== '')
    .join(', ');
  return {
    coverage: { total: coveredShare(whole), bySlot: bySlot.sort((one, other) => other.share - one.share) },
    joins: { visible: where !== '', where },
  };
}
