import { chain, scaling, translation } from '../geom/affine';
import { mapFills, type Layout, type Shape } from './layout';
import { mapBy } from './transform';
import { isPlaced } from './fill';

/**
 * What becomes of the shapes when a page gets another size: they stay; they follow the page while their patterns keep
 * their scale; or all of it is scaled, patterns too, as far as it fits the new page, in its middle.
 */
export type PageResize = 'page' | 'shapes' | 'everything';

/** A layout on a page of another size (px). */
export function resizePage<T extends Layout>(
  layout: T,
  size: { width: number; height: number },
  how: PageResize,
): T {
  const { width, height } = size;
  if (how === 'page') return { ...layout, width, height };
  const across = width / layout.width;
  const down = height / layout.height;
  if (how === 'shapes') {
    const map = scaling(across, down);
    const shapes = layout.shapes.map((shape) => {
      const { fills, stroke } = shape;
      return { ...mapBy(shape, 'shape', map), fills, stroke };
    });
    return { ...layout, width, height, shapes };
  }
  const scale = Math.min(across, down);
  const room = { x: (width - layout.width * scale) / 2, y: (height - layout.height * scale) / 2 };
  const map = chain(translation(room.x, room.y), scaling(scale));
  const guides = layout.guides.map((guide) => ({ ...guide, at: guide.at * scale + room[guide.axis] }));
  return {
    ...layout,
    width,
    height,
    guides,
    shapes: layout.shapes.map((shape) => scaled(shape, map, scale)),
  };
}

function scaled(shape: Shape, map: Parameters<typeof mapBy>[2], scale: number): Shape {
  const mapped = mapBy(shape, 'both', map);
  // How far a pattern was slid is part of what is scaled; its place already has it.
  const slid = mapFills(mapped, (fill) => {
    if (!isPlaced(fill)) return fill;
    const { offset, anchor } = fill;
    const next = { x: offset.x * scale, y: offset.y * scale };
    return {
      ...fill,
      offset: next,
      anchor: { x: anchor.x + offset.x - next.x, y: anchor.y + offset.y - next.y },
    };
  });
  const { stroke } = slid;
  if (!stroke) return slid;
  const dashes = stroke.dashes.map((dash) => dash * scale);
  return { ...slid, stroke: { ...stroke, width: stroke.width * scale, dashes } };
}
