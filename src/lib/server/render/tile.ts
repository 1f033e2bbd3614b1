import type { LayerSource } from '../../contract/render';
import { chain, invert, scaling, translation, meanScale } from '../../core/geom/affine';
import type { Box } from '../../core/geom/box';
import { unitArea } from '../../core/lattice/cell';
import { patternRegion, type DrawnShape, type TiledItem } from '../../core/draw/list';
import { polygonArea } from '../../core/geom/polygon';
import { cellCost, costOver } from '../../core/scene/cost';
import { throughLook } from '../../core/svg/paint';
import { cellMarkup } from '../../core/svg/pieces';
import { factor } from '../../core/svg/print';

/** A rectangle of whole output pixels. */
export type PixelBox = { x: number; y: number; width: number; height: number };

/** More copies of a unit than this in one layer are not drawn one by one. */
const MOST_COPIES = 20_000;
/** … nor more than so many segments of paths: what one drawing may hold, in one layer or in a tile of several cells. */
const MOST_SEGMENTS = 3_000_000;
/** The same for drawings whose copies are written out one by one, because they need layers of their own. */
const MOST_LAYERED = 600_000;
/** Cells of more pixels than this are drawn copy by copy even where they hold pictures: few of them can show. */
const LARGEST_TILE = 16_000_000;
/** A tile for sampling is at most so many px a side, and holds at most so many cells a side. */
const TILE_SIDE = 512;
const MOST_CELLS = 32;
/** Cells smaller than this (px) are seen as their mean colour, taken from one cell drawn at MEAN_SIDE px. */
const FINEST = 2;
const MEAN_SIDE = 64;

/**
 * True where a fill's units are so small that a layer would need too many copies of them, or hold pictures or filters,
 * which the renderer would draw anew for every copy and, for pictures, with a line at every joint.
 */
export function isFine(shape: DrawnShape, item: TiledItem, region: Box, scale: number): boolean {
  const { sampled, cell } = item.pattern.scene;
  const pixels = cell.width * cell.height * (meanScale(item.matrix) * scale) ** 2;
  if (sampled && pixels <= LARGEST_TILE) return true;
  const polygon = patternRegion(shape, item, region);
  if (polygon === null) return false;
  const { scene } = item.pattern;
  if (polygonArea(polygon) / unitArea(scene.lattice) > MOST_COPIES) return true;
  if (pixels > LARGEST_TILE) return false;
  const { copies, segments } = costOver(scene, polygon);
  const most = scene.layered ? MOST_LAYERED : MOST_SEGMENTS;
  return segments > most || copies > MOST_COPIES * Math.max(1, scene.pieces.length);
}

/**
 * A block of cells drawn once, upright, at about the output's resolution, and the matrix from the layer's pixels to
 * it. Its sides are whole pixels, so that the wrap is exact; the matrix takes up the difference.
 */
export function tileOf(
  shape: DrawnShape,
  item: TiledItem,
  box: PixelBox,
  scale: { x: number; y: number },
): Extract<LayerSource, { kind: 'tile' }> {
  const { scene } = item.pattern;
  const { width, height, matrix } = scene.cell;
  const onLayer = chain(
    translation(-box.x, -box.y),
    scaling(scale.x, scale.y),
    translation(shape.x, shape.y),
    item.matrix,
    matrix,
  );
  const across = Math.hypot(onLayer.a, onLayer.b) * width;
  const down = Math.hypot(onLayer.c, onLayer.d) * height;
  const finer = Math.min(across, down) < FINEST;
  const { copies, segments } = cellCost(scene);
  const affordable = Math.max(1, Math.floor(Math.sqrt(MOST_SEGMENTS / (4 * Math.max(copies, segments, 1)))));
  const cells = (side: number): number =>
    finer ? 1 : Math.max(1, Math.min(MOST_CELLS, affordable, Math.floor(TILE_SIDE / side)));
  // Pictures that meet edge to edge show no line where every unit of the cell has whole pixels.
  const { sampled } = scene;
  const [columns, rows] = sampled ? [1, 1] : [cells(across), cells(down)];
  const whole = (side: number): number =>
    sampled ? Math.max(1, Math.round(side / scene.cell.units)) * scene.cell.units : Math.round(side);
  const tileWidth = finer ? MEAN_SIDE : whole(across * columns);
  const tileHeight = finer ? MEAN_SIDE : whole(down * rows);
  const underlay = 2 / Math.max(tileWidth / (width * columns), tileHeight / (height * rows));
  const drawing = throughLook(cellMarkup(scene, item.colours, underlay, columns, rows), item.look);
  const inverse = invert(onLayer);
  const toTile =
    inverse && chain(scaling(tileWidth / (width * columns), tileHeight / (height * rows)), inverse);
  return {
    kind: 'tile',
    svg: `<svg xmlns="http://www.w3.org/2000/svg" width="${tileWidth}" height="${tileHeight}" viewBox="0 0 ${factor(width * columns)} ${factor(height * rows)}" preserveAspectRatio="none">${drawing}</svg>`,
    toTile: finer ? null : toTile,
  };
}
