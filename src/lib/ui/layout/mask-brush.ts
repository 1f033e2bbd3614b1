import type { Shape } from '$lib/core/recipe/layout';
import { freshMask, type PaintedMask } from '$lib/core/recipe/mask';
import type { LayoutEditor } from './editor.svelte';

/** How the mask's brush paints: its size is in px of the page. It stays from mask to mask. */
export type MaskBrushNumbers = {
  size: number;
  softness: number;
  strength: number;
  mode: 'erase' | 'restore';
};

/** The painted mask of a shape or of its fill, or an empty one. */
export function paintedMaskOf(editor: LayoutEditor, shape: Shape): PaintedMask {
  const held = editor.painting === 'shape' ? shape.mask : (editor.activeOf(shape)?.mask ?? null);
  return held?.kind === 'painted' ? held : freshMask();
}
