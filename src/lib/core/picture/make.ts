import { clamp } from '../num/tolerance';
import { ownSize } from '../recipe/made';
import { groupOf, grows, strokesOf, type Pictured, type PictureLay } from '../recipe/pictured';
import type { Raster } from '../raster/composite';
import { folded } from './folded';
import { grow } from './grow';
import { joinDown, transposed } from './join';
import { Look, writeSamples, type AtHand } from './look';
import { mirrored } from './patch';
import { retouch } from './retouch';
import { toneChange } from './tone';

export type { AtHand };

/** Whether the join of a repeat does anything: a region as it is has edges to meet, mirror images meet by themselves. */
export const joins = (pictured: Pictured): boolean => pictured.join.on && groupOf(pictured) === 'p1';

/**
 * Makes one unit of a repeat: the region of the picture through its tone, folded by its symmetry, its edges made to
 * meet, what is painted on it. `scale` px of it are made to one of the region's. The same numbers give the same bytes.
 */
export function makeUnit(at: AtHand, pictured: Pictured, lay: PictureLay, scale = 1): Raster {
  const unit = joinedUnit(at, pictured, lay, scale);
  paintUnit(unit, at, pictured, lay, scale);
  return unit;
}

/** Lays the strokes of a repeat on its unit as {@link joinedUnit} made it, in place. */
export function paintUnit(
  unit: Raster,
  at: AtHand,
  pictured: Pictured,
  lay: PictureLay,
  scale: number,
): void {
  const strokes = strokesOf(pictured);
  if (strokes.length === 0) return;
  const mixes = joins(pictured) && !grows(pictured) && strokes.some(({ does }) => does === 'keep');
  const bare = { ...pictured, join: { ...pictured.join, on: false } };
  retouch(unit, mixes ? joinedUnit(at, bare, lay, scale) : null, strokes, lay, scale);
}

/** The unit before anything is painted on it. */
export function joinedUnit(at: AtHand, pictured: Pictured, lay: PictureLay, scale: number): Raster {
  const look = new Look(at, pictured);
  if (groupOf(pictured) !== 'p1') return folded(look, pictured, scale);
  const times = grows(pictured) ? pictured.join.times : 1;
  const made = ownSize(pictured, scale);
  const { width, height } = { width: made.width / times, height: made.height / times };
  const cut = (margin: number): Raster =>
    wholePixels(at, pictured, { width, height }, margin, margin) ??
    cropped(look, pictured, { width, height }, margin, margin);
  if (!joins(pictured)) return cut(0);
  if (grows(pictured)) return grow(cut(0), pictured.join.times, pictured.join.seed);
  const band = clamp(pictured.join.band * scale, 2, Math.min(width, height));
  const margin = Math.ceil(band / 2);
  // One picture after the other is joined: first the edges along which nothing shifts, over the margins of the others too.
  const whole = cut(margin);
  const step = lay.kind === 'straight' ? 0 : lay.step;
  const join = { ...pictured.join, feather: pictured.join.feather * Math.min(1, scale) };
  if (lay.kind !== 'half-drop') {
    const across = transposed(
      joinDown({ picture: transposed(whole), margin, shift: 0, closed: false }, join, band),
    );
    return joinDown({ picture: across, margin, shift: Math.round(step * width), closed: true }, join, band);
  }
  const down = joinDown({ picture: whole, margin, shift: 0, closed: false }, join, band);
  const turned = { picture: transposed(down), margin, shift: Math.round(step * height), closed: true };
  return transposed(joinDown(turned, join, band));
}

/** The picture's own pixels from its upper left corner on, where a region lies on them and nothing is done to its colours. */
function wholePixels(
  { picture, scale }: AtHand,
  pictured: Pictured,
  size: { width: number; height: number },
  across: number,
  down: number,
): Raster | null {
  const { region, tone } = pictured;
  const [left, top] = [region.x - region.width / 2, region.y - region.height / 2];
  if (region.corners) return null;
  const lies = Number.isInteger(left) && Number.isInteger(top) && region.turn === 0 && scale === 1;
  const own = size.width === region.width && size.height === region.height;
  if (!lies || !own || toneChange(tone) || (tone.on && tone.even > 0)) return null;
  const wide = size.width + 2 * across;
  const high = size.height + 2 * down;
  const data = new Uint8Array(wide * high * 4);
  const columns = Int32Array.from({ length: wide }, (_, x) => mirrored(left - across + x, picture.width) * 4);
  for (let y = 0; y < high; y += 1) {
    const from = mirrored(top - down + y, picture.height) * picture.width * 4;
    for (let x = 0; x < wide; x += 1) {
      const at = from + columns[x]!;
      const to = (y * wide + x) * 4;
      data[to] = picture.data[at]!;
      data[to + 1] = picture.data[at + 1]!;
      data[to + 2] = picture.data[at + 2]!;
      data[to + 3] = picture.data[at + 3]!;
    }
  }
  return { width: wide, height: high, data };
}

/** The region with `across` px more at its left and right and `down` px more above and below. */
function cropped(
  look: Look,
  { region }: Pictured,
  { width, height }: { width: number; height: number },
  across: number,
  down: number,
): Raster {
  const wide = width + 2 * across;
  const high = height + 2 * down;
  const data = new Uint8Array(wide * high * 4);
  const places = new Float64Array(2 * wide);
  const [stepX, stepY] = [region.width / width, region.height / height];
  for (let y = 0; y < high; y += 1) {
    for (let x = 0; x < wide; x += 1) {
      places[2 * x] = (x - across + 0.5) * stepX;
      places[2 * x + 1] = (y - down + 0.5) * stepY;
    }
    writeSamples(look.see(places, wide), wide, data, y * wide * 4);
  }
  return { width: wide, height: high, data };
}
