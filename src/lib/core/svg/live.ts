import { multiply, type Affine } from '../geom/affine';
import type { UnitScene } from '../scene/unit';
import { cellMarkup, type Colours } from './pieces';
import { factor, matrixText } from './print';

/** A base <pattern>: the cell with its drawing, at its own size. Fills refer to it by href. */
export function basePattern(id: string, scene: UnitScene, colours: Colours, underlay: number): string {
  return `<pattern id="${id}" ${cellAttributes(scene)}>${cellMarkup(scene, colours, underlay)}</pattern>`;
}

/** The attributes that make a <pattern> of a cell, without its transform. */
export function cellAttributes(scene: UnitScene): string {
  const { width, height } = scene.cell;
  return `width="${factor(width)}" height="${factor(height)}" patternUnits="userSpaceOnUse"`;
}

/** The patternTransform of a fill: its own matrix, and the skew of a cell that needs one. */
export function patternTransform(scene: UnitScene, matrix: Affine): string {
  return matrixText(multiply(matrix, scene.cell.matrix));
}

/** A fill's <pattern>: everything but its transform is inherited from the base by href. */
export function fillPattern(id: string, base: string, scene: UnitScene, matrix: Affine): string {
  return `<pattern id="${id}" href="#${base}" patternTransform="${patternTransform(scene, matrix)}"/>`;
}
