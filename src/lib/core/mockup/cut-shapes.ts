import { scaling } from '../geom/affine';
import { formatPath, transformPath } from '../geom/path';
import { toPx } from '../num/length';
import { formOfPath } from '../recipe/form';
import { freshShape, mapFills, shapeCentre, type Shape } from '../recipe/layout';
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

/**
 * What was on another cut sheet on a new one: parts of the same name are filled as they were, and all that lay upon parts lies as
 * far from the middle of the first part as before. `parts` names those of the other sheet: what the new one lacks of them goes. All of it
 * under ids of its own.
 */
export function carriedOver(
  { shapes: before, parts: gone }: { shapes: readonly Shape[]; parts: readonly string[] },
  parts: readonly Shape[],
  newId: () => string,
): Shape[] {
  const renamed = (shape: Shape): Shape => mapFills(shape, (fill) => ({ ...fill, id: newId() }));
  const names = new Set(parts.map(({ name }) => name));
  const held = new Map(before.filter(({ name }) => names.has(name)).map((shape) => [shape.name, shape]));
  const filled = parts.map((part): Shape => {
    const own = held.get(part.name);
    const { fills, stroke, mask } = own ? renamed(own) : part;
    return { ...part, fills, stroke, mask };
  });
  const first = parts.find(({ name }) => held.has(name));
  const [from, to] = first ? [shapeCentre(held.get(first.name)!), shapeCentre(first)] : [null, null];
  const upon = before
    .filter(({ name }) => !names.has(name) && !gone.includes(name))
    .map((shape): Shape => {
      const by = from && to ? { x: to.x - from.x, y: to.y - from.y } : { x: 0, y: 0 };
      const copy = { ...renamed(shape), id: newId(), group: null };
      return { ...copy, x: shape.x + by.x, y: shape.y + by.y };
    });
  return [...filled, ...upon];
}
