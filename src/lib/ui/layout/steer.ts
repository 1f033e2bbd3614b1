import type { Point } from '$lib/core/geom/point';
import type { Gradient, GradientPlace } from '$lib/core/recipe/gradient';
import { roundTo } from '$lib/core/num/tolerance';
import type { Shape } from '$lib/core/recipe/layout';
import type { LayoutEditor } from './editor.svelte';

/** The gradient that lies at a place of a shape, if there is one. */
export function gradientAt(editor: LayoutEditor, shape: Shape, place: GradientPlace): Gradient | null {
  const fill = editor.activeOf(shape);
  if (place === 'fill') return fill?.kind === 'gradient' ? fill.gradient : null;
  if (place === 'wash') return fill?.kind === 'pattern' ? fill.wash : null;
  const mask = place === 'fill-mask' ? fill?.mask : shape.mask;
  return mask?.kind === 'gradient' ? mask.gradient : null;
}

/** An attachment for a panel that edits a gradient: while it is open the gradient's line lies on the stage. */
export function steering(editor: LayoutEditor, place: GradientPlace): () => () => void {
  return () => {
    editor.steered = place;
    return () => {
      editor.steered = null;
    };
  };
}

/** Puts a gradient at a place of the selected shapes, as a step or, `live`, as part of a gesture. */
export function putGradient(
  editor: LayoutEditor,
  place: GradientPlace,
  gradient: Gradient,
  live: boolean,
): void {
  if (place === 'fill')
    editor.changeActive((one) => (one.kind === 'gradient' ? { ...one, gradient } : one), true);
  else if (place === 'wash') editor.changeFill((one) => ({ ...one, wash: gradient }), true);
  else editor.setMask(place === 'fill-mask' ? 'fill' : 'shape', { kind: 'gradient', gradient }, true);
  if (!live) editor.history.commit();
}

/** Shares of a frame are kept to a thousandth of a per cent and within what the numbers of a gradient hold. */
export const roundShare = ({ x, y }: Point): Point => ({ x: within(x), y: within(y) });

const within = (share: number): number => roundTo(Math.max(-100, Math.min(100, share)), 5);
