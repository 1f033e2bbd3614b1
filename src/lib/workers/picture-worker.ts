import type { Judged, PictureWork, Pixels } from '../contract/picture-work';
import { regionFor } from '../core/lattice/fold';
import { joins, makeUnit, type AtHand } from '../core/picture/make';
import { ownPeriod } from '../core/picture/period';
import { repeatFigure } from '../core/picture/repeat';
import { seamsOf, type Seams } from '../core/picture/seam';
import { JOIN_KINDS, madeSize, type JoinKind, type MadeBy } from '../core/recipe/pictured';
import { premultiply, straighten } from '../core/raster/alpha';
import type { Raster } from '../core/raster/composite';
import { resample } from '../core/raster/resample';

/** The work of the picture view, off the page's thread: the same code that makes the picture at full size. */
type Workers = { [K in keyof PictureWork]: (ask: PictureWork[K]['ask']) => PictureWork[K]['reply'] };

let atHand: AtHand | null = null;

/** Periods are looked for in a picture of so many px a side at most. */
const PERIOD_SIDE = 900;

const make = ({ pictured, lay }: MadeBy, scale: number): Raster => {
  if (!atHand) throw new Error('There is no picture yet.');
  return makeUnit(atHand, pictured, lay, scale);
};

const WORK: Workers = {
  take({ width, height, data, scale }) {
    premultiply(data);
    atHand = { picture: { width, height, data: new Uint8Array(data.buffer) }, scale };
    return null;
  },
  unit({ scale, ...steps }) {
    const unit = make(steps, scale);
    return { ...pixelsOf(unit), histogram: histogramOf(unit) };
  },
  tray({ groups, side, pictured, lay: _ }) {
    return groups.map((group) => {
      const region = regionFor(pictured.region, group);
      const join = { ...pictured.join, on: false };
      const steps = { ...pictured, region, join, symmetry: { on: true, group } };
      const { width, height } = madeSize(steps);
      return pixelsOf(make({ pictured: steps, lay: { kind: 'straight' } }, side / Math.min(width, height)));
    });
  },
  period() {
    if (!atHand) return { across: null, down: null };
    const { picture, scale } = atHand;
    const fit = Math.min(1, PERIOD_SIDE / Math.max(picture.width, picture.height));
    const [width, height] = [Math.round(picture.width * fit), Math.round(picture.height * fit)];
    const { across, down } = ownPeriod(fit < 1 ? resample(picture, width, height) : picture);
    const px = (length: number | undefined, own: number, seen: number): number | null =>
      length === undefined ? null : (length * own) / seen / scale;
    return {
      across: px(across?.length, picture.width, width),
      down: px(down?.length, picture.height, height),
    };
  },
  judge({ most, size, distances, ...steps }): Judged {
    const { pictured, lay } = steps;
    const { join } = pictured;
    const bare = { ...pictured, join: { ...join, on: false } };
    const plain = madeSize(bare);
    const scale = Math.min(1, most / Math.max(plain.width, plain.height));
    const before = seamsOf(make({ pictured: bare, lay }, scale), lay);
    const way = (how: JoinKind): { unit: Raster; seams: Seams } => {
      const straight = how === 'grown' ? ({ kind: 'straight' } as const) : lay;
      const unit = make(
        { pictured: { ...pictured, join: { ...join, on: true, how } }, lay: straight },
        scale,
      );
      return { unit, seams: seamsOf(unit, straight, how === 'grown' ? 0 : join.band * scale) };
    };
    const each = pictured.symmetry.on ? null : new Map(JOIN_KINDS.map((how) => [how, way(how)] as const));
    const joined = joins(pictured) ? each?.get(join.how) : undefined;
    const unit = joined?.unit ?? make(steps, scale);
    const inner = (plain.width - join.band) * (plain.height - join.band);
    return {
      before,
      now: joined?.seams ?? before,
      ways:
        each &&
        (Object.fromEntries([...each].map(([how, { seams }]) => [how, seams.figure])) as Record<
          JoinKind,
          number
        >),
      untouched: !joined ? 1 : join.how === 'grown' ? 0 : Math.max(0, inner / (plain.width * plain.height)),
      repeat: distances.map((distance) => repeatFigure(unit, size, distance)),
    };
  },
};

/** Premultiplied → straight, as canvases have it. */
function pixelsOf({ width, height, data }: Raster): Pixels {
  const out = new Uint8ClampedArray(data.length);
  out.set(data);
  straighten(out);
  return { width, height, data: out };
}

/** How many pixels have each of 64 brightnesses (Rec. 709 luma of the encoded channels). */
function histogramOf({ data }: Raster): number[] {
  const counts = new Array<number>(64).fill(0);
  for (let at = 0; at < data.length; at += 4)
    counts[Math.floor((0.2126 * data[at]! + 0.7152 * data[at + 1]! + 0.0722 * data[at + 2]!) / 4)]! += 1;
  return counts;
}

addEventListener('message', ({ data }: MessageEvent<{ id: number; kind: keyof PictureWork; ask: never }>) => {
  const { id, kind, ask } = data;
  try {
    postMessage({ id, reply: WORK[kind](ask) });
  } catch (error) {
    postMessage({ id, fault: error instanceof Error ? error.message : String(error) });
  }
});
