import type { CheckReply, PicturesAsk, PicturesReply } from '$lib/contract/bench-work';
import { resolveSlots } from '$lib/core/colour/slots';
import { coveredShare, whiteShare } from '$lib/core/raster/coverage';
import { judgeJoins } from '$lib/core/raster/join';
import { showsPicture, type Recipe } from '$lib/core/recipe/recipe';
import { usedSlots } from '$lib/core/recipe/edit';
import { compileUnit, withoutGround, type UnitScene } from '$lib/core/scene/unit';
import { seenSmaller } from '../state/smaller-pictures';
import { cellMarkup, underlayWidth } from '$lib/core/svg/pieces';
import { tileMarkup } from '$lib/core/svg/tile';
import type { Size } from '$lib/core/lattice/size';
import { DISTANCES } from '../state/distances';
import { BenchWorker, Stopped } from '$lib/workers/client';
import { rasterOf } from '../state/raster';
import { MANY_PIECES } from './fresh';

/** Art nearer than this is called "nearly touching", px: half a millimetre. */
export const NEAR = 0.5 * (96 / 25.4);
/** Pictures for coverage and joins have about so many px a side. */
const SIDE = 384;
/** Joins of pictures are measured on a cell of so many px a side at most. */
const MEASURED_SIDE = 480;

export type Coverage = { total: number; bySlot: { slot: string; share: number }[] };
export type Joins = { visible: boolean; where: string };

/** What the checks found out about the recipe on the bench. Newer work replaces older; the last answers stay until then. */
export class Checks {
  reply: CheckReply | null = $state.raw(null);
  coverage: Coverage | null = $state.raw(null);
  joins: Joins | null = $state.raw(null);
  /** Of a pattern with pictures: its joins, and how strongly its unit is found. */
  pictures: PicturesReply | null = $state.raw(null);
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
      // Coverage and joins do not change by the underlay, and among thousands of pieces its search would hold the page.
      const scene = compileUnit(recipe, { upright: true, skipAbutments: manyPieces(recipe) });
      const [reply, seen, pictures] = await Promise.all([
        this.worker.ask('checks', { recipe, near: NEAR }),
        lookAtDrawing(recipe, scene),
        this.measurePictures(recipe, scene),
      ]);
      if (turn !== this.turn) return;
      this.reply = reply;
      this.coverage = seen.coverage;
      this.joins = seen.joins;
      this.pictures = pictures;
    } catch (error) {
      if (!(error instanceof Stopped)) throw error;
    } finally {
      if (turn === this.turn) this.running = false;
    }
  }

  private async measurePictures(recipe: Recipe, scene: UnitScene): Promise<PicturesReply | null> {
    const cell = await cellWithPictures(recipe, scene);
    return cell && this.worker.ask('pictures', { ...cell, distances: DISTANCES.map(({ px }) => px) });
  }
}

const manyPieces = (recipe: Recipe): boolean =>
  recipe.kind === 'composed' && recipe.placings.length > MANY_PIECES;

/** One cell of a pattern with pictures as it is seen, over its ground; `null` where it has none. */
async function cellWithPictures(
  recipe: Recipe,
  scene: UnitScene,
): Promise<Omit<PicturesAsk, 'distances'> | null> {
  if (recipe.kind !== 'composed' || !recipe.motifs.some(({ content }) => showsPicture(content))) return null;
  const { width, height, matrix } = scene.cell;
  const fit = MEASURED_SIDE / Math.max(width, height);
  const size = pixelSize(scene.cell, fit);
  const drawn = seenSmaller(tileMarkup(scene, resolveSlots(recipe.slots, {}), fit), scene, fit, new Map());
  const picture = await rasterOf(cellSvg(drawn, { width, height }, size), size.width, size.height);
  return { picture, size: { width, height }, matrix };
}

const pixelSize = ({ width, height }: Size, fit: number): Size => ({
  width: Math.max(8, Math.round(width * fit)),
  height: Math.max(8, Math.round(height * fit)),
});

const cellSvg = (drawn: string, { width, height }: Size, pixels: Size): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${pixels.width}" height="${pixels.height}" viewBox="0 0 ${width} ${height}" preserveAspectRatio="none">${drawn}</svg>`;

async function lookAtDrawing(
  recipe: Recipe,
  scene: UnitScene,
): Promise<{ coverage: Coverage; joins: Joins }> {
  const bare = withoutGround(scene);
  const { width, height } = scene.cell;
  const fit = SIDE / Math.max(width, height);
  const size = pixelSize(scene.cell, fit);
  const svg = (drawn: string): string =>
    cellSvg(seenSmaller(drawn, scene, fit, new Map()), { width, height }, size);
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
