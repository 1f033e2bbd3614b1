import { clamp } from '../num/tolerance';
import { groupOf, grows, ownSize, strokesOf, type Pictured, type PictureLay } from '../recipe/pictured';
import type { Raster } from '../raster/composite';
import { smoothPart } from './fourier';
import { Folder, foldOf, mirrorEdges, type PartEdge } from '../lattice/fold';
import { grow } from './grow';
import { joinDown, transposed } from './join';
import { mirrored, sampleCubic, type Sample } from './patch';
import { retouch } from './retouch';
import { placing, type Place } from './straight';
import { toneChange } from './tone';

/** A picture as it is at hand: perhaps smaller than it is, `scale` px of it to one of its own. */
export type AtHand = { picture: Raster; scale: number };

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
  const look = lookOf(at, pictured);
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

/** A sample of the region at (u, v) px from its upper left corner, through its tone. */
type Look = (u: number, v: number, into: Sample) => void;

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

function lookOf({ picture, scale }: AtHand, pictured: Pictured): Look {
  const place = placing(pictured.region, scale);
  const spot = { x: 0, y: 0 };
  const change = toneChange(pictured.tone);
  const even = pictured.tone.on && pictured.tone.even > 0 ? evenLight(picture, place, pictured) : null;
  return (u, v, into) => {
    place(u, v, spot);
    sampleCubic(picture, spot.x, spot.y, into);
    even?.(u, v, into);
    change?.(into);
  };
}

/** Samples along the longer side from which a slow change of light is read. */
const EVEN_SIDE = 64;

/** Takes a slow change of light over the region away: the smooth part of the region, seen from afar. */
function evenLight(
  picture: Raster,
  place: Place,
  { region, tone }: Pictured,
): (u: number, v: number, into: Sample) => void {
  const fit = EVEN_SIDE / Math.max(region.width, region.height);
  const width = Math.max(2, Math.round(region.width * fit));
  const height = Math.max(2, Math.round(region.height * fit));
  const rasters = meanOver(picture, place, region, width, height);
  const parts = rasters.map((values) => smoothPart({ width, height, values }).values);
  return (u, v, into) => {
    const x = clamp((u / region.width) * width - 0.5, 0, width - 1);
    const y = clamp((v / region.height) * height - 0.5, 0, height - 1);
    const [left, top] = [Math.min(width - 2, Math.floor(x)), Math.min(height - 2, Math.floor(y))];
    const [fx, fy] = [x - left, y - top];
    const alpha = into[3]! / 255;
    for (let channel = 0; channel < 3; channel += 1) {
      const part = parts[channel]!;
      const at = top * width + left;
      const upper = part[at]! * (1 - fx) + part[at + 1]! * fx;
      const lower = part[at + width]! * (1 - fx) + part[at + width + 1]! * fx;
      into[channel] = into[channel]! - tone.even * alpha * (upper * (1 - fy) + lower * fy);
    }
  };
}

/** The mean of a region over a grid, channel by channel: so many samples to a field that a slow change is read, not a detail. */
function meanOver(
  picture: Raster,
  place: Place,
  region: { width: number; height: number },
  width: number,
  height: number,
): Float64Array[] {
  const SAMPLES = 4;
  const channels = [0, 1, 2].map(() => new Float64Array(width * height));
  const sample: Sample = new Float64Array(4);
  const spot = { x: 0, y: 0 };
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1)
      for (let at = 0; at < SAMPLES ** 2; at += 1) {
        const u = ((x + ((at % SAMPLES) + 0.5) / SAMPLES) / width) * region.width;
        const v = ((y + (Math.floor(at / SAMPLES) + 0.5) / SAMPLES) / height) * region.height;
        place(u, v, spot);
        sampleCubic(picture, spot.x, spot.y, sample);
        for (let channel = 0; channel < 3; channel += 1)
          channels[channel]![y * width + x]! += sample[channel]! / SAMPLES ** 2;
      }
  return channels;
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
  const sample: Sample = new Float64Array(4);
  const [stepX, stepY] = [region.width / width, region.height / height];
  for (let y = 0; y < high; y += 1)
    for (let x = 0; x < wide; x += 1) {
      look((x - across + 0.5) * stepX, (y - down + 0.5) * stepY, sample);
      write(data, (y * wide + x) * 4, sample);
    }
  return { width: wide, height: high, data };
}

/** The region folded by its plane group; where images meet without a mirror between them, a pixel is the mean of its quarters. */
function folded(look: Look, pictured: Pictured, scale: number): Raster {
  const fold = foldOf(groupOf(pictured), pictured.region);
  const { width, height } = ownSize(pictured, scale);
  const folder = new Folder(fold);
  const [stepX, stepY] = [fold.cell.width / width, fold.cell.height / height];
  const data = new Uint8Array(width * height * 4);
  const sample: Sample = new Float64Array(4);
  const sum: Sample = new Float64Array(4);
  const wide = pictured.symmetry.heal ?? 0;
  const inward = wide > 0 ? healed(mirrorEdges(fold), wide) : null;
  const place = { u: 0, v: 0 };
  const lookAt = (x: number, y: number): void => {
    const { a, b, c, d, e, f } = fold.images[folder.find(x, y)]!;
    place.u = a * x + c * y + e;
    place.v = b * x + d * y + f;
    inward?.(place);
    look(place.u, place.v, sample);
  };
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const [middleX, middleY] = [(x + 0.5) * stepX, (y + 0.5) * stepY];
      const index = folder.find(middleX, middleY);
      const meets = QUARTERS.some(
        ([dx, dy]) => folder.find(middleX + dx * CORNER * stepX, middleY + dy * CORNER * stepY) !== index,
      );
      if (!meets) {
        lookAt(middleX, middleY);
        write(data, (y * width + x) * 4, sample);
        continue;
      }
      sum.fill(0);
      for (const [dx, dy] of QUARTERS) {
        lookAt(middleX + dx * stepX, middleY + dy * stepY);
        for (let channel = 0; channel < 4; channel += 1) sum[channel]! += sample[channel]! / 4;
      }
      write(data, (y * width + x) * 4, sum);
    }
  return { width, height, data };
}

/** Beside a healed line so many times its half the region is drawn in, less and less. */
const HEAL_REACH = 6;

/**
 * Moves a place of the region away from its mirror lines, so that `wide` px along each of them are never seen: what was
 * drawn there, an edge that does not quite meet its image, is gone, and what lies beside it moves up without being blurred.
 */
function healed(edges: readonly PartEdge[], wide: number): (place: { u: number; v: number }) => void {
  const half = wide / 2;
  const reach = half * HEAL_REACH;
  return (place) => {
    for (const { x, y, nx, ny } of edges) {
      const far = Math.max(0, (place.u - x) * nx + (place.v - y) * ny);
      if (far >= reach) continue;
      const by = half * (1 - far / reach);
      place.u += by * nx;
      place.v += by * ny;
    }
  };
}

/** From a quarter of a pixel nearly to its corner: a line between two pixels goes through neither. */
const CORNER = 1.99;

const QUARTERS = [
  [-0.25, -0.25],
  [0.25, -0.25],
  [-0.25, 0.25],
  [0.25, 0.25],
] as const;

/** Writes a sample as eight bits, premultiplied: no channel above its alpha. */
function write(data: Uint8Array, at: number, sample: Sample): void {
  const alpha = clamp(Math.round(sample[3]!), 0, 255);
  for (let channel = 0; channel < 3; channel += 1)
    data[at + channel] = clamp(Math.round(sample[channel]!), 0, alpha);
  data[at + 3] = alpha;
}
