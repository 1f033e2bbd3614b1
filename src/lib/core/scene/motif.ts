import { grow, unionBoxes, type Box } from '../geom/box';
import { parsePath, pathBox, transformPath, formatPath, type Path } from '../geom/path';
import { formPath } from '../geom/shapes';
import { translation } from '../geom/affine';
import type { Motif, MotifContent, Stroke } from '../recipe/recipe';

/** One path to draw, in motif space, painted by slots. */
export type Element = {
  path: Path;
  d: string;
  fill: string | null;
  fillRule: 'nonzero' | 'evenodd';
  stroke: Stroke | null;
  opacity: number;
};

/** A motif made ready to draw: its paths and the box of all their ink (stroke widths included), px about its middle. */
export type CompiledMotif = { elements: Element[]; box: Box };

/** Compiles a motif. Path data that cannot be read are left out; `checkRecipe` names them before anything is saved. */
export function compileMotif(motif: Motif): CompiledMotif {
  const elements = elementsOf(motif.content);
  const boxes = elements.map(elementBox).filter((box): box is Box => box !== null);
  return { elements, box: unionBoxes(boxes) ?? { x: 0, y: 0, width: 0, height: 0 } };
}

/** The box of an element's ink, or `null` where it has none. */
export function elementBox(element: Element): Box | null {
  const box = pathBox(element.path);
  return box && element.stroke ? grow(box, strokeReach(element.stroke, element.path)) : box;
}

/** How far a stroke can reach from its path, in px of the path's space. */
export function strokeReach(stroke: Stroke, path: Path): number {
  const half = stroke.width / 2;
  const hasCorners = path.filter((segment) => segment.op !== 'M').length > 1;
  if (stroke.join === 'miter' && hasCorners) return half * Math.max(1, stroke.miterLimit);
  return stroke.cap === 'square' ? half * Math.SQRT2 : half;
}

function elementsOf(content: MotifContent): Element[] {
  switch (content.kind) {
    case 'form': {
      const centred = translation(-content.width / 2, -content.height / 2);
      const path = transformPath(centred, formPath(content.form, content.width, content.height));
      return [
        { path, d: formatPath(path), fill: content.slot, fillRule: 'nonzero', stroke: null, opacity: 1 },
      ];
    }
    case 'line': {
      const half = content.length / 2;
      const path: Path = [
        { op: 'M', to: { x: -half, y: 0 } },
        { op: 'L', to: { x: half, y: 0 } },
      ];
      const stroke: Stroke = {
        slot: content.slot,
        width: content.thickness,
        cap: content.cap,
        join: 'miter',
        miterLimit: 4,
        dashes: [],
      };
      return [{ path, d: formatPath(path), fill: null, fillRule: 'nonzero', stroke, opacity: 1 }];
    }
    case 'drawing':
      return content.elements.flatMap((element) => {
        const parsed = parsePath(element.d);
        if (!parsed.ok) return [];
        const { fill, fillRule, stroke, opacity } = element;
        return [{ path: parsed.path, d: formatPath(parsed.path), fill, fillRule, stroke, opacity }];
      });
  }
}
