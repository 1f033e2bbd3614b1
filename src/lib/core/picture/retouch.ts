import { chain, scaling, translation } from '../geom/affine';
import type { Point } from '../geom/point';
import type { Size } from '../lattice/size';
import { clamp } from '../num/tolerance';
import { canvasOf, eachCovered, strokesBox } from '../raster/brush';
import type { Raster } from '../raster/composite';
import type { PictureLay, RetouchStroke } from '../recipe/pictured';
import type { BrushStroke } from '../geom/brush-stroke';

/** The plane that a unit repeats over: which of its pixels lies where, and how the unit lies in the px of strokes. */
type Plane = {
  size: Size;
  /** px of the unit at hand to one that strokes are painted in. */
  scale: number;
  /** The pixel of the unit at a place of the plane, px. */
  at: (x: number, y: number) => number;
  /** Where the unit lies again so that it touches a box, px. */
  images: (left: number, top: number, right: number, bottom: number) => Point[];
};

const modulo = (value: number, length: number): number => value - length * Math.floor(value / length);

function planeOf({ width, height }: Size, lay: PictureLay, scale: number): Plane {
  const step = lay.kind === 'straight' ? 0 : lay.step;
  const along = lay.kind === 'brick' ? Math.round(step * width) : 0;
  const down = lay.kind === 'half-drop' ? Math.round(step * height) : 0;
  const place = (column: number, row: number): Point => ({
    x: column * width + row * along,
    y: row * height + column * down,
  });
  const span = (from: number, to: number, length: number): [number, number] => [
    Math.floor(from / length) - 1,
    Math.floor(to / length) + 1,
  ];
  return {
    size: { width, height },
    scale,
    at: (x, y) => {
      const row = lay.kind === 'half-drop' ? 0 : Math.floor(y / height);
      const column = lay.kind === 'half-drop' ? Math.floor(x / width) : 0;
      return (
        modulo(Math.floor(y) - column * down, height) * width + modulo(Math.floor(x) - row * along, width)
      );
    },
    images: (left, top, right, bottom) => {
      const found: Point[] = [];
      // Along the way that is not shifted first: how far the other one is shifted depends on it.
      const rows = lay.kind === 'half-drop' ? null : span(top, bottom, height);
      if (rows)
        for (let row = rows[0]; row <= rows[1]; row += 1) {
          const [first, last] = span(left - row * along, right - row * along, width);
          for (let column = first; column <= last; column += 1) found.push(place(column, row));
        }
      else {
        const [first, last] = span(left, right, width);
        for (let column = first; column <= last; column += 1) {
          const [above, below] = span(top - column * down, bottom - column * down, height);
          for (let row = above; row <= below; row += 1) found.push(place(column, row));
        }
      }
      return found;
    },
  };
}

/** What one stroke covers of a unit, wherever it goes over its edges: each pixel once, as it is covered most. */
class TorusBrush {
  private readonly covers: Uint8Array;
  private readonly touched: number[] = [];

  constructor(private readonly plane: Plane) {
    this.covers = new Uint8Array(plane.size.width * plane.size.height);
  }

  each(stroke: BrushStroke, lay: (pixel: number, cover: number) => void): void {
    const { size, scale, images } = this.plane;
    const box = strokesBox([stroke])!;
    const [left, top] = [box.x * scale, box.y * scale];
    for (const { x, y } of images(left, top, left + box.width * scale, top + box.height * scale)) {
      const canvas = canvasOf(chain(scaling(1 / scale), translation(x, y)), size.width, size.height)!;
      eachCovered(stroke, canvas, (pixel, cover) => {
        const byte = Math.round(cover * 255);
        if (byte === 0) return;
        if (this.covers[pixel] === 0) this.touched.push(pixel);
        this.covers[pixel] = Math.max(this.covers[pixel]!, byte);
      });
    }
    for (const pixel of this.touched) {
      lay(pixel, this.covers[pixel]! / 255);
      this.covers[pixel] = 0;
    }
    this.touched.length = 0;
  }
}

/**
 * Lays strokes on a unit, in place. `plain` is the unit as it was before its edges were joined, where it was: `keep`
 * brings that back, `join` lays the joined one over it again. After those, in their order, `clone` lays what is `from`
 * away over what it goes over, and `heal` the same with its brightness and colour led over into what lies around.
 * `scale` px of the unit are one that strokes are painted in.
 */
export function retouch(
  unit: Raster,
  plain: Raster | null,
  strokes: readonly RetouchStroke[],
  lay: PictureLay,
  scale: number,
): void {
  const plane = planeOf(unit, lay, scale);
  const brush = new TorusBrush(plane);
  if (plain) mixPlain(unit, plain, strokes, brush);
  for (const stroke of strokes)
    if (stroke.does === 'clone' || stroke.does === 'heal') lie(unit, stroke, plane, brush);
}

function mixPlain(unit: Raster, plain: Raster, strokes: readonly RetouchStroke[], brush: TorusBrush): void {
  const mixing = strokes.filter(({ does }) => does === 'keep' || does === 'join');
  if (mixing.length === 0) return;
  /** How much of each pixel is joined. */
  const joined = new Uint8Array(unit.width * unit.height).fill(255);
  for (const stroke of mixing)
    brush.each(stroke, (pixel, cover) => {
      const held = joined[pixel]!;
      joined[pixel] = Math.round(stroke.does === 'keep' ? held * (1 - cover) : held + (255 - held) * cover);
    });
  joined.forEach((share, pixel) => {
    if (share === 255) return;
    for (let channel = pixel * 4; channel < pixel * 4 + 4; channel += 1)
      unit.data[channel] = Math.round(
        (unit.data[channel]! * share + plain.data[channel]! * (255 - share)) / 255,
      );
  });
}

/** So many px beyond a stroke, as a share of its width, what lies around it is read. */
const AROUND = 0.25;

function lie(
  unit: Raster,
  stroke: Extract<RetouchStroke, { from: Point }>,
  plane: Plane,
  brush: TorusBrush,
): void {
  const { scale } = plane;
  const from = { x: Math.round(stroke.from.x * scale), y: Math.round(stroke.from.y * scale) };
  const patch = stroke.does === 'heal' ? led(unit, stroke, from, plane) : null;
  const { width } = plane.size;
  const [places, values]: [number[], number[]] = [[], []];
  // Everything is read before anything is written: what it is taken from may lie under the stroke.
  brush.each(stroke, (pixel, cover) => {
    const [x, y] = [pixel % width, Math.floor(pixel / width)];
    const source = plane.at(x + from.x, y + from.y) * 4;
    const to = pixel * 4;
    const alpha = clamp(unit.data[source + 3]! + (patch?.(pixel, 3) ?? 0), 0, 255);
    places.push(to);
    for (let channel = 0; channel < 4; channel += 1) {
      const value = channel === 3 ? alpha : unit.data[source + channel]! + (patch?.(pixel, channel) ?? 0);
      values.push(Math.round(unit.data[to + channel]! * (1 - cover) + clamp(value, 0, alpha) * cover));
    }
  });
  values.forEach((value, at) => (unit.data[places[at >> 2]! + (at & 3)] = value));
}

/** The rectangle of the plane about a stroke: what of it is covered, and which pixel of the unit lies at each place. */
type Patch = { width: number; height: number; covered: Uint8Array; pixels: Int32Array };

function patchOf(stroke: BrushStroke, { scale, at }: Plane): Patch {
  const box = strokesBox([stroke])!;
  const room = Math.max(3, stroke.size * AROUND * scale);
  const left = Math.floor(box.x * scale - room);
  const top = Math.floor(box.y * scale - room);
  const width = Math.ceil((box.x + box.width) * scale + room) - left;
  const height = Math.ceil((box.y + box.height) * scale + room) - top;
  const covered = new Uint8Array(width * height);
  const canvas = canvasOf(chain(scaling(1 / scale), translation(left, top)), width, height)!;
  eachCovered({ ...stroke, softness: 0, strength: 1 }, canvas, (pixel) => (covered[pixel] = 1));
  const pixels = Int32Array.from({ length: width * height }, (_, index) =>
    at(left + (index % width), top + Math.floor(index / width)),
  );
  return { width, height, covered, pixels };
}

/**
 * By how much each pixel under a stroke is to be changed so that what is laid there goes over into what lies around:
 * the difference between the two around the stroke, led smoothly through it (push-pull, Gortler, Grzeszczuk, Szeliski
 * and Cohen 1996, "The lumigraph", section 3.4).
 */
function led(
  unit: Raster,
  stroke: BrushStroke,
  from: Point,
  plane: Plane,
): (pixel: number, channel: number) => number {
  const { width: wide } = plane.size;
  const { width, height, covered, pixels } = patchOf(stroke, plane);
  const source = (pixel: number): number =>
    plane.at((pixel % wide) + from.x, Math.floor(pixel / wide) + from.y);
  const channels = [0, 1, 2, 3].map((channel) => {
    const values = Float32Array.from(pixels, (pixel) => {
      const away = source(pixel);
      return unit.data[pixel * 4 + channel]! - unit.data[away * 4 + channel]!;
    });
    return filledIn({ width, height, values, known: Float32Array.from(covered, (one) => 1 - one) });
  });
  const place = new Map<number, number>();
  pixels.forEach((pixel, index) => {
    if (covered[index] === 1) place.set(pixel, index);
  });
  return (pixel, channel) => {
    const index = place.get(pixel);
    return index === undefined ? 0 : channels[channel]![index]!;
  };
}

type Level = { width: number; height: number; values: Float32Array; known: Float32Array };

/** Values where they are not known, by those around: pulled together into ever smaller grids, and pushed back. */
export function filledIn({ width, height, values, known }: Level): Float32Array {
  if (Math.min(width, height) <= 1 && Math.max(width, height) <= 2) return values;
  const half = { width: Math.ceil(width / 2), height: Math.ceil(height / 2) };
  const count = half.width * half.height;
  const level: Level = { ...half, values: new Float32Array(count), known: new Float32Array(count) };
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const weight = known[y * width + x]!;
      const to = (y >> 1) * half.width + (x >> 1);
      level.values[to] = level.values[to]! + values[y * width + x]! * weight;
      level.known[to] = level.known[to]! + weight;
    }
  for (let at = 0; at < count; at += 1) {
    const weight = level.known[at]!;
    if (weight > 0) level.values[at] = level.values[at]! / weight;
    level.known[at] = Math.min(1, weight);
  }
  const coarse = filledIn(level);
  return values.map((value, at) => {
    const weight = known[at]!;
    if (weight >= 1) return value;
    const [x, y] = [at % width, Math.floor(at / width)];
    // Between the middles of the four coarser pixels around.
    const u = clamp(x / 2 - 0.25, 0, half.width - 1);
    const v = clamp(y / 2 - 0.25, 0, half.height - 1);
    const [left, top] = [Math.floor(u), Math.floor(v)];
    const [right, below] = [Math.min(half.width - 1, left + 1), Math.min(half.height - 1, top + 1)];
    const [fx, fy] = [u - left, v - top];
    const upper = coarse[top * half.width + left]! * (1 - fx) + coarse[top * half.width + right]! * fx;
    const lower = coarse[below * half.width + left]! * (1 - fx) + coarse[below * half.width + right]! * fx;
    return value * weight + (upper * (1 - fy) + lower * fy) * (1 - weight);
  });
}

/** How far away, in widths of the brush, and in how many directions a place is looked for that looks like another. */
const FAR = [1.25, 2, 3.5];
const WAYS = 24;

/**
 * From where a stroke is healed best: the place around it whose surroundings look most like its own, a difference in
 * brightness and colour aside, px of the strokes; none that lies under the stroke itself.
 */
export function healFrom(unit: Raster, stroke: BrushStroke, lay: PictureLay, scale: number): Point {
  const plane = planeOf(unit, lay, scale);
  const { covered, pixels } = patchOf(stroke, plane);
  const under = new Set<number>();
  pixels.forEach((pixel, index) => covered[index] && under.add(pixel));
  const around = [...pixels.keys()].filter((index) => covered[index] === 0);
  // A few hundred places tell as much as all.
  const every = Math.max(1, Math.floor(around.length / 400));
  const looked = around.filter((_, index) => index % every === 0).map((index) => pixels[index]!);
  const inside = [...under].filter((_, index) => index % Math.max(1, Math.floor(under.size / 100)) === 0);
  const { width: wide } = plane.size;
  const away = (pixel: number, x: number, y: number): number =>
    plane.at((pixel % wide) + x, Math.floor(pixel / wide) + y);
  let best = { x: Math.round(stroke.size * FAR[0]! * scale), y: 0 };
  let least = Infinity;
  for (const far of FAR)
    for (let way = 0; way < WAYS; way += 1) {
      const angle = (way / WAYS) * 2 * Math.PI;
      const x = Math.round(Math.cos(angle) * far * stroke.size * scale);
      const y = Math.round(Math.sin(angle) * far * stroke.size * scale);
      const hidden = inside.filter((pixel) => under.has(away(pixel, x, y))).length;
      if (hidden > 0.02 * inside.length) continue;
      let cost = 0;
      for (let channel = 0; channel < 3; channel += 1) {
        let [sum, squares] = [0, 0];
        for (const pixel of looked) {
          const difference = unit.data[pixel * 4 + channel]! - unit.data[away(pixel, x, y) * 4 + channel]!;
          sum += difference;
          squares += difference * difference;
        }
        cost += squares / looked.length - (sum / looked.length) ** 2;
      }
      if (cost < least) [best, least] = [{ x, y }, cost];
    }
  return { x: Math.round(best.x / scale), y: Math.round(best.y / scale) };
}
