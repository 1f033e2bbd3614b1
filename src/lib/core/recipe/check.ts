import { determinant } from '../geom/affine';
import { parsePath, pathBox } from '../geom/path';
import type { ShapeForm } from '../geom/shapes';
import { isHex } from '../colour/parse';
import { fromPx, type LengthUnit } from '../num/length';
import { LIMITS } from './limits';
import { sayNumber, type Problem } from './problem';
import { latticeKind } from '../lattice/groups';
import { elementSlots } from './edit';
import { MEASURED, measuredSlots, type Measured } from './measured';
import {
  groundSlots,
  motifSize,
  type ComposedRecipe,
  type DrawingElement,
  type Ground,
  type MeasuredRecipe,
  type Motif,
  type MotifEffects,
  type Recipe,
} from './recipe';

type Range = { least: number; most: number };

/**
 * Everything that must hold for a recipe beyond its form: sizes within limits, references that lead somewhere, ids
 * that are unique, path data that can be read. An empty list means the recipe can be compiled and published.
 */
export function checkRecipe(recipe: Recipe): Problem[] {
  const problems: Problem[] = [];
  const slots = new Set(recipe.slots.map((slot) => slot.id));
  checkSlots(recipe, slots, problems);
  checkGround(recipe.ground, slots, problems);
  if (recipe.kind === 'measured') {
    checkMeasured(recipe, slots, problems);
    return problems;
  }
  checkUnit(recipe, problems);
  checkSeamlessGround(recipe, problems);
  checkCounts(recipe, problems);
  checkLie(recipe, problems);
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

/** A plane lies turned, mirrored or skewed by at most 85°, at its own size. */
function checkLie({ lie }: ComposedRecipe, problems: Problem[]): void {
  if (!lie) return;
  const parts = Object.values(lie).every(Number.isFinite) ? Math.abs(determinant(lie)) : Number.NaN;
  const along = Math.hypot(lie.a, lie.b) * Math.hypot(lie.c, lie.d);
  if (Math.abs(parts - 1) < 1e-3 && along < 12 && lie.e === 0 && lie.f === 0) return;
  problems.push({
    code: 'out_of_range',
    path: 'lie',
    message:
      'The pattern may lie turned, mirrored or skewed by up to 85°, at its own size; set it upright again.',
  });
}

function checkUnit(recipe: ComposedRecipe, problems: Problem[]): void {
  const { unit, gap, measure, repeat } = recipe;
  lengthRange(unit.width, LIMITS.unitSide, measure, 'unit.width', 'The unit width', problems);
  lengthRange(unit.height, LIMITS.unitSide, measure, 'unit.height', 'The unit height', problems);
  lengthRange(gap.across, LIMITS.gap, measure, 'gap.across', 'The gap across', problems);
  lengthRange(gap.down, LIMITS.gap, measure, 'gap.down', 'The gap down', problems);
  if (repeat.kind === 'group')
    range(repeat.slant, { least: -2, most: 2 }, 'repeat.slant', 'The slant of the cell', problems);
  if (repeat.kind === 'brick' || repeat.kind === 'half-drop')
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
}

function checkGround(ground: Ground, slots: Set<string>, problems: Problem[]): void {
  if (groundSlots(ground).some((slot) => !slots.has(slot)))
    problems.push({
      code: 'unknown_slot',
      path: 'ground.slot',
      message: 'The ground refers to a colour that is not there.',
    });
  if (ground.kind !== 'linear' && ground.kind !== 'radial') return;
  if (ground.stops.length < 2)
    problems.push({
      code: 'too_few',
      path: 'ground.stops',
      message: 'A gradient needs at least two colours; add one or choose a plain ground.',
    });
  ground.stops.forEach((stop, index) =>
    range(stop.at, SHARE, `ground.stops.${index}.at`, 'The place of a colour', problems),
  );
  if (ground.kind === 'radial')
    range(ground.radius, { least: 0.01, most: 0.5 }, 'ground.radius', 'The radius of the gradient', problems);
}

const SHARE: Range = { least: 0, most: 1 };

/** A linear gradient closes only along a direction in which the repeat does not shift. */
function checkSeamlessGround({ ground, repeat }: ComposedRecipe, problems: Problem[]): void {
  if (ground.kind !== 'linear') return;
  const { along } = ground;
  const closes =
    repeat.kind === 'straight' ||
    repeat.kind === 'mirror' ||
    (repeat.kind === 'brick' && along === 'down') ||
    (repeat.kind === 'half-drop' && along === 'across') ||
    (repeat.kind === 'group' && ['rectangular', 'square'].includes(latticeKind(repeat.group)));
  if (!closes)
    problems.push({
      code: 'not_seamless',
      path: 'ground.along',
      message: `A gradient ${along} the unit would break where this repeat shifts its rows or columns; turn it the other way, or use a radial one.`,
    });
}

function checkMeasured({ measured, measure }: MeasuredRecipe, slots: Set<string>, problems: Problem[]): void {
  const spec = MEASURED[measured.form];
  for (const { key, label, kind, least, most, when } of spec.numbers) {
    if (when && measured.choices[when.key] !== when.is) continue;
    const value = measured.numbers[key] ?? Number.NaN;
    const path = `measured.numbers.${key}`;
    if (kind === 'length') lengthRange(value, { least, most }, measure, path, label, problems);
    else range(value, { least, most }, path, label, problems);
  }
  for (const { key, label, options } of spec.choices) {
    if (!options.some(([id]) => id === measured.choices[key]))
      problems.push({
        code: 'bad_choice',
        path: `measured.choices.${key}`,
        message: `“${label}” must be one of ${options.map(([, text]) => text).join(', ')}.`,
      });
  }
  if (measuredSlots(measured).some((slot) => !slots.has(slot)))
    problems.push({
      code: 'unknown_slot',
      path: 'measured.inks',
      message: 'The pattern refers to a colour that is not there.',
    });
  if (spec.hasBands) checkBands(measured, measure, problems);
  checkRoom(measured, problems);
}

function checkBands(measured: Measured, measure: LengthUnit, problems: Problem[]): void {
  if (measured.bands.length < 1 || measured.bands.length > LIMITS.bands)
    problems.push({
      code: 'bad_count',
      path: 'measured.bands',
      message: `A banded pattern has from 1 to ${LIMITS.bands} bands; ${measured.bands.length} were given.`,
    });
  measured.bands.forEach((band, index) =>
    lengthRange(
      band.width,
      { least: 0.01, most: LIMITS.unitSide.most },
      measure,
      `measured.bands.${index}.width`,
      `The width of band ${index + 1}`,
      problems,
    ),
  );
}

/** Numbers that contradict each other: lines as wide as their pitch leave nothing between them. */
function checkRoom({ form, numbers: n }: Measured, problems: Problem[]): void {
  const tooWide = (width: string, pitch: string, what: string): void => {
    if ((n[width] ?? 0) <= (n[pitch] ?? Infinity) + 1e-9) return;
    problems.push({
      code: 'no_room',
      path: `measured.numbers.${width}`,
      message: `${what} is larger than the distance it repeats at, so the pattern would be solid; make it smaller or the distance larger.`,
    });
  };
  if (form === 'stripes' || form === 'hatch') tooWide('width', 'pitch', 'The line width');
  if (form === 'grid') {
    tooWide('width', 'across', 'The line width');
    tooWide('width', 'down', 'The line width');
  }
  if (form === 'rings' && (n.width ?? 0) * (n.count ?? 1) * 2 > (n.diameter ?? 0) + 1e-9)
    problems.push({
      code: 'no_room',
      path: 'measured.numbers.width',
      message:
        'The rings do not fit into their diameter; make the line thinner, the count lower or the diameter larger.',
    });
}

function checkCounts(recipe: ComposedRecipe, problems: Problem[]): void {
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

function needSlot(slot: string, slots: Set<string>, path: string, name: string, problems: Problem[]): void {
  if (!slots.has(slot))
    problems.push({ code: 'unknown_slot', path, message: `“${name}” refers to a colour that is not there.` });
}

function checkPlacings(recipe: ComposedRecipe, problems: Problem[]): void {
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
    range(placing.opacity, SHARE, `${path}.opacity`, 'The opacity of the piece', problems);
    range(Math.abs(placing.scaleX), LIMITS.placingScale, `${path}.scaleX`, 'The size across', problems);
    range(Math.abs(placing.scaleY), LIMITS.placingScale, `${path}.scaleY`, 'The size down', problems);
  });
}
