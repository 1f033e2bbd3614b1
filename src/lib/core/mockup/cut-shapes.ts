import { scaling } from '../geom/affine';
import { formatPath, pathBox, transformPath, type Path } from '../geom/path';
import type { Sheet } from './sheet';
import { toPx } from '../num/length';
import { formOfPath } from '../recipe/form';
import { freshShape, type Shape } from '../recipe/layout';

/** The parts of a cut sheet as shapes of a page, px, each by its name under an id of its own: a plain rectangle where it is one. */
export const shapesOf = ({ panels }: Sheet, newId: () => string): Shape[] =>
  panels.flatMap(({ name, outline }) => {
    const path = transformPath(scaling(toPx(1, 'mm')), outline);
    const box = pathBox(path);
    if (box && isRectangle(path))
      return [freshShape({ id: newId(), name, form: { kind: 'rectangle', radius: 0 }, ...box })];
    const drawn = formOfPath(path, formatPath);
    return drawn ? [freshShape({ id: newId(), name, form: drawn.form, ...drawn.frame })] : [];
  });

/** Whether a path runs along the sides of its box. */
function isRectangle(path: Path): boolean {
  const box = pathBox(path);
  const corners = path.filter(({ op }) => op !== 'Z');
  return (
    box !== null &&
    corners.length === 4 &&
    corners.every(
      (one) =>
        (one.op === 'M' || one.op === 'L') &&
        [box.x, box.x + box.width].includes(one.to.x) &&
        [box.y, box.y + box.height].includes(one.to.y),
    )
  );
}
