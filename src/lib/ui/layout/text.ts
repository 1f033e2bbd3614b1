import { apply, chain, invert, scaling, translation, type Affine } from '$lib/core/geom/affine';
import { formatPath, parsePath } from '$lib/core/geom/path';
import { LINE_SHARE, setLines, type SetLine } from '$lib/core/geom/set-lines';
import { add, subtract, type Point } from '$lib/core/geom/point';
import type { TextForm } from '$lib/core/recipe/form';
import { frameMatrix, type Shape } from '$lib/core/recipe/layout';
import { outlineText } from '../state/fonts';

/** How text is set: the font by its id, px to the em, and how its lines stand to each other. */
export type TextNumbers = Pick<TextForm, 'font' | 'size' | 'align'>;

/** Set text: its outlines as a form, where its first baseline begins in the form's box, and its widest line, px. */
export type SetText = { form: TextForm; origin: Point; widest: number };

/** Text as outlines in a box that begins at (0, 0); a sentence where it cannot be set. */
export async function setText(
  text: string,
  { font, size, align }: TextNumbers,
): Promise<{ ok: true; set: SetText } | { ok: false; message: string }> {
  const lines: SetLine[] = [];
  for (const line of text.split('\n')) {
    const outline = await outlineText(line, font, size);
    if (!outline.ok) return outline;
    const read = parsePath(outline.d);
    lines.push({ path: read.ok ? read.path : [], width: outline.width });
  }
  const set = setLines(lines, { size, align });
  if (!set) return { ok: false, message: 'The text has nothing to draw; write some letters.' };
  const { box, widest } = set;
  const { width, height } = box;
  const form: TextForm = { kind: 'text', d: formatPath(set.path), width, height, text, font, size, align };
  return { ok: true, set: { form, origin: { x: -box.x, y: -box.y }, widest } };
}

/** What stays where it is while words change: the beginning, middle or end of the first baseline, in the form's box. */
const anchorOf = ({ form, origin, widest }: SetText): Point => ({
  x: origin.x + widest * LINE_SHARE[form.align],
  y: origin.y,
});

/** The box of a text's form → page. */
export function textMatrix(shape: Shape): Affine {
  if (shape.form.kind !== 'text') return translation(shape.x, shape.y);
  const { width, height } = shape.form;
  return chain(
    translation(shape.x, shape.y),
    frameMatrix(shape),
    scaling(shape.width / width, shape.height / height),
  );
}

/** The frontmost text whose box a place of the page lies in: between its letters one presses the text too. */
export const textAt = (shapes: readonly Shape[], at: Point): Shape | null =>
  shapes.findLast((shape) => {
    const inverse = shape.form.kind === 'text' ? invert(textMatrix(shape)) : null;
    if (!inverse || shape.form.kind !== 'text') return false;
    const { x, y } = apply(inverse, at);
    return x >= 0 && y >= 0 && x <= shape.form.width && y <= shape.form.height;
  }) ?? null;

/** Where a text shape's anchor lies on the page. */
export const anchorOnPage = (shape: Shape, set: SetText): Point => apply(textMatrix(shape), anchorOf(set));

/** A text shape with other words or numbers: what it is stretched by stays, and its anchor lies at a place of the page. */
export function withText(shape: Shape, set: SetText, at: Point): Shape {
  const held = shape.form;
  const [across, down] =
    held.kind === 'text' ? [shape.width / held.width, shape.height / held.height] : [1, 1];
  const { form } = set;
  const next: Shape = { ...shape, form, width: form.width * across, height: form.height * down };
  return { ...next, ...add(next, subtract(at, anchorOnPage(next, set))) };
}
