import { IDENTITY, type Affine } from '../geom/affine';
import type { Box } from '../geom/box';
import { boxCorners } from '../geom/polygon';
import { polygonPath } from '../geom/shapes';
import { isSeeThrough, type DisplayList } from '../draw/list';
import { isInked } from '../draw/plates';
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
    layers = false,
  }: { onPaper: Affine; paper: Box; sources: PdfSources; room?: Room; layers?: boolean },
): string {
  const on = new Drawing(file, paper);
  // Ghostscript 10.00 breaks off where it makes plates of a page with spot inks, something see-through and a tiling pattern.
  room.tilings = !(isInked(list, file.inks) && isSeeThrough(list));
  const page: Box = { x: 0, y: 0, width: list.width, height: list.height };
  on.within(onPaper, () => {
    on.clip(polygonPath(boxCorners(IDENTITY, page)));
    if (list.background !== null) on.rectangle(page, list.background);
    const layerOf = layers ? layersOn(on, list) : () => null;
    for (const shape of list.shapes)
      on.onLayer(layerOf(shape.id), () => new ShapeDrawer(shape, page, sources, room).draw(on));
  });
  return on.content;
}

/** The layer of each shape by its name among the resources: that of its outermost group, those without one share one. */
function layersOn(on: Drawing, { groups = [] }: DisplayList): (shape: string) => string | null {
  if (groups.length === 0) return () => null;
  const named = groups.map(({ name, shapes }) => ({ shapes, layer: on.file.layer(name) }));
  const others = on.file.layer('Other shapes');
  return (shape) => named.find(({ shapes }) => shapes.has(shape))?.layer ?? others;
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
