import type { LayoutData } from '../../contract/data';
import { compileLayout, type LayoutScene } from '../../core/scene/layout';
import { patternLookup } from '../../core/scene/library';
import type { Db } from '../db/open';
import { layoutPatterns } from '../repo/layouts';

/** A stored layout compiled with the patterns that its fills show now. */
export function sceneOf(db: Db, layout: LayoutData): LayoutScene {
  return compileLayout(layout, patternLookup(layoutPatterns(db, layout.shapes)));
}
