import type { Judged, PictureWork, Pixels } from '../contract/picture-work';
import { regionFor } from '../core/lattice/fold';
import { joins, makeUnit, type AtHand } from '../core/picture/make';
import { seamsOf } from '../core/picture/seam';
import { JOIN_KINDS, madeSize, type MadeBy } from '../core/recipe/pictured';
import type { Raster } from '../core/raster/composite';

/** The work of the picture view, off the page's thread: the same code that makes the picture at full size. */
type Workers = { [K in keyof PictureWork]: (ask: PictureWork[K]['ask']) => PictureWork[K]['reply'] };

let atHand: AtHand | null = null;

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
  judge({ most, ...steps }): Judged {
    const { pictured, lay } = steps;
    const size = madeSize(pictured);
    const scale = Math.min(1, most / Math.max(size.width, size.height));
    const band = pictured.join.band * scale;
    const bare = { ...pictured, join: { ...pictured.join, on: false } };
    const before = seamsOf(make({ pictured: bare, lay }, scale), lay);
    const joined = joins(pictured);
    const figure = (how: (typeof JOIN_KINDS)[number]) =>
      seamsOf(
        make({ pictured: { ...pictured, join: { ...pictured.join, on: true, how } }, lay }, scale),
        lay,
        band,
      );
    const each = pictured.symmetry.on ? null : JOIN_KINDS.map((how) => [how, figure(how)] as const);
    const now = (joined && each?.find(([how]) => how === pictured.join.how)?.[1]) || before;
    const [inner, outer] = [
      (size.width - pictured.join.band) * (size.height - pictured.join.band),
      size.width * size.height,
    ];
    return {
      before,
      now,
      ways: each && {
        fade: each[0]![1].figure,
        cut: each[1]![1].figure,
        level: each[2]![1].figure,
      },
      untouched: joined ? Math.max(0, inner / outer) : 1,
    };
  },
};

function premultiply(data: Uint8ClampedArray): void {
  for (let at = 0; at < data.length; at += 4) {
    const alpha = data[at + 3]!;
    if (alpha === 255) continue;
    for (let channel = at; channel < at + 3; channel += 1) data[channel] = (data[channel]! * alpha) / 255;
  }
}

/** Premultiplied → straight, as canvases have it. */
function pixelsOf({ width, height, data }: Raster): Pixels {
  const out = new Uint8ClampedArray(data.length);
  out.set(data);
  for (let at = 0; at < out.length; at += 4) {
    const alpha = out[at + 3]!;
    if (alpha === 255 || alpha === 0) continue;
    for (let channel = at; channel < at + 3; channel += 1) out[channel] = (out[channel]! * 255) / alpha;
  }
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
