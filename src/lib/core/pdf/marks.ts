import type { Hex } from '../colour/parse';
import { translation } from '../geom/affine';
import type { Box } from '../geom/box';
import { transformPath, type Path } from '../geom/path';
import { formPath } from '../geom/shapes';
import type { Drawing, PdfInk } from './drawing';

/** A hairline of a printer's mark, pt (common practice, no source). */
const LINE = { width: 0.25, cap: 'butt', join: 'miter', miterLimit: 4, dashes: [] } as const;
/** A registration mark: its ring's radius and how far its cross reaches, pt; its middle lies so far beyond where marks begin. */
const RING = 4;
const CROSS = 7;
/** A field of the colour bar, pt. */
const FIELD = 8;

/** What a colour bar shows beside the spot inks: the two sets of three primaries, black, and three greys of it. */
const BAR: readonly Hex[] = [
  '#00ffff',
  '#ff00ff',
  '#ffff00',
  '#000000',
  '#ff0000',
  '#00ff00',
  '#0000ff',
  '#404040',
  '#808080',
  '#c0c0c0',
];

/** The ink of every plate (ISO 32000-1, 8.6.6.4, "All"): what is drawn with it stands on all of them. */
export const onAllPlates = ({ file }: Drawing): PdfInk => ({
  space: file.resource('ColorSpace', 'all plates', () =>
    file.object([
      '/Separation',
      '/All',
      '/DeviceGray',
      { FunctionType: 2, Domain: [0, 1], C0: [1], C1: [0], N: 1 },
    ]),
  ),
});

type Sides = { left: number; right: number; low: number; high: number };
const sidesOf = ({ x, y, width, height }: Box): Sides => ({
  left: x,
  right: x + width,
  low: y,
  high: y + height,
});

/** Marks where the paper is cut, pt: two lines at each corner of the trim, outside of the bleed. */
export function cropMarks(on: Drawing, trim: Box, { from, length }: { from: number; length: number }): void {
  const { left, right, low, high } = sidesOf(trim);
  const path: Path = [];
  for (const [x, out] of [
    [left, -1],
    [right, 1],
  ] as const)
    for (const y of [low, high]) line(path, x + out * from, y, x + out * (from + length), y);
  for (const [y, out] of [
    [low, -1],
    [high, 1],
  ] as const)
    for (const x of [left, right]) line(path, x, y + out * from, x, y + out * (from + length));
  on.stroke(path, onAllPlates(on), LINE);
}

/** Marks by which plates are laid on each other, pt: a ring with a cross in the middle of each side, beyond the trim by `from`. */
export function registrationMarks(on: Drawing, trim: Box, from: number): void {
  const { left, right, low, high } = sidesOf(trim);
  const [x, y] = [(left + right) / 2, (low + high) / 2];
  const away = from + CROSS;
  const path: Path = [];
  for (const middle of [
    { x, y: high + away },
    { x, y: low - away },
    { x: left - away, y },
    { x: right + away, y },
  ]) {
    const ring = formPath({ kind: 'ellipse' }, 2 * RING, 2 * RING);
    path.push(...transformPath(translation(middle.x - RING, middle.y - RING), ring));
    line(path, middle.x - CROSS, middle.y, middle.x + CROSS, middle.y);
    line(path, middle.x, middle.y - CROSS, middle.x, middle.y + CROSS);
  }
  on.stroke(path, onAllPlates(on), LINE);
}

/** A row of fields by which a print is judged, pt: below the page, at the right of its middle mark, as many as there is room for. */
export function colourBar(on: Drawing, trim: Box, from: number): void {
  const { left, right, low } = sidesOf(trim);
  const start = (left + right) / 2 + 2 * CROSS;
  const room = Math.max(0, Math.floor((right - start) / FIELD));
  const inks = on.file.inks.all.flatMap(({ tints }) => tints.at(-1)?.look ?? []);
  for (const [at, colour] of [...inks, ...BAR].slice(0, room).entries())
    on.rectangle(
      { x: start + at * FIELD, y: low - from - CROSS - FIELD / 2, width: FIELD, height: FIELD },
      colour,
    );
}

const line = (path: Path, x1: number, y1: number, x2: number, y2: number): unknown =>
  path.push({ op: 'M', to: { x: x1, y: y1 } }, { op: 'L', to: { x: x2, y: y2 } });
