import { translation } from '../geom/affine';
import { boxCentre } from '../geom/box';
import { formatPath, pathBox, transformPath, type Path } from '../geom/path';
import { modulo } from '../num/tolerance';
import { FRONT } from '../lattice/repeat';
import { MEASURED, type Measured } from '../recipe/measured';
import {
  emptyRecipe,
  freshPlacing,
  type ComposedRecipe,
  type DrawingElement,
  type MeasuredRecipe,
} from '../recipe/recipe';
import { buildMeasured, type BuiltPattern } from './measured';
import { elementBox, type Element } from './motif';

/**
 * A measured pattern as placed motifs. Lines at an angle get the unit whose diagonal they follow; other patterns are
 * laid upright, and `note` says by how much to turn them where they are used.
 */
export function asComposed(
  recipe: MeasuredRecipe,
  newId: () => string,
): { recipe: ComposedRecipe; note: string | null } {
  const { measured } = recipe;
  const angle = measured.numbers.angle ?? 0;
  const diagonal = diagonalLines(measured, angle);
  const built = diagonal ?? uprightParts(measured);
  const motifs: ComposedRecipe['motifs'] = [];
  const placings: ComposedRecipe['placings'] = [];
  for (const [index, element] of built.elements.entries()) {
    const box = elementBox(element);
    const pathOnly = pathBox(element.path);
    if (!box || !pathOnly) continue;
    const at = boxCentre(pathOnly);
    const id = newId();
    const name =
      built.elements.length === 1
        ? MEASURED[measured.form].label
        : `${MEASURED[measured.form].label} ${index + 1}`;
    const elements = [drawn(element, transformPath(translation(-at.x, -at.y), element.path))];
    motifs.push({
      id,
      name,
      content: {
        kind: 'drawing',
        asset: null,
        width: Math.max(box.width, 0.01),
        height: Math.max(box.height, 0.01),
        elements,
      },
    });
    placings.push(freshPlacing(newId(), id, at));
  }
  const turned = !diagonal && modulo(angle, 360) !== 0;
  return {
    recipe: {
      ...emptyRecipe(recipe.measure, built.unit),
      repeat: built.repeat,
      front: built.front,
      ground: recipe.ground,
      slots: recipe.slots,
      motifs,
      placings,
    },
    note: turned ? `As motifs the pattern is laid upright; turn it by ${angle}° where you use it.` : null,
  };
}

type Parts = Pick<ComposedRecipe, 'unit' | 'repeat' | 'front'> & { elements: Element[] };

function uprightParts(measured: Measured): Parts {
  const built = buildMeasured({ ...measured, numbers: { ...measured.numbers, angle: 0 } });
  const { a, b, front } = built.lattice;
  const step = modulo(b.x / a.x, 1);
  return {
    unit: { width: a.x, height: b.y },
    repeat:
      step < 1e-9 || step > 1 - 1e-9 ? { kind: 'straight' } : { kind: 'brick', step, run: 'progressive' },
    front,
    elements: allElements(built),
  };
}

function allElements({ endless, pieces }: BuiltPattern): Element[] {
  return [...endless.map(({ element }) => element), ...pieces.flatMap((piece) => piece.elements)];
}

/** Lines that all run one way at an angle: the unit is as wide and as high as they are apart along its sides. */
function diagonalLines(measured: Measured, angle: number): Parts | null {
  const built = buildMeasured({ ...measured, numbers: { ...measured.numbers, angle: 0 } });
  const oneWay =
    built.pieces.length === 0 &&
    built.endless.every(({ along, element }) => along === 'a' && element.path.length === 2);
  const radians = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  if (!oneWay || Math.abs(cos) < 0.02 || Math.abs(sin) < 0.02) return null;
  const pitch = built.lattice.b.y;
  const unit = { width: pitch / Math.abs(sin), height: pitch / Math.abs(cos) };
  const along = { x: unit.width, y: unit.height * Math.sign(sin * cos) };
  const elements = built.endless.map(({ element }) => {
    const start = element.path[0];
    const y = start?.op === 'M' ? start.to.y : 0;
    const from = { x: -sin * y, y: cos * y };
    const path: Path = [
      { op: 'M', to: from },
      { op: 'L', to: { x: from.x + along.x, y: from.y + along.y } },
    ];
    return { ...element, path, d: formatPath(path) };
  });
  return { unit, repeat: { kind: 'straight' }, front: FRONT, elements };
}

function drawn({ fill, fillRule, stroke, opacity }: Element, path: Path): DrawingElement {
  return { d: formatPath(path, 6), fill, fillRule, stroke, opacity };
}
