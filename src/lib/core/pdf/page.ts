import { IDENTITY, type Affine } from '../geom/affine';
import type { Box } from '../geom/box';
import type { Path } from '../geom/path';
import { boxCorners } from '../geom/polygon';
import { polygonPath } from '../geom/shapes';
import type { DisplayList } from '../draw/list';
import { Drawing } from './drawing';
import type { PdfFile } from './file';
import type { PdfSources } from './picture';
import { freshRoom, PT_PER_PX, ShapeDrawer, type Room } from './shape';

/** Draws a page; `onPaper` takes its px to pt of the paper, from the lower left corner. */
export function drawPage(
  file: PdfFile,
  list: DisplayList,
  {
    onPaper,
    paper,
    sources,
    room = freshRoom(),
  }: { onPaper: Affine; paper: Box; sources: PdfSources; room?: Room },
): string {
  const on = new Drawing(file, paper);
  const page: Box = { x: 0, y: 0, width: list.width, height: list.height };
  on.within(onPaper, () => {
    on.clip(polygonPath(boxCorners(IDENTITY, page)));
    if (list.background !== null) on.rectangle(page, list.background);
    for (const shape of list.shapes) new ShapeDrawer(shape, page, sources, room).draw(on);
  });
  return on.content;
}

/** Where things lie on the paper: the page with its bleed, within room for marks where these are wanted; pt from the lower left. */
export function onPaper(
  { width, height }: { width: number; height: number },
  { bleed, room }: { bleed: number; room: number },
): { matrix: Affine; media: Box; bleedBox: Box; trim: Box } {
  const pt = (px: number): number => px * PT_PER_PX;
  const [wide, high] = [pt(width), pt(height)];
  const media = { x: 0, y: 0, width: wide + 2 * room, height: high + 2 * room };
  const bleedBox = { x: room, y: room, width: wide, height: high };
  const cut = pt(bleed);
  const trim = { x: room + cut, y: room + cut, width: wide - 2 * cut, height: high - 2 * cut };
  const matrix: Affine = { a: PT_PER_PX, b: 0, c: 0, d: -PT_PER_PX, e: room, f: room + high };
  return { matrix, media, bleedBox, trim };
}

/** Marks where the paper is cut, pt: two lines at each corner of the trim, outside of the bleed. */
export function cropMarks(on: Drawing, trim: Box, { from, length }: { from: number; length: number }): void {
  const line = { width: 0.25, cap: 'butt', join: 'miter', miterLimit: 4, dashes: [] } as const;
  const [left, right] = [trim.x, trim.x + trim.width];
  const [low, high] = [trim.y, trim.y + trim.height];
  const path: Path = [];
  const add = (x1: number, y1: number, x2: number, y2: number): void => {
    path.push({ op: 'M', to: { x: x1, y: y1 } }, { op: 'L', to: { x: x2, y: y2 } });
  };
  for (const [x, out] of [
    [left, -1],
    [right, 1],
  ] as const)
    for (const y of [low, high]) add(x + out * from, y, x + out * (from + length), y);
  for (const [y, out] of [
    [low, -1],
    [high, 1],
  ] as const)
    for (const x of [left, right]) add(x, y + out * from, x, y + out * (from + length));
  on.stroke(path, '#000000', line);
}
