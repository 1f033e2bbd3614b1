import { nanoid } from 'nanoid';
import { scaling } from '$lib/core/geom/affine';
import { formatPath, pathBox, transformPath, type Path } from '$lib/core/geom/path';
import type { Sheet } from '$lib/core/mockup/sheet';
import { toPx } from '$lib/core/num/length';
import { formOfPath } from '$lib/core/recipe/form';
import { freshShape, type Shape } from '$lib/core/recipe/layout';

/** The parts of a cut sheet as shapes of a page, px, each by its name: a plain rectangle where it is one. */
export const shapesOf = ({ panels }: Sheet): Shape[] =>
  panels.flatMap(({ name, outline }) => {
    const path = transformPath(scaling(toPx(1, 'mm')), outline);
    const box = pathBox(path);
    if (box && isRectangle(path))
      return [freshShape({ id: nanoid(12), name, form: { kind: 'rectangle', radius: 0 }, ...box })];
    const drawn = formOfPath(path, formatPath);
    return drawn ? [freshShape({ id: nanoid(12), name, form: drawn.form, ...drawn.frame })] : [];
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
