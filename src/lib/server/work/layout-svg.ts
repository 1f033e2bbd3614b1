import type { LayoutData } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { maskPicture } from '../../core/formats/mask-picture';
import { fromPx } from '../../core/num/length';
import { intersectBoxes } from '../../core/geom/box';
import { LIMITS } from '../../core/recipe/limits';
import { costOver } from '../../core/scene/cost';
import { patternRegion, strokeOf, tiledOf, type DisplayList } from '../../core/draw/list';
import { withBleed } from '../../core/draw/reframe';
import { layoutSvg } from '../../core/svg/layout';
import type { Db } from '../db/open';
import { sceneOf } from './layout-scene';

/** A layout as the text of an SVG file. Pictures are named by hash, not yet embedded. */
export function layoutFile(
  db: Db,
  layout: LayoutData,
  { as, bleed }: { as: 'live' | 'expanded'; bleed: number },
): Outcome<string> {
  const say = (px: number): string => `${Number(fromPx(px, layout.measure).toFixed(4))}${layout.measure}`;
  const scene = withBleed(sceneOf(db, layout), bleed);
  const segments = as === 'expanded' ? expandedSegments(scene) : 0;
  if (segments > LIMITS.expandedSegments)
    return fail(
      'too_large',
      `Drawing every copy would take ${(segments / 1e6).toPrecision(2)} million path segments; at most ${LIMITS.expandedSegments / 1e6} million are written. Export with live patterns, or as PNG.`,
      'patterns',
    );
  const svg = layoutSvg(scene, {
    patterns: as,
    wholePixels: true,
    width: say(layout.width + 2 * bleed),
    height: say(layout.height + 2 * bleed),
    title: layout.name,
    maskPicture: (mask) => maskPicture(mask, layout.ppi / 96),
  });
  return done(svg);
}

/** Segments of all copies of all patterns that show on the page. */
function expandedSegments(scene: DisplayList): number {
  const page = { x: 0, y: 0, width: scene.width, height: scene.height };
  let sum = 0;
  for (const shape of scene.shapes)
    for (const part of [shape, strokeOf(shape)]) {
      const seen = part && intersectBoxes(part.box, page);
      if (!part || !seen) continue;
      for (const item of tiledOf({ ...part, stroke: null })) {
        const region = patternRegion(part, item, seen);
        if (region) sum += costOver(item.pattern.scene, region).segments;
      }
    }
  return sum;
}
