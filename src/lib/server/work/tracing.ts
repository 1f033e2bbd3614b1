import { vectorizeRawSync } from '@neplex/vectorizer';
import { Resvg } from '@resvg/resvg-js';
import { nanoid } from 'nanoid';
import sharp from 'sharp';
import { done, fail, type Outcome } from '../../contract/failure';
import type { TraceBy } from '../../contract/data';
import type { Answer, Ask } from '../../contract/work';
import { channelsOf, isHex, type Hex } from '../../core/colour/parse';
import { chain, scaling, translation } from '../../core/geom/affine';
import { parsePath, transformPath } from '../../core/geom/path';
import { findColours, flatNumbers } from '../../core/picture/few';
import type { StraightPicture } from '../../core/raster/recolour';
import { LIMITS } from '../../core/recipe/limits';
import { pathElement } from '../../core/scene/drawing';
import type { DrawingElement } from '../../core/recipe/recipe';
import { readSvgTree } from '../../core/svg/xml';
import { pictureBytes } from './making';
import { libraryAt } from './tools';

/** A picture is traced on so many px a side at most: finer than a drawing is looked at, coarser than its grain. */
const MOST_SIDE = 1600;
/** The tracer's own numbers for: in colours, each laid over the last, curves fitted. */
const IN_LAYERS = { colorMode: 0, hierarchical: 0, mode: 2 } as const;
/** The number of what can be seen through. */
const CLEAR = 255;
/** A motif of more segments than this leaves a pattern no room for others. */
const MOST_SEGMENTS = LIMITS.cellSegments / 4;
/** What is drawn in more characters than this is not read: no motif could hold it. */
const MOST_CHARACTERS = 20_000_000;
/** A picture told by few colours: of each pixel the number of its colour, or {@link CLEAR}. */
type Flat = { width: number; height: number; numbers: Uint8Array; colours: readonly Hex[] };

/** Traces a picture among the assets, or one that is made. */
export async function tracePicture({ store, hash, by }: Ask<'trace'>): Promise<Answer<'trace'>> {
  const file = await pictureBytes(libraryAt(store), hash);
  return file.ok ? traceBytes(file.value.bytes, by) : file;
}

/** Traces a picture file: told by few colours first, so that each path has one; then curves are fitted to their outlines. */
export async function traceBytes(bytes: Uint8Array, by: TraceBy): Promise<Answer<'trace'>> {
  const whole = await sharp(bytes, { failOn: 'none' }).metadata();
  const { data, info } = await sharp(bytes, { failOn: 'none' })
    .resize(MOST_SIDE, MOST_SIDE, { fit: 'inside', withoutEnlargement: true })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const picture = { width: info.width, height: info.height, data };
  const scale = (whole.width ?? info.width) / info.width;
  const colours = findColours(calmParts(picture), 'flat', by.colours);
  if (colours.length < 2)
    return fail('unsupported', 'This picture has one colour alone; there is nothing to trace in it.');
  const flat = flatOf(picture, colours, by.speck / scale ** 2, by.paper);
  const svg = vectorizeRawSync(painted(flat), picture, {
    ...IN_LAYERS,
    colorPrecision: 8,
    layerDifference: 0,
    filterSpeckle: 1,
    cornerThreshold: by.corner,
    spliceThreshold: 45,
    lengthThreshold: 4,
    maxIterations: 10,
    pathPrecision: 3,
  });
  if (svg.length > MOST_CHARACTERS) return tooMuch('thousands of pieces');
  const slots = colours.map((colour, index) => ({ id: nanoid(12), name: `Colour ${index + 1}`, colour }));
  const channels = colours.map(channelsOf);
  // The tracer may give a path the mean of what lies within it.
  const slotOf = (hex: Hex): string => slots[nearest(channelsOf(hex), 0, channels)]!.id;
  const elements = elementsOf(svg, slotOf, scale);
  if (elements.length === 0)
    return fail('unsupported', 'Nothing was left to trace; take more colours or smaller specks.');
  const segments = elements.reduce((sum, { d }) => sum + (d.match(/[A-Za-z]/g)?.length ?? 0), 0);
  const many = segments > MOST_SEGMENTS || elements.length > LIMITS.elements;
  if (many || elements.some(({ d }) => d.length > LIMITS.pathData))
    return tooMuch(`${elements.length} pieces of ${segments} points`);
  const used = new Set(elements.map(({ fill }) => fill));
  return done({
    elements,
    slots: slots.filter(({ id }) => used.has(id)),
    differs: differing(svg, flat),
  });
}

const tooMuch = (what: string): Outcome<never> =>
  fail('too_large', `Traced like this it comes to ${what}; take fewer colours, or larger specks.`);

/**
 * The calm half of a picture, as a square of pixels: those of edges are mixtures, and would be found as colours of their own where
 * another one is small.
 */
function calmParts({ width, height, data }: StraightPicture): StraightPicture {
  const step = Math.max(1, Math.round(Math.sqrt((width * height) / 60_000)));
  const found: { at: number; change: number }[] = [];
  for (let y = 1; y < height - 1; y += step)
    for (let x = 1; x < width - 1; x += step) {
      const at = (y * width + x) * 4;
      if (data[at + 3]! < 128) continue;
      let change = 0;
      for (const beside of [-4, 4, -4 * width, 4 * width])
        for (let channel = 0; channel < 4; channel += 1)
          change = Math.max(change, Math.abs(data[at + beside + channel]! - data[at + channel]!));
      found.push({ at, change });
    }
  const middle = found.map(({ change }) => change).sort((one, other) => one - other)[found.length >> 1] ?? 0;
  const calm = found.filter(({ change }) => change <= middle);
  const side = Math.floor(Math.sqrt(calm.length));
  const square = new Uint8Array(side * side * 4);
  calm.slice(0, side * side).forEach(({ at }, index) => square.set(data.subarray(at, at + 4), index * 4));
  return { width: side, height: side, data: square };
}

/** What is to be traced: each pixel's number; what can mostly be seen through, and paper, is clear. */
function flatOf(picture: StraightPicture, colours: readonly Hex[], speck: number, paper: boolean): Flat {
  const { width, height, data } = picture;
  const numbers = flatNumbers(picture, colours, Math.round(speck), null);
  const lightest = colours.length - 1;
  for (let pixel = 0; pixel < numbers.length; pixel += 1)
    if (data[pixel * 4 + 3]! < 128 || (paper && numbers[pixel] === lightest)) numbers[pixel] = CLEAR;
  return { width, height, numbers, colours };
}

/** Its numbers in their colours, straight alpha. */
function painted({ numbers, colours }: Flat): Buffer {
  const data = Buffer.alloc(numbers.length * 4);
  const channels = colours.map(channelsOf);
  numbers.forEach((number, pixel) => {
    if (number !== CLEAR) data.set([...channels[number]!, 255], pixel * 4);
  });
  return data;
}

/** The paths of what was traced, in px of the picture. */
function elementsOf(svg: string, slotOf: (hex: Hex) => string, scale: number): DrawingElement[] {
  const read = readSvgTree(svg, { bytes: MOST_CHARACTERS, nodes: 500_000 });
  if (!read.ok) throw new Error(read.message);
  return read.root.children.flatMap(({ name, attributes }) => {
    const path = name === 'path' ? parsePath(attributes.d ?? '') : null;
    const fill = (attributes.fill ?? '').toLowerCase();
    const [x = 0, y = 0] = (attributes.transform?.match(/-?[\d.]+/g) ?? []).map(Number);
    if (!path?.ok || path.path.length === 0 || !isHex(fill)) return [];
    const placed = transformPath(chain(scaling(scale), translation(x, y)), path.path);
    return [pathElement(placed, { fill: slotOf(fill), stroke: null })];
  });
}

/** The share of pixels that are of another colour once the paths are drawn again. */
function differing(svg: string, { width, height, numbers, colours }: Flat): number {
  const drawn = new Resvg(svg, { font: { loadSystemFonts: false }, logLevel: 'off' }).render();
  const channels = colours.map(channelsOf);
  const { pixels } = drawn;
  let other = 0;
  for (let pixel = 0; pixel < width * height; pixel += 1) {
    const at = pixel * 4;
    const number = numbers[pixel]!;
    const clear = pixels[at + 3]! < 128;
    if (clear !== (number === CLEAR)) other += 1;
    else if (!clear && nearest(pixels, at, channels) !== number) other += 1;
  }
  return other / (width * height);
}

function nearest(pixels: ArrayLike<number>, at: number, channels: readonly (readonly number[])[]): number {
  let [found, least] = [0, Infinity];
  channels.forEach((colour, index) => {
    const far = [0, 1, 2].reduce((sum, channel) => sum + (pixels[at + channel]! - colour[channel]!) ** 2, 0);
    if (far < least) [found, least] = [index, far];
  });
  return found;
}
