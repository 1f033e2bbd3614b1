import type { Histograms, PictureWork, Shown } from '../contract/picture-work';
import { regionFor } from '../core/lattice/fold';
import { findColours, numbered } from '../core/picture/few';
import { Levels } from '../core/picture/levels';
import { joinedUnit, makeUnit, paintUnit, type AtHand } from '../core/picture/make';
import { ownPeriod } from '../core/picture/period';
import { makeTexture } from '../core/picture/texture/make';
import { resized } from '../core/picture/size';
import { healFrom } from '../core/picture/retouch';
import type { Hex } from '../core/colour/parse';
import { madeSize, ownSize, type MadeBy } from '../core/recipe/made';
import {
  fewOf,
  freshTextured,
  slotsOfTexture,
  strokesOf,
  type Few,
  type PictureLay,
} from '../core/recipe/pictured';
import { smallerTexture, type Texture } from '../core/recipe/texture';
import { premultiply, straighten } from '../core/raster/alpha';
import type { Raster } from '../core/raster/composite';
import { colourNumbered } from '../core/raster/numbered';
import { resample } from '../core/raster/resample';
import { channelsSeen, cutSeen, piecesSeen } from './picture-cut';
import { foundSeen, judgeSeen, waysSeen } from './picture-judge';
import { pixelsOf } from './pixels';

/** The work of the picture view, off the page's thread: the same code that makes the picture at full size. */
type Workers = { [K in keyof PictureWork]: (ask: PictureWork[K]['ask']) => PictureWork[K]['reply'] };

let atHand: Levels | null = null;

/** Periods are looked for in a picture of so many px a side at most. */
const PERIOD_SIDE = 900;

/** Few colours are looked for in a unit of so many px a side at most. */
const COLOURS_SIDE = 480;

/** The picture at hand, all of it or as small as it is seen. */
function here(scale = 1): AtHand {
  if (!atHand) throw new Error('There is no picture yet.');
  return scale < 1 ? atHand.for(scale) : atHand.whole;
}

/** Works with a texture of other numbers than those of the one at hand, as it is seen with `most` px a side. */
function withTexture<T>(texture: Texture | undefined, most: number, work: () => T): T {
  if (!texture) return work();
  const held = atHand;
  const picture = makeTexture(smallerTexture(texture, most));
  atHand = new Levels({ picture, scale: picture.width / texture.width });
  try {
    return work();
  } finally {
    atHand = held;
  }
}

/** The unit that is painted on, as it was before: a stroke that is just painted makes only itself anew. */
let below: { of: AtHand; key: string; unit: Raster } | null = null;

function make({ pictured, lay }: MadeBy, scale: number): Raster {
  const of = here(scale);
  if (strokesOf(pictured).length === 0) return makeUnit(of, pictured, lay, scale);
  const key = JSON.stringify([{ ...pictured, retouch: null }, lay, scale]);
  if (below?.of !== of || below.key !== key) below = { of, key, unit: joinedUnit(of, pictured, lay, scale) };
  const unit = { ...below.unit, data: below.unit.data.slice() };
  paintUnit(unit, of, pictured, lay, scale);
  return unit;
}

/** The unit as it is seen: its few colours, where it has them, are those of its slots. */
function seen({ colours, ...steps }: Shown, scale: number): Raster {
  const { pictured, lay } = steps;
  const unit = resized(make(steps, scale), pictured, lay, false);
  const few = fewOf(pictured);
  if (!few) return unit;
  straighten(unit.data);
  const made = madeSize(pictured);
  const speck = Math.round((few.speck * unit.width * unit.height) / (made.width * made.height));
  return inColours(unit, { ...few, speck }, steps.lay, colours);
}

/** A picture (straight alpha) told by its few colours, in those of its slots. */
function inColours(unit: Raster, few: Few, lay: PictureLay, colours: readonly Hex[]): Raster {
  const told = numbered(unit, few, lay);
  colourNumbered(told, colours);
  premultiply(told.data);
  return { ...unit, data: new Uint8Array(told.data.buffer) };
}

const WORK: Workers = {
  take({ width, height, data, scale }) {
    premultiply(data);
    atHand = new Levels({ picture: { width, height, data: new Uint8Array(data.buffer) }, scale });
    return null;
  },
  texture({ texture, most }) {
    const picture = makeTexture(smallerTexture(texture, most));
    const scale = picture.width / texture.width;
    atHand = new Levels({ picture, scale });
    return { ...pixelsOf(picture), scale };
  },
  sample(texture) {
    const { few } = freshTextured(texture);
    const colours = slotsOfTexture(texture).map(({ colour }) => colour);
    return pixelsOf(inColours(makeTexture(texture), few!, { kind: 'straight' }, colours));
  },
  unit({ scale, ...steps }) {
    const unit = seen(steps, scale);
    return { ...pixelsOf(unit), histograms: histogramsOf(unit) };
  },
  tray({ groups, side, pictured, colours }) {
    return groups.map((group) => {
      const region = regionFor(pictured.region, group);
      const join = { ...pictured.join, on: false };
      const steps = { ...pictured, region, join, symmetry: { ...pictured.symmetry, on: true, group } };
      const { width, height } = ownSize(steps);
      const shown = { pictured: steps, lay: { kind: 'straight' } as const, colours };
      return pixelsOf(seen(shown, side / Math.min(width, height)));
    });
  },
  colours({ how, count, ...steps }) {
    const { width, height } = ownSize(steps.pictured);
    const unit = make(steps, Math.min(1, COLOURS_SIDE / Math.max(width, height)));
    straighten(unit.data);
    return findColours(unit, how, count);
  },
  period() {
    if (!atHand) return { across: null, down: null };
    const { picture, scale } = here();
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
  channels: (ask) => channelsSeen(here(), ask),
  healFrom({ stroke, most, ...steps }) {
    const { width, height } = ownSize(steps.pictured);
    const scale = Math.min(1, most / Math.max(width, height));
    return healFrom(make(steps, scale), stroke, steps.lay, scale);
  },
  cut: (ask) => cutSeen(here(), ask),
  pieces: (by) => piecesSeen(here(), by),
  judge: (ask) => judgeSeen(seen, ask),
  ways: (ask) => waysSeen(seen, ask),
  proposals: ({ asked, most, distances }) =>
    asked.map((steps) =>
      withTexture(steps.pictured.source.texture, most, () => foundSeen(seen, steps, most, distances)),
    ),
};

/** How many pixels have each of 64 brightnesses (Rec. 709 luma of the encoded channels), and values of each channel. */
function histogramsOf({ data }: Raster): Histograms {
  const counts = (): number[] => new Array<number>(64).fill(0);
  const [all, red, green, blue] = [counts(), counts(), counts(), counts()];
  for (let at = 0; at < data.length; at += 4) {
    const [r, g, b] = [data[at]!, data[at + 1]!, data[at + 2]!];
    all[Math.floor((0.2126 * r + 0.7152 * g + 0.0722 * b) / 4)]! += 1;
    red[r >> 2]! += 1;
    green[g >> 2]! += 1;
    blue[b >> 2]! += 1;
  }
  return { all, red, green, blue };
}

addEventListener('message', ({ data }: MessageEvent<{ id: number; kind: keyof PictureWork; ask: never }>) => {
  const { id, kind, ask } = data;
  try {
    postMessage({ id, reply: WORK[kind](ask) });
  } catch (error) {
    postMessage({ id, fault: error instanceof Error ? error.message : String(error) });
  }
});
