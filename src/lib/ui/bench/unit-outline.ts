import type { Point } from '$lib/core/geom/point';
import { regionOfBox } from '$lib/core/lattice/meet';
import { cellCorners } from '$lib/core/lattice/cell';
import { cellOutline } from '$lib/core/lattice/groups';
import type { Recipe } from '$lib/core/recipe/recipe';
import type { UnitScene } from '$lib/core/scene/unit';

/** The corners of what the bench shows as the unit: the unit's own edges, a plane group's cell, a measured pattern's repeat. */
export function unitOutline(recipe: Recipe, scene: UnitScene): Point[] {
  if (recipe.kind !== 'composed') return cellCorners(scene.cell);
  const { unit, repeat } = recipe;
  if (repeat.kind === 'group') return cellOutline(repeat.group, unit, repeat.slant);
  return regionOfBox({ x: 0, y: 0, ...unit });
}

/** Where the neighbours of the unit lie that are outlined beside it: one step each way. */
export function neighbourOffsets(scene: UnitScene): Point[] {
  const { a, b, copies } = scene.lattice;
  const found: Point[] = [];
  for (const i of [-1, 0, 1])
    for (const j of [-1, 0, 1])
      for (const copy of copies)
        if (i !== 0 || j !== 0 || copy !== copies[0])
          found.push({ x: copy.x + a.x * i + b.x * j, y: copy.y + a.y * i + b.y * j });
  return found;
}
