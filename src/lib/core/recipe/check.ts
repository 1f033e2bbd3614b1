import { parsePath } from '../geom/path';
import type { ShapeForm } from '../geom/shapes';
import { isHex } from '../colour/parse';
import { fromPx, type LengthUnit } from '../num/length';
import { LIMITS } from './limits';
import { sayNumber, type Problem } from './problem';
import { motifSize, type DrawingElement, type Motif, type Recipe } from './recipe';

type Range = { least: number; most: number };

/**
 * Everything that must hold for a recipe beyond its form: sizes within limits, references that lead somewhere, ids
 * that are unique, path data that can be read. An empty list means the recipe can be compiled and published.
 */
export function checkRecipe(recipe: Recipe): Problem[] {
  const problems: Problem[] = [];
  checkUnit(recipe, problems);
  const slots = new Set(recipe.slots.map((slot) => slot.id));
  checkSlots(recipe, slots, problems);
  checkCounts(recipe, problems);
  recipe.motifs.forEach((motif, index) =>
    checkMotif(motif, `motifs.${index}`, slots, recipe.measure, problems),
  );
  checkPlacings(recipe, problems);
  return problems;
}

/** Why a form cannot be drawn, or nothing. */
export function checkForm(form: ShapeForm, path: string, problems: Problem[]): void {
  if (form.kind === 'polygon')
    range(form.sides, LIMITS.sides, `${path}.sides`, 'The number of sides', problems);
  if (form.kind === 'star') {
    range(form.points, LIMITS.starPoints, `${path}.points`, 'The number of points', problems);
    range(form.inner, LIMITS.starInner, `${path}.inner`, 'The inner radius of a star', problems);
  }
}

/** Adds a problem where `value` is not a finite number within the range; `label` opens the sentence. */
export function range(value: number, limits: Range, path: string, label: string, problems: Problem[]): void {
  if (Number.isFinite(value) && value >= limits.least && value <= limits.most) return;
  problems.push({
    code: 'out_of_range',
    path,
    message: `${label} must be from ${sayNumber(limits.least)} to ${sayNumber(limits.most)}; ${sayNumber(value)} was given.`,
  });
}

function lengthRange(
  value: number,
  limits: Range,
  measure: LengthUnit,
  path: string,
  label: string,
  problems: Problem[],
): void {
  if (Number.isFinite(value) && value >= limits.least && value <= limits.most) return;
  const say = (px: number): string => `${sayNumber(fromPx(px, measure))} ${measure}`;
  const bound = value > limits.most ? `at most ${say(limits.most)}` : `at least ${say(limits.least)}`;
  problems.push({
    code: 'out_of_range',
    path,
    message: `${label} must be ${bound}; ${say(value)} was given.`,
  });
}

function checkUnit(recipe: Recipe, problems: Problem[]): void {
  const { unit, gap, measure, repeat } = recipe;
  lengthRange(unit.width, LIMITS.unitSide, measure, 'unit.width', 'The unit width', problems);
  lengthRange(unit.height, LIMITS.unitSide, measure, 'unit.height', 'The unit height', problems);
  lengthRange(gap.across, LIMITS.gap, measure, 'gap.across', 'The gap across', problems);
  lengthRange(gap.down, LIMITS.gap, measure, 'gap.down', 'The gap down', problems);
  if (repeat.kind !== 'straight')
    range(repeat.step, { least: 0, most: 1 }, 'repeat.step', 'The step', problems);
}

function checkSlots(recipe: Recipe, slots: Set<string>, problems: Problem[]): void {
  if (slots.size < recipe.slots.length)
    problems.push({
      code: 'duplicate',
      path: 'slots',
      message: 'Two colours have the same id; each needs its own.',
    });
  recipe.slots.forEach((slot, index) => {
    if (!isHex(slot.colour))
      problems.push({
        code: 'bad_colour',
        path: `slots.${index}.colour`,
        message: `The colour “${slot.name}” must be written as #rrggbb; “${slot.colour}” was given.`,
      });
  });
  if (recipe.ground.kind === 'slot' && !slots.has(recipe.ground.slot))
    problems.push({
      code: 'unknown_slot',
      path: 'ground.slot',
      message: 'The ground refers to a colour that is not there.',
    });
}

function checkCounts(recipe: Recipe, problems: Problem[]): void {
  const counts = [
    ['slots', recipe.slots.length, LIMITS.slots, 'colours'],
    ['motifs', recipe.motifs.length, LIMITS.motifs, 'motifs'],
    ['placings', recipe.placings.length, LIMITS.placings, 'placed pieces'],
  ] as const;
  for (const [path, count, most, what] of counts) {
    if (count > most)
      problems.push({
        code: 'too_many',
        path,
        message: `A pattern holds at most ${most} ${what}; ${count} were given.`,
      });
  }
}

function checkMotif(
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
  const parsed = parsePath(element.d);
  if (!parsed.ok)
    problems.push({ code: 'bad_path', path: `${path}.d`, message: `“${name}”: ${parsed.message}` });
  if (element.fill !== null) needSlot(element.fill, slots, `${path}.fill`, name, problems);
  if (element.stroke) needSlot(element.stroke.slot, slots, `${path}.stroke.slot`, name, problems);
}

function needSlot(slot: string, slots: Set<string>, path: string, name: string, problems: Problem[]): void {
  if (!slots.has(slot))
    problems.push({ code: 'unknown_slot', path, message: `“${name}” refers to a colour that is not there.` });
}

function checkPlacings(recipe: Recipe, problems: Problem[]): void {
  const motifs = new Set(recipe.motifs.map((motif) => motif.id));
  const ids = new Set<string>();
  recipe.placings.forEach((placing, index) => {
    const path = `placings.${index}`;
    if (ids.has(placing.id))
      problems.push({
        code: 'duplicate',
        path: `${path}.id`,
        message: 'Two placed pieces have the same id.',
      });
    ids.add(placing.id);
    if (!motifs.has(placing.motif))
      problems.push({
        code: 'unknown_motif',
        path: `${path}.motif`,
        message: `Placed piece ${index + 1} refers to a motif that is not there.`,
      });
    range(placing.x, LIMITS.place, `${path}.x`, 'The place across', problems);
    range(placing.y, LIMITS.place, `${path}.y`, 'The place down', problems);
    range(placing.rotation, LIMITS.angle, `${path}.rotation`, 'The rotation', problems);
    range(Math.abs(placing.scaleX), LIMITS.placingScale, `${path}.scaleX`, 'The size across', problems);
    range(Math.abs(placing.scaleY), LIMITS.placingScale, `${path}.scaleY`, 'The size down', problems);
  });
}
