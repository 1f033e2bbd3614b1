import { determinant } from '../geom/affine';
import { isHex } from '../colour/parse';
import { LIMITS } from './limits';
import type { Problem } from './problem';
import { latticeKind } from '../lattice/groups';
import { checkMeasured } from './check-measured';
import { checkMotif } from './check-motif';
import { checkPictured } from './check-pictured';
import { lengthRange, range, SHARE } from './check-parts';
import { groundSlots, type ComposedRecipe, type Ground, type Recipe } from './recipe';

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
  if (recipe.kind === 'pictured') {
    checkPictured(recipe, problems);
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
