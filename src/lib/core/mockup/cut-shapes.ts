import { scaling } from '../geom/affine';
import { formatPath, transformPath } from '../geom/path';
import { toPx } from '../num/length';
import { formOfPath } from '../recipe/form';
import { freshShape, type Shape } from '../recipe/layout';
import type { Sheet } from './sheet';

/** The parts of a cut sheet as shapes of a page, px, each by its name under an id of its own. */
export const shapesOf = ({ panels }: Sheet, newId: () => string): Shape[] =>
  panels.flatMap(({ name, outline, box }) => {
    const px = (mm: number): number => toPx(mm, 'mm');
    if (box) {
      const frame = { x: px(box.x), y: px(box.y), width: px(box.width), height: px(box.height) };
      return [freshShape({ id: newId(), name, form: { kind: 'rectangle', radius: 0 }, ...frame })];
    }
    const drawn = formOfPath(transformPath(scaling(px(1)), outline), formatPath);
    return drawn ? [freshShape({ id: newId(), name, form: drawn.form, ...drawn.frame })] : [];
  });
