import { parsePath, pathBox } from '../geom/path';
import type { ShapeForm } from '../geom/shapes';
import type { LengthUnit } from '../num/length';
import { lengthRange, needSlot, range, SHARE } from './check-parts';
import { elementSlots } from './edit';
import { LIMITS } from './limits';
import type { Problem } from './problem';
import { motifSize, type DrawingElement, type Motif, type MotifEffects } from './recipe';

/** Adds what is wrong with a motif: its sides, form or outlines, shadows, colours. */
export function checkMotif(
  motif: Motif,
  path: string,
  slots: Set<string>,
  measure: LengthUnit,
  problems: Problem[],
): void {
  const { content } = motif;
  const size = motifSize(content);
  const label = `of “${motif.name}”`;
  const sides = LIMITS.shapeSide;
  lengthRange(size.width, sides, measure, `${path}.content.width`, `The width ${label}`, problems);
  lengthRange(size.height, sides, measure, `${path}.content.height`, `The height ${label}`, problems);
  if (motif.effects) checkEffects(motif.effects, `${path}.effects`, slots, motif.name, measure, problems);
  if (content.kind === 'form') checkForm(content.form, `${path}.content.form`, problems);
  if (content.kind !== 'drawing') {
    needSlot(content.slot, slots, `${path}.content.slot`, motif.name, problems);
    return;
  }
  if (content.elements.length > LIMITS.elements)
    problems.push({
      code: 'too_many',
      path: `${path}.content.elements`,
      message: `“${motif.name}” has ${content.elements.length} paths; at most ${LIMITS.elements} are taken.`,
    });
  content.elements.forEach((element, index) =>
    checkElement(element, `${path}.content.elements.${index}`, slots, motif.name, problems),
  );
}

function checkElement(
  element: DrawingElement,
  path: string,
  slots: Set<string>,
  name: string,
  problems: Problem[],
): void {
  checkPath(element.d, `${path}.d`, `“${name}”`, problems);
  if (element.clip) checkPath(element.clip.d, `${path}.clip`, `“${name}”, its clip path`, problems);
  for (const slot of elementSlots(element)) needSlot(slot, slots, `${path}.fill`, name, problems);
}

/** Adds a problem where path data cannot be read or reach too far out. */
export function checkPath(d: string, path: string, said: string, problems: Problem[]): void {
  const parsed = parsePath(d);
  if (!parsed.ok) {
    problems.push({ code: 'bad_path', path, message: `${said}: ${parsed.message}` });
    return;
  }
  const box = pathBox(parsed.path);
  const most = LIMITS.coordinate;
  if (!box || (box.x >= -most && box.y >= -most && box.x + box.width <= most && box.y + box.height <= most))
    return;
  problems.push({
    code: 'out_of_range',
    path,
    message: `${said}: its outline reaches further than ${most} px from the middle; make it smaller.`,
  });
}

function checkEffects(
  effects: MotifEffects,
  path: string,
  slots: Set<string>,
  name: string,
  measure: LengthUnit,
  problems: Problem[],
): void {
  for (const kind of ['drop', 'inner'] as const) {
    const shadow = effects[kind];
    if (!shadow) continue;
    needSlot(shadow.slot, slots, `${path}.${kind}.slot`, name, problems);
    lengthRange(
      shadow.distance,
      LIMITS.effect,
      measure,
      `${path}.${kind}.distance`,
      'The distance of a shadow',
      problems,
    );
    lengthRange(
      shadow.blur,
      LIMITS.effect,
      measure,
      `${path}.${kind}.blur`,
      'The softness of a shadow',
      problems,
    );
    range(shadow.opacity, SHARE, `${path}.${kind}.opacity`, 'The opacity of a shadow', problems);
  }
  const { relief } = effects;
  if (!relief) return;
  lengthRange(
    relief.height,
    LIMITS.effect,
    measure,
    `${path}.relief.height`,
    'The height of the relief',
    problems,
  );
  lengthRange(
    relief.softness,
    LIMITS.effect,
    measure,
    `${path}.relief.softness`,
    'The softness of the relief',
    problems,
  );
  range(relief.strength, SHARE, `${path}.relief.strength`, 'The strength of the relief', problems);
}

/** Why a form cannot be drawn, or nothing. */
function checkForm(form: ShapeForm, path: string, problems: Problem[]): void {
  if (form.kind === 'polygon')
    range(form.sides, LIMITS.sides, `${path}.sides`, 'The number of sides', problems);
  if (form.kind === 'star') {
    range(form.points, LIMITS.starPoints, `${path}.points`, 'The number of points', problems);
    range(form.inner, LIMITS.starInner, `${path}.inner`, 'The inner radius of a star', problems);
  }
}
