import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { foldOf } from '../lattice/fold';
import type { Size } from '../lattice/size';
import { fewOf, FRESH_SCREEN, groupOf, grows, strokesOf, type Pictured, type PictureLay } from './pictured';

/** The steps that a unit is made by; what it is used for, its size in the end and its ground are no part of them. */
export type MadeBy = { pictured: Pictured; lay: PictureLay };

/** How many px the unit has that the steps make before it is resampled, at `scale` px to one of the region's. */
export function ownSize(pictured: Pictured, scale = 1): Size {
  const { cell } = foldOf(groupOf(pictured), pictured.region);
  const times = grows(pictured) ? pictured.join.times : 1;
  return {
    width: times * Math.max(1, Math.round(cell.width * scale)),
    height: times * Math.max(1, Math.round(cell.height * scale)),
  };
}

/** How many px the unit that is made has in the end. */
export function madeSize(pictured: Pictured): Size {
  const own = ownSize(pictured);
  const { size } = pictured;
  if (!size?.on) return own;
  const width = Math.max(1, Math.round(size.width));
  return { width, height: Math.max(1, Math.round((width * own.height) / own.width)) };
}

/** Counts up when the same steps make other bytes than before. */
const ENGINE = 1;

/**
 * The name of the picture that steps make: the SHA-256 of the source, the steps that do something and the version of
 * what makes them, so that equal work has one name.
 */
export function madeAsset({ pictured, lay }: MadeBy): string {
  const { source, region, symmetry, tone, join } = pictured;
  const few = fewOf(pictured);
  const strokes = strokesOf(pictured);
  const group = groupOf(pictured);
  const joined = join.on && group === 'p1';
  const { on: _, ...numbers } = tone;
  const steps = [
    ENGINE,
    source.asset,
    region.corners
      ? [region.corners.map(({ x, y }) => [x, y]), region.width, region.height]
      : [region.x, region.y, region.width, region.height, region.turn],
    symmetry.on && symmetry.heal ? [group, symmetry.heal] : group,
    tone.on ? Object.entries(numbers).sort(([one], [other]) => (one < other ? -1 : 1)) : null,
    joined ? [join.how, ...(grows(pictured) ? [join.times, join.seed] : [join.band, join.feather])] : null,
    joined && lay.kind !== 'straight' ? [lay.kind, lay.step] : null,
    ...(few
      ? [[few.how, few.colours, few.how === 'halftone' ? (few.screen ?? FRESH_SCREEN) : few.speck, lay]]
      : []),
    ...(strokes.length > 0 ? [{ strokes, lay }] : []),
    ...(pictured.size?.on ? [{ size: [Math.round(pictured.size.width), pictured.size.filter], lay }] : []),
  ];
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(steps))));
}
