import type { DrawingRequest } from '../../contract/render';
import { maskPicture } from '../../core/formats/mask-picture';
import { fromPx } from '../../core/num/length';
import { compileLayout } from '../../core/scene/layout';
import { patternLookup } from '../../core/scene/library';
import { withBleed } from '../../core/scene/reframe';
import { layoutSvg } from '../../core/svg/layout';

/** Entry of a drawing thread: a layout as the text of an SVG file. Pictures are named by hash, not yet embedded. */
export default function drawLayout({ layout, patterns, as, bleed }: DrawingRequest): string {
  const say = (px: number): string => `${Number(fromPx(px, layout.measure).toFixed(4))}${layout.measure}`;
  const scene = compileLayout(layout, patternLookup(patterns));
  return layoutSvg(withBleed(scene, bleed), {
    patterns: as,
    width: say(layout.width + 2 * bleed),
    height: say(layout.height + 2 * bleed),
    title: layout.name,
    maskPicture: (mask) => maskPicture(mask, layout.ppi / 96),
  });
}
