import type { PDFRef } from 'pdf-lib';
import { invert, multiply, type Affine } from '../geom/affine';
import { boxCorners } from '../geom/polygon';
import { boxOfPoints, type Box } from '../geom/box';
import { channelsOf, type Hex } from '../colour/parse';
import type { Inks, SpotInk } from '../colour/inks';
import type { PdfFile, Value } from './file';
import { inkSpace } from './spot';

/** A gradient as PDF draws it: what lies before its ends and beyond goes on, begins anew, or runs back. */
export type Shade = {
  kind: 'linear' | 'radial';
  /** Takes (0,0)–(1,0), or the unit circle, to where it is drawn. */
  matrix: Affine;
  spread: 'pad' | 'repeat' | 'reflect';
  stops: readonly { at: number; colour: Hex; opacity: number }[];
  focus?: { x: number; y: number };
  /** The inks that its colours may be printed in; those of the file where nothing is said. */
  inks?: Inks;
};

/** More repeats of a gradient than this are not told apart on any page. */
const MOST_REPEATS = 2000;

/** A colour's channels from 0 to 1. */
export const channels = (hex: Hex): number[] => channelsOf(hex).map((value) => value / 255);

/** The shading of a gradient over a box of the space that its matrix leads to: its colours, or its opacities as grey. */
export function shading(file: PdfFile, shade: Shade, over: Box, of: 'colours' | 'opacities'): Value {
  const [first, last] = shade.spread === 'pad' ? [0, 1] : rangeOver(shade, over);
  const inks = shade.inks ?? file.inks;
  const spots = of === 'colours' ? inks.ofStops(shade.stops.map(({ colour }) => colour)) : null;
  const once = file.object(
    stitched(shade, ({ colour, opacity }) => {
      if (of === 'opacities') return [opacity];
      return spots ? tintsIn(spots, inks, colour) : channels(colour);
    }),
  );
  const repeats = Math.min(MOST_REPEATS, last - first);
  const whole =
    first === 0 && last === 1
      ? once
      : file.object({
          FunctionType: 3,
          Domain: [first, first + repeats],
          Functions: Array.from({ length: repeats }, () => once),
          Bounds: Array.from({ length: repeats - 1 }, (_one, at) => first + at + 1),
          Encode: Array.from({ length: repeats }, (_one, at) =>
            shade.spread === 'reflect' && Math.abs(first + at) % 2 === 1 ? [1, 0] : [0, 1],
          ).flat(),
        });
  const { x, y } = shade.focus ?? { x: 0, y: 0 };
  return {
    ShadingType: shade.kind === 'linear' ? 2 : 3,
    ColorSpace: spots ? inkSpace(file, spots) : of === 'colours' ? file.rgb : '/DeviceGray',
    Coords:
      shade.kind === 'linear'
        ? [first, 0, first + repeats, 0]
        : [x, y, 0, 0, 0, Math.max(1, first + repeats)],
    Domain: [first, first + repeats],
    Extend: [true, true],
    Function: whole,
  };
}

/** From which repeat to which a gradient is seen within a box, whole numbers. */
function rangeOver({ kind, matrix }: Shade, over: Box): [number, number] {
  const back = invert(matrix);
  if (!back) return [0, 1];
  const corners = boxCorners(back, over);
  if (kind === 'radial') return [0, Math.ceil(Math.max(1, ...corners.map(({ x, y }) => Math.hypot(x, y))))];
  const xs = corners.map(({ x }) => x);
  const first = Math.floor(Math.min(...xs));
  return [first, Math.max(first + 1, Math.ceil(Math.max(...xs)))];
}

/** The stops from 0 to 1 as a function: straight from one to the next (ISO 32000-1, 7.10.3 and 7.10.4). */
function stitched({ stops }: Shade, value: (stop: Shade['stops'][number]) => number[]): Value {
  const [start, end] = [stops[0]!, stops[stops.length - 1]!];
  const all = [
    ...(start.at > 0 ? [{ ...start, at: 0 }] : []),
    ...stops,
    ...(end.at < 1 ? [{ ...end, at: 1 }] : []),
  ];
  // A step has two stops at one place: nothing lies between them.
  const pairs = all.slice(1).flatMap((to, index) => {
    const from = all[index]!;
    return to.at - from.at > 1e-6 ? [{ from, to }] : [];
  });
  const parts = pairs.map(({ from, to }): Value => ({
    FunctionType: 2,
    Domain: [0, 1],
    N: 1,
    C0: value(from),
    C1: value(to),
  }));
  if (parts.length === 1) return parts[0]!;
  return {
    FunctionType: 3,
    Domain: [0, 1],
    Functions: parts,
    Bounds: pairs.slice(1).map(({ from }) => from.at),
    Encode: parts.flatMap(() => [0, 1]),
  };
}

/** How much of each ink a colour is: none of all for paper. */
const tintsIn = (spots: readonly SpotInk[], inks: Inks, colour: Hex): number[] => {
  const inked = inks.of(colour);
  return spots.map((spot) => (inked?.ink === spot ? inked.tint : 0));
};

export const isSolid = ({ stops }: Pick<Shade, 'stops'>): boolean =>
  stops.every(({ opacity }) => opacity >= 1);

/** A shading pattern; `ctm` takes the drawing's space to that of the stream that it stands in. */
export function shadingPattern(file: PdfFile, shade: Shade, ctm: Affine, over: Box): PDFRef {
  const matrix = multiply(ctm, shade.matrix);
  return file.object({
    Type: '/Pattern',
    PatternType: 2,
    Matrix: matrixList(matrix),
    Shading: shading(file, shade, over, 'colours'),
  });
}

export const matrixList = ({ a, b, c, d, e, f }: Affine): number[] => [a, b, c, d, e, f];

/** The box about a box after a matrix. */
export const boxThrough = (matrix: Affine, box: Box): Box => boxOfPoints(boxCorners(matrix, box)) ?? box;
