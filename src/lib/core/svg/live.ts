import { multiply, type Affine } from '../geom/affine';
import { grow } from '../geom/box';
import { cellCorners } from '../lattice/cell';
import { offsetsMeeting } from '../lattice/meet';
import type { UnitScene } from '../scene/unit';
import { abutmentMarkup, cellMarkup, endlessMarkup, unskewed, type Colours } from './pieces';
import { factor, matrixText } from './print';

/** So many cells that one <pattern> repeats. */
export type CellBlock = { columns: number; rows: number };

const ONE_CELL: CellBlock = { columns: 1, rows: 1 };
/** A block has at most so many cells a side and in all, and is at most so many px a side where it is more than one. */
const MOST_CELLS = 48;
const MOST_IN_ALL = 900;
const MOST_SIDE = 2000;
/** What repeats may be away from its place by so much at the far end, px. */
const AWAY = 0.15;

/** A base <pattern>: the cell with its drawing, at its own size. Fills refer to it by href. */
export function basePattern(id: string, scene: UnitScene, colours: Colours, underlay: number): string {
  return `<pattern id="${id}" ${cellAttributes(scene)}>${cellMarkup(scene, colours, underlay)}</pattern>`;
}

/** A base <pattern> of a block of cells; `unit` is the id of the drawing of one unit, which it refers to. */
export function blockPattern(
  id: string,
  scene: UnitScene,
  unit: string,
  { colours, underlay, block }: { colours: Colours; underlay: number; block: CellBlock },
): string {
  const corners = cellCorners(scene.cell, block.columns, block.rows);
  const offsets = scene.artBox ? offsetsMeeting(scene.lattice, grow(scene.artBox, underlay), corners) : [];
  const copies = offsets
    .map(({ x, y }) => `<use href="#${unit}" x="${factor(x)}" y="${factor(y)}"/>`)
    .join('');
  const drawing =
    endlessMarkup(scene, corners, colours) + abutmentMarkup(scene, colours, underlay, offsets) + copies;
  return `<pattern id="${id}" ${cellAttributes(scene, block)}>${unskewed(scene, drawing)}</pattern>`;
}

/**
 * How many cells a <pattern> should repeat, where renderers draw what it repeats on whole pixels: one cell of 8.4 px
 * would come every 8 px, and the twentieth lie a whole cell beside its place; five of them are 42. `matrix` takes
 * pattern space to px; it is seen over `reach` px.
 */
export function blockOf(scene: UnitScene, matrix: Affine, reach: number): CellBlock {
  const { a, b, c, d } = multiply(matrix, scene.cell.matrix);
  const columns = cellsFor(scene.cell.width * Math.hypot(a, c), reach, MOST_CELLS);
  const most = Math.min(MOST_CELLS, Math.floor(MOST_IN_ALL / columns));
  const rows = cellsFor(scene.cell.height * Math.hypot(b, d), reach, most);
  return columns === 1 && rows === 1 ? ONE_CELL : { columns, rows };
}

/** The fewest cells of a size that come out on whole pixels nearly enough, or those that do best. */
function cellsFor(size: number, reach: number, most: number): number {
  let best = { count: 1, away: Infinity };
  for (let count = 1; count <= most; count += 1) {
    const side = count * size;
    if (count > 1 && side > MOST_SIDE) break;
    // One that is seen once only is nowhere beside its place.
    const away = side >= reach ? 0 : (Math.abs(Math.round(side) - side) / side) * reach;
    if (away < best.away) best = { count, away };
    if (away <= AWAY) break;
  }
  return best.count;
}

/** The attributes that make a <pattern> of a block of cells, without its transform. */
export function cellAttributes(scene: UnitScene, { columns, rows } = ONE_CELL): string {
  const { width, height } = scene.cell;
  return `width="${factor(width * columns)}" height="${factor(height * rows)}" patternUnits="userSpaceOnUse"`;
}

/** The patternTransform of a fill: its own matrix, and the skew of a cell that needs one. */
export function patternTransform(scene: UnitScene, matrix: Affine): string {
  return matrixText(multiply(matrix, scene.cell.matrix));
}

/** A fill's <pattern>: everything but its transform is inherited from the base by href. */
export function fillPattern(id: string, base: string, scene: UnitScene, matrix: Affine): string {
  return `<pattern id="${id}" href="#${base}" patternTransform="${patternTransform(scene, matrix)}"/>`;
}
