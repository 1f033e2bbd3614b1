import { regionAspect } from '../lattice/fold';
import { lengthRange, range, SHARE } from './check-parts';
import { LIMITS } from './limits';
import { groupOf, grows, madeSize, PICTURED_LIMITS, type Pictured, type Tone } from './pictured';
import type { Problem } from './problem';
import type { PicturedRecipe } from './recipe';

/** Adds what is wrong with the steps of a pattern made from a picture, and with its size. */
export function checkPictured(recipe: PicturedRecipe, problems: Problem[]): void {
  const { pictured, unit, measure, lay } = recipe;
  lengthRange(unit.width, LIMITS.unitSide, measure, 'unit.width', 'The unit width', problems);
  lengthRange(unit.height, LIMITS.unitSide, measure, 'unit.height', 'The unit height', problems);
  if (lay.kind !== 'straight') range(lay.step, { least: 0, most: 1 }, 'lay.step', 'The step', problems);
  if ((pictured.symmetry.on || grows(pictured)) && lay.kind !== 'straight')
    problems.push({
      code: 'no_room',
      path: 'lay',
      message: `A ${pictured.symmetry.on ? 'symmetry' : 'grown unit'} is laid straight; lay it straight, or choose another way.`,
    });
  checkRegion(pictured, problems);
  checkTone(pictured.tone, problems);
  checkJoin(pictured, problems);
}

function checkRegion(pictured: Pictured, problems: Problem[]): void {
  const { region, source } = pictured;
  const before = problems.length;
  range(region.width, PICTURED_LIMITS.region, 'pictured.region.width', 'The width of the region', problems);
  range(
    region.height,
    PICTURED_LIMITS.region,
    'pictured.region.height',
    'The height of the region',
    problems,
  );
  range(region.turn, LIMITS.angle, 'pictured.region.turn', 'The turn of the region', problems);
  if (problems.length > before) return;
  if (!(region.x >= 0 && region.y >= 0 && region.x <= source.width && region.y <= source.height))
    problems.push({
      code: 'out_of_range',
      path: 'pictured.region',
      message: `The middle of the region lies beside the picture, which is ${source.width} × ${source.height} px; move it onto the picture.`,
    });
  const longest = 2 * Math.hypot(source.width, source.height);
  if (Math.max(region.width, region.height) > longest)
    problems.push({
      code: 'out_of_range',
      path: 'pictured.region',
      message: `The region is much larger than the picture; make it at most ${Math.floor(longest)} px a side.`,
    });
  const group = groupOf(pictured);
  const aspect = regionAspect(group);
  if (aspect !== null && Math.abs(region.height / (region.width * aspect) - 1) > 1e-6)
    problems.push({
      code: 'no_room',
      path: 'pictured.region.height',
      message: `The symmetry ${group} needs a region ${aspect === 1 ? 'as high as it is wide' : `${(1 / aspect).toFixed(3)} times as wide as it is high`}.`,
    });
  const { width, height } = madeSize(pictured);
  if (width * height > PICTURED_LIMITS.pixels)
    problems.push({
      code: 'too_many',
      path: 'pictured.region',
      message: `One repeat would be ${width} × ${height} px; at most ${PICTURED_LIMITS.pixels / 1e6} million pixels are made. Make the region smaller.`,
    });
}

function checkTone(tone: Tone, problems: Problem[]): void {
  const path = (key: string): string => `pictured.tone.${key}`;
  range(tone.even, SHARE, path('even'), 'Even light', problems);
  range(tone.exposure, PICTURED_LIMITS.exposure, path('exposure'), 'The exposure', problems);
  range(tone.middle, PICTURED_LIMITS.middle, path('middle'), 'The middle', problems);
  for (const key of ['black', 'white', 'low', 'high'] as const)
    range(tone[key], PICTURED_LIMITS.level, path(key), 'A level', problems);
  range(tone.contrast, PICTURED_LIMITS.share, path('contrast'), 'The contrast', problems);
  range(tone.saturation, PICTURED_LIMITS.share, path('saturation'), 'The saturation', problems);
  if (tone.black >= tone.white)
    problems.push({
      code: 'no_room',
      path: path('black'),
      message: 'Black must be darker than white: set it lower, or white higher.',
    });
}

function checkJoin({ join, region }: Pictured, problems: Problem[]): void {
  range(join.band, PICTURED_LIMITS.band, 'pictured.join.band', 'The band', problems);
  range(join.feather, PICTURED_LIMITS.feather, 'pictured.join.feather', 'The feather', problems);
  range(join.times, PICTURED_LIMITS.times, 'pictured.join.times', 'How much larger it grows', problems);
  range(join.seed, PICTURED_LIMITS.seed, 'pictured.join.seed', 'The number of the try', problems);
  const most = Math.min(region.width, region.height);
  if (join.on && join.how !== 'grown' && join.band > most)
    problems.push({
      code: 'no_room',
      path: 'pictured.join.band',
      message: `The band is wider than the region: half of it lies at each side of a join, so at most ${Math.floor(most)} px.`,
    });
}
