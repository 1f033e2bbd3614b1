import { pathBox } from '../geom/path';
import type { Box } from '../geom/box';
import type { Point } from '../geom/point';
import type { Size } from '../lattice/size';
import type { Panel, Sheet } from './sheet';

/** Pages that differ from a sheet by less are that sheet, mm. */
const SAME = 0.5;

/** How a page lies on a sheet: it is the sheet, lies within the part that is seen first, or reaches beyond that. */
export type PageOnSheet = { at: Point; how: 'sheet' | 'within' | 'beyond'; panel: string };

/**
 * Where a page of another size lies on a sheet, mm from its upper left corner: true to size in the middle of the front. Both
 * sizes in mm.
 */
export function pageOnSheet(sheet: Sheet, page: Size): PageOnSheet {
  const front = frontOf(sheet);
  const panel = front?.name ?? '';
  if (Math.abs(page.width - sheet.width) < SAME && Math.abs(page.height - sheet.height) < SAME)
    return { at: { x: 0, y: 0 }, how: 'sheet', panel };
  const box: Box = (front && (front.box ?? pathBox(front.outline))) ?? { x: 0, y: 0, ...sizeOf(sheet) };
  const at = { x: box.x + (box.width - page.width) / 2, y: box.y + (box.height - page.height) / 2 };
  const beyond = page.width > box.width + SAME || page.height > box.height + SAME;
  return { at, how: beyond ? 'beyond' : 'within', panel };
}

const sizeOf = ({ width, height }: Sheet): Size => ({ width, height });

/** The part of a sheet that is seen first. */
const frontOf = ({ panels }: Sheet): Panel | undefined =>
  panels.find(({ name, at }) => at !== null && name === 'Front') ?? panels.find(({ at }) => at !== null);
