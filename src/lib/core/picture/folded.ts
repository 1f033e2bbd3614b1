import type { Affine } from '../geom/affine';
import { Folder, foldOf, mirrorEdges, type PartEdge } from '../lattice/fold';
import { ownSize } from '../recipe/made';
import { groupOf, type Pictured } from '../recipe/pictured';
import type { Raster } from '../raster/composite';
import { writeSamples, type Look } from './look';

/** The region folded by its plane group; where images meet without a mirror between them, a pixel is the mean of its quarters. */
export function folded(look: Look, pictured: Pictured, scale: number): Raster {
  const fold = foldOf(groupOf(pictured), pictured.region);
  const { width, height } = ownSize(pictured, scale);
  const folder = new Folder(fold);
  const [stepX, stepY] = [fold.cell.width / width, fold.cell.height / height];
  const data = new Uint8Array(width * height * 4);
  const wide = pictured.symmetry.heal ?? 0;
  const inward = wide > 0 ? healed(mirrorEdges(fold), wide) : null;
  const see = (places: Float64Array, count: number): Float64Array => {
    inward?.(places, count);
    return look.see(places, count);
  };
  // The corners of a pixel lie so far from its middle; its image is as large as the cell.
  const reach = (CORNER / 4) * Math.hypot(stepX, stepY) + 1e-6;
  const places = new Float64Array(2 * Math.max(width, 4));
  const done = new Uint8Array(width);
  for (let y = 0; y < height; y += 1) {
    const middleY = (y + 0.5) * stepY;
    const row = y * width * 4;
    done.fill(0);
    for (const image of fold.images) {
      const [first, end] = runOf(image, folder.edges, middleY, reach, stepX, width);
      if (first >= end) continue;
      const { a, b, c, d, e, f } = image;
      for (let x = first; x < end; x += 1) {
        const middleX = (x + 0.5) * stepX;
        places[2 * (x - first)] = a * middleX + c * middleY + e;
        places[2 * (x - first) + 1] = b * middleX + d * middleY + f;
      }
      writeSamples(see(places, end - first), end - first, data, row + first * 4);
      done.fill(1, first, end);
    }
    for (let x = 0; x < width; x += 1) if (!done[x]) byTheEdge(x, y, row + x * 4);
  }
  return { width, height, data };

  /** A pixel that lies in more than one image, or so near to another that one has to look. */
  function byTheEdge(x: number, y: number, to: number): void {
    const [middleX, middleY] = [(x + 0.5) * stepX, (y + 0.5) * stepY];
    const put = (at: number, index: number, atX: number, atY: number): void => {
      const { a, b, c, d, e, f } = fold.images[index]!;
      places[2 * at] = a * atX + c * atY + e;
      places[2 * at + 1] = b * atX + d * atY + f;
    };
    const index = folder.find(middleX, middleY);
    const meets = QUARTERS.some(
      ([dx, dy]) => folder.find(middleX + dx * CORNER * stepX, middleY + dy * CORNER * stepY) !== index,
    );
    if (!meets) {
      put(0, index, middleX, middleY);
      return writeSamples(see(places, 1), 1, data, to);
    }
    QUARTERS.forEach(([dx, dy], quarter) => {
      const [quarterX, quarterY] = [middleX + dx * stepX, middleY + dy * stepY];
      put(quarter, folder.find(quarterX, quarterY), quarterX, quarterY);
    });
    const seen = see(places, 4);
    for (let channel = 0; channel < 4; channel += 1)
      seen[channel] =
        seen[channel]! / 4 + seen[4 + channel]! / 4 + seen[8 + channel]! / 4 + seen[12 + channel]! / 4;
    writeSamples(seen, 1, data, to);
  }
}

/** The pixels of a row that lie in an image of the part by more than `reach`: from the first one to before the end. */
function runOf(
  { a, b, c, d, e, f }: Affine,
  edges: readonly PartEdge[],
  y: number,
  reach: number,
  step: number,
  width: number,
): [first: number, end: number] {
  let from = 0;
  let to = width * step;
  for (const edge of edges) {
    const along = a * edge.nx + b * edge.ny;
    const room = (c * y + e - edge.x) * edge.nx + (d * y + f - edge.y) * edge.ny - reach - 1e-9;
    if (Math.abs(along) < 1e-12) {
      if (room < 0) return [0, 0];
    } else if (along > 0) from = Math.max(from, -room / along);
    else to = Math.min(to, -room / along);
  }
  const first = Math.max(0, Math.ceil(from / step - 0.5));
  const end = Math.min(width, Math.floor(to / step - 0.5) + 1);
  return [first, end];
}

/** Beside a healed line so many times its half the region is drawn in, less and less. */
const HEAL_REACH = 6;

/**
 * Moves a place of the region away from its mirror lines, so that `wide` px along each of them are never seen: what was
 * drawn there, an edge that does not quite meet its image, is gone, and what lies beside it moves up without being blurred.
 */
function healed(edges: readonly PartEdge[], wide: number): (places: Float64Array, count: number) => void {
  const half = wide / 2;
  const reach = half * HEAL_REACH;
  return (places, count) => {
    for (let at = 0; at < 2 * count; at += 2)
      for (const { x, y, nx, ny } of edges) {
        const far = Math.max(0, (places[at]! - x) * nx + (places[at + 1]! - y) * ny);
        if (far >= reach) continue;
        const by = half * (1 - far / reach);
        places[at]! += by * nx;
        places[at + 1]! += by * ny;
      }
  };
}

/** From a quarter of a pixel nearly to its corner: a line between two pixels goes through neither. */
const CORNER = 1.99;

const QUARTERS = [
  [-0.25, -0.25],
  [0.25, -0.25],
  [-0.25, 0.25],
  [0.25, 0.25],
] as const;
