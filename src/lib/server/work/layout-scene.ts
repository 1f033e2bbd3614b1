import type { LayoutData, LayoutInUse, StrikeOff } from '../../contract/data';
import { parsePath, pathBox, formatPath, transformPath } from '../../core/geom/path';
import { translation } from '../../core/geom/affine';
import { colourFill } from '../../core/recipe/fill';
import { formOfPath } from '../../core/recipe/form';
import { freshShape, type Shape } from '../../core/recipe/layout';
import { sheetPage } from '../../core/recipe/strike-off';
import { lowerLayout } from '../../core/draw/lower';
import type { DisplayList } from '../../core/draw/list';
import { patternLookup } from '../../core/scene/library';
import type { Db } from '../db/open';
import { layoutInUse, layoutPatterns, lookupOf } from '../repo/layouts';
import { setText } from '../render/text';

/** A stored layout compiled with the patterns that its fills show now. */
export const sceneOf = (db: Db, layout: LayoutData): DisplayList => sceneInUse(layoutInUse(db, layout));

/** The same of a layout that was read with what it uses. */
export const sceneInUse = (used: LayoutInUse): DisplayList => lowerLayout(used.layout, lookupOf(used));

/** A strike-off as a page with its labels set. */
export function sheetScene(db: Db, { sheet }: StrikeOff): DisplayList {
  // The names of patterns that are tried are only known once they are looked up.
  const patterns = layoutPatterns(db, sheetPage(sheet, (id) => id).layout.shapes);
  const names = new Map(
    patterns.flatMap(({ id, name, colourways }) => [
      [id, name] as const,
      ...colourways.map((way) => [way.id, way.name] as const),
    ]),
  );
  const { layout, labels, labelSize } = sheetPage(sheet, (id) => names.get(id) ?? 'gone');
  const words = labels.flatMap(({ text, x, y }, index) => labelShape(text, { x, y }, labelSize, index) ?? []);
  return lowerLayout({ ...layout, shapes: [...layout.shapes, ...words] }, patternLookup(patterns));
}

function labelShape(text: string, at: { x: number; y: number }, size: number, index: number): Shape | null {
  const set = setText(text, { family: 'Schibsted Grotesk', size });
  const read = set.ok ? parsePath(set.d) : null;
  if (!read?.ok || !pathBox(read.path)) return null;
  const made = formOfPath(transformPath(translation(at.x, at.y), read.path), (path) => formatPath(path));
  if (!made) return null;
  const id = `label-${index}`;
  return freshShape({
    id,
    name: text,
    form: made.form,
    ...made.frame,
    fills: [colourFill(id, { colour: '#14211f' })],
  });
}
