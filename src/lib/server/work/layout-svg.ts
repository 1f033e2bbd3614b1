import type { LayoutData } from '../../contract/data';
import { maskPicture } from '../../core/formats/mask-picture';
import { fromPx } from '../../core/num/length';
import { withBleed } from '../../core/scene/reframe';
import { layoutSvg } from '../../core/svg/layout';
import type { Db } from '../db/open';
import { sceneOf } from './layout-scene';

/** A layout as the text of an SVG file. Pictures are named by hash, not yet embedded. */
export function layoutFile(
  db: Db,
  layout: LayoutData,
  { as, bleed }: { as: 'live' | 'expanded'; bleed: number },
): string {
  const say = (px: number): string => `${Number(fromPx(px, layout.measure).toFixed(4))}${layout.measure}`;
  return layoutSvg(withBleed(sceneOf(db, layout), bleed), {
    patterns: as,
    width: say(layout.width + 2 * bleed),
    height: say(layout.height + 2 * bleed),
    title: layout.name,
    maskPicture: (mask) => maskPicture(mask, layout.ppi / 96),
  });
}
