import type { Box } from '$lib/core/geom/box';
import { isHex } from '$lib/core/colour/parse';
import { freshFill } from '$lib/core/recipe/fill';
import { freshPage, freshShape } from '$lib/core/recipe/layout';
import { compiledPattern } from '$lib/core/scene/pattern';
import { lowerLayout } from '$lib/core/draw/lower';
import type { DisplayList } from '$lib/core/draw/list';
import type { BenchEditor } from './editor.svelte';

/** The plane that the bench shows, as a page with one shape over `box` that its pattern fills. */
export function planeOf(editor: BenchEditor, surface: string, box: Box): DisplayList {
  const pattern = compiledPattern('bench', editor.name, editor.stillScene, editor.recipe.slots);
  const fill = freshFill('fill', 'bench');
  const margin = 2;
  const shape = freshShape({
    id: 'plane',
    name: 'Plane',
    form: { kind: 'rectangle', radius: 0 },
    x: box.x - margin,
    y: box.y - margin,
    width: box.width + 2 * margin,
    height: box.height + 2 * margin,
    fills: [{ ...fill, anchored: 'page' }],
  });
  const page = { ...freshPage(1, 1), background: isHex(surface) ? surface : '#ffffff', shapes: [shape] };
  return lowerLayout(page, () => pattern);
}
