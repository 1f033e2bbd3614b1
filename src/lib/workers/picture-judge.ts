import type { Judged, PictureWork, Shown, Ways } from '../contract/picture-work';
import { joins } from '../core/picture/make';
import { cellOfUnit, repeatFigure } from '../core/picture/repeat';
import { seamsOf, type Seams } from '../core/picture/seam';
import type { Size } from '../core/lattice/size';
import type { Raster } from '../core/raster/composite';
import { ownSize } from '../core/recipe/made';
import { grows, JOIN_KINDS, type JoinKind, type Pictured } from '../core/recipe/pictured';

/** Makes a unit as it is seen. */
type See = (steps: Shown, scale: number) => Raster;

/** So many px a side at most are made to be measured: of the unit as it is without its join. */
const scaleFor = (pictured: Pictured, most: number): number => {
  const { width, height } = ownSize(withJoin(pictured, { on: false }));
  return Math.min(1, most / Math.max(width, height));
};

const withJoin = (pictured: Pictured, join: Partial<Pictured['join']>): Pictured => ({
  ...pictured,
  join: { ...pictured.join, ...join },
});

/** What was painted is no part of a join: ways to join are told apart by what they do alone. */
const unpainted = (pictured: Pictured): Pictured => ({ ...pictured, retouch: { on: false, strokes: [] } });

function measured(see: See, steps: Shown, scale: number): { unit: Raster; seams: Seams } {
  const unit = see(steps, scale);
  const { pictured, lay } = steps;
  const band = joins(pictured) && !grows(pictured) ? pictured.join.band * scale : 0;
  return { unit, seams: seamsOf(unit, lay, band) };
}

/** The joins as they were cut and as they are now, and how strongly the unit is found from each distance. */
export function judgeSeen(
  see: See,
  { most, size, distances, ...steps }: PictureWork['judge']['ask'],
): Judged {
  const { pictured } = steps;
  const scale = scaleFor(pictured, most);
  const bare = withJoin(unpainted(pictured), { on: false });
  const before = measured(see, { ...steps, pictured: bare }, scale).seams;
  const now = measured(see, steps, scale);
  const cell = cellOfUnit(now.unit, size, steps.lay);
  const { width, height } = ownSize(bare);
  const { band } = pictured.join;
  const inner = Math.max(0, ((width - band) * (height - band)) / (width * height));
  return {
    before,
    now: now.seams,
    untouched: !joins(pictured) ? 1 : grows(pictured) ? 0 : inner,
    repeat: distances.map((distance) => repeatFigure(cell, distance)),
  };
}

/** What each way to join would come to. */
export function waysSeen(see: See, { most, ...steps }: PictureWork['ways']['ask']): Ways {
  const scale = scaleFor(steps.pictured, most);
  const figure = (how: JoinKind): number => {
    const pictured = withJoin(unpainted(steps.pictured), { on: true, how });
    const lay = how === 'grown' ? ({ kind: 'straight' } as const) : steps.lay;
    return measured(see, { ...steps, pictured, lay }, scale).seams.figure;
  };
  return Object.fromEntries(JOIN_KINDS.map((how) => [how, figure(how)])) as Ways;
}

/** How strongly another unit would be found from each distance. */
export function foundSeen(
  see: See,
  { size, ...steps }: Shown & { size: Size },
  most: number,
  distances: readonly number[],
): number[] {
  const unit = see(steps, scaleFor(steps.pictured, most));
  const cell = cellOfUnit(unit, size, steps.lay);
  return distances.map((distance) => repeatFigure(cell, distance).figure);
}
