import { apply, invert } from '$lib/core/geom/affine';
import type { Box } from '$lib/core/geom/box';
import type { Point } from '$lib/core/geom/point';
import { intoUnit } from '$lib/core/lattice/reduce';
import { maskPicture } from '$lib/core/formats/mask-picture';
import type { LengthUnit } from '$lib/core/num/length';
import type { Raster } from '$lib/core/raster/composite';
import { heldShapes, pagePatternMatrix, patternFills, shapeBox } from '$lib/core/recipe/layout';
import type { DisplayList } from '$lib/core/draw/list';
import type { UnitScene } from '$lib/core/scene/unit';
import { layoutSvg } from '$lib/core/svg/layout';
import { sayLength } from '../library/say';
import { rasterOf } from '../state/raster';
import type { LayoutEditor } from './editor.svelte';

/** A place of a page in `side` px: as a screen draws it, with patterns as tiles, or with every copy drawn. */
export function drawPlace(
  scene: DisplayList,
  region: Box,
  side: number,
  how: 'screen' | 'exact',
): Promise<Raster> {
  const scale = side / region.width;
  const svg = layoutSvg(
    { ...scene, background: scene.background ?? '#ffffff' },
    {
      patterns: how === 'screen' ? 'live' : 'expanded',
      region,
      width: String(side),
      height: String(side),
      scale,
      maskPicture: (mask) => maskPicture(mask, scale),
    },
  );
  return rasterOf(svg, side, side);
}

/** How near to an edge of the unit a place counts as on it, px. */
const ON_EDGE = 0.6;

/** Where in its unit a place of a pattern lies, in words. */
export function sayUnitPlace(
  name: string,
  { lattice, pitch }: Pick<UnitScene, 'lattice' | 'pitch'>,
  at: Point,
  measure: LengthUnit,
): string {
  const { x, y } = intoUnit(lattice, pitch, at);
  const near = (value: number, side: number): boolean =>
    Math.min(Math.abs(value), Math.abs(side - value)) < ON_EDGE;
  const edge = near(x, pitch.width) || near(y, pitch.height) ? ', on the edge of the unit' : '';
  return `“${name}”, ${sayLength(x, measure)} across and ${sayLength(y, measure)} down in its unit of ${sayLength(pitch.width, measure)} × ${sayLength(pitch.height, measure)} ${measure}${edge}`;
}

/** Where on the pattern that lies frontmost a point of the page is, in words; `null` where none does. */
export function placeInPattern(editor: LayoutEditor, at: Point): string | null {
  const { doc } = editor;
  const hidden = heldShapes(doc, 'hidden');
  for (const shape of [...doc.shapes].reverse()) {
    const { x, y, width, height } = shapeBox(shape);
    if (hidden(shape) || at.x < x || at.y < y || at.x > x + width || at.y > y + height) continue;
    const fill = patternFills(shape).at(-1);
    const pattern = fill && editor.lookup(fill);
    const back = fill && invert(pagePatternMatrix(shape, fill));
    if (pattern && back) return sayUnitPlace(pattern.name, pattern.scene, apply(back, at), doc.measure);
  }
  return null;
}
