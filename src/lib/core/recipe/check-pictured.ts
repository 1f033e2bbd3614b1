import { regionAspect } from '../lattice/fold';
import { lengthRange, range, SHARE } from './check-parts';
import { showPlane } from '../geom/corners';
import type { Size } from '../lattice/size';
import { LIMITS } from './limits';
import { madeSize, ownSize } from './made';
import {
  fewOf,
  FRESH_SCREEN,
  groupOf,
  grows,
  mostPixels,
  PICTURED_LIMITS,
  slotIdsOf,
  texturePicture,
  TONE_CHANNELS,
  type ToneLevels,
  type Pictured,
  type SourcePicture,
  type Tone,
} from './pictured';
import type { Problem } from './problem';
import type { PicturedRecipe } from './recipe';
import { strokeArea } from '../geom/brush-stroke';
import { checkStrokes } from './stroke';
import { TEXTURE_SIDE, TEXTURES, type Texture } from './texture';

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
  if (pictured.source.texture) checkTexture(pictured.source, pictured.source.texture, problems);
  checkRegion(pictured, problems);
  checkTone(pictured.tone, problems);
  checkJoin(pictured, problems);
  checkFew(recipe, problems);
  checkRetouch(pictured, problems);
}

/** What is painted is counted: how many strokes, how far they reach, and how much is healed. */
function checkRetouch(pictured: Pictured, problems: Problem[]): void {
  const path = 'pictured.retouch.strokes';
  const strokes = pictured.retouch?.strokes ?? [];
  checkStrokes(strokes, path, problems);
  const { strokeUnits, healed, allHealed } = PICTURED_LIMITS;
  const { width, height } = ownSize(pictured);
  const [across, down] = [strokeUnits * width, strokeUnits * height];
  const reaches = (x: number, y: number): boolean => Math.abs(x) > across || Math.abs(y) > down;
  const far = strokes.some(
    ({ points, ...stroke }) =>
      points.some((x, at) => at % 2 === 0 && reaches(x, points[at + 1]!)) ||
      ('from' in stroke && reaches(stroke.from.x, stroke.from.y)),
  );
  if (far)
    problems.push({
      code: 'out_of_range',
      path,
      message: `A stroke reaches further than ${strokeUnits} repeats; paint it within the repeat.`,
    });
  const areas = strokes.filter(({ does }) => does === 'heal').map(strokeArea);
  if (areas.some((area) => area > healed) || areas.reduce((sum, area) => sum + area, 0) > allHealed)
    problems.push({
      code: 'too_many',
      path,
      message: 'More is healed than can be worked through; use shorter strokes, or a smaller brush.',
    });
}

/** Few colours need a slot each; a recipe that is not told by a few has none but that of its ground. */
function checkFew({ pictured, slots }: PicturedRecipe, problems: Problem[]): void {
  const few = fewOf(pictured);
  if (!few) return;
  const { least, most } = PICTURED_LIMITS.few;
  if (few.colours.length < least || few.colours.length > most)
    problems.push({
      code: 'out_of_range',
      path: 'pictured.few.colours',
      message: `A repeat is told by ${least} to ${most} colours; these are ${few.colours.length}.`,
    });
  if (few.how === 'halftone') {
    if (few.colours.length !== 2)
      problems.push({
        code: 'out_of_range',
        path: 'pictured.few.colours',
        message: `A halftone has two colours, its ink and its paper; these are ${few.colours.length}.`,
      });
    const { across, turn } = few.screen ?? FRESH_SCREEN;
    range(across, PICTURED_LIMITS.screen, 'pictured.few.screen.across', 'The dots along the width', problems);
    range(turn, LIMITS.angle, 'pictured.few.screen.turn', 'The turn of the screen', problems);
  }
  range(few.speck, PICTURED_LIMITS.speck, 'pictured.few.speck', 'The size of a speck', problems);
  const missing = slotIdsOf(pictured).find((id) => !slots.some((slot) => slot.id === id));
  if (missing)
    problems.push({
      code: 'unknown_slot',
      path: 'slots',
      message: `The colour “${missing}” has no slot; add one for each of the few colours.`,
    });
}

/** The numbers of a texture, and that the picture is the one that they make. */
function checkTexture(source: SourcePicture, texture: Texture, problems: Problem[]): void {
  const path = 'pictured.source.texture';
  const before = problems.length;
  range(texture.width, TEXTURE_SIDE, `${path}.width`, 'The width of the texture', problems);
  range(texture.height, TEXTURE_SIDE, `${path}.height`, 'The height of the texture', problems);
  range(texture.seed, PICTURED_LIMITS.seed, `${path}.seed`, 'The number of the try', problems);
  for (const { key, label, least, most } of TEXTURES[texture.kind].numbers)
    range(texture.numbers[key] ?? NaN, { least, most }, `${path}.numbers.${key}`, label, problems);
  if (problems.length > before) return;
  const { asset, width, height } = texturePicture(texture);
  if (source.asset !== asset || source.width !== width || source.height !== height)
    problems.push({
      code: 'invalid',
      path: 'pictured.source.asset',
      message: 'The picture is not the one that these numbers make; take its name from them.',
    });
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
  if (region.corners && !showPlane(region.corners))
    problems.push({
      code: 'no_room',
      path: 'pictured.region.corners',
      message:
        'The four corners show no plane: they must go round once, without a dent; drag one of them out.',
    });
  if (!(region.x >= 0 && region.y >= 0 && region.x <= source.width && region.y <= source.height))
    problems.push({
      code: 'out_of_range',
      path: 'pictured.region',
      message: `The middle of the region lies beside the picture, which is ${source.width} × ${source.height} px; move it onto the picture.`,
    });
  const longest = 2 * Math.hypot(source.width, source.height);
  const reach = Math.max(...(region.corners ?? []).flatMap(({ x, y }) => [Math.abs(x), Math.abs(y)]), 0);
  if (Math.max(region.width, region.height, reach) > longest)
    problems.push({
      code: 'out_of_range',
      path: 'pictured.region',
      message: `The region is much larger than the picture; make it at most ${Math.floor(longest)} px a side.`,
    });
  range(
    pictured.symmetry.heal ?? 0,
    PICTURED_LIMITS.heal,
    'pictured.symmetry.heal',
    'The healed line',
    problems,
  );
  const group = groupOf(pictured);
  const aspect = regionAspect(group);
  if (aspect !== null && Math.abs(region.height / (region.width * aspect) - 1) > 1e-6)
    problems.push({
      code: 'no_room',
      path: 'pictured.region.height',
      message: `The symmetry ${group} needs a region ${aspect === 1 ? 'as high as it is wide' : `${(1 / aspect).toFixed(3)} times as wide as it is high`}.`,
    });
  checkPixels(pictured, problems);
}

/** How many pixels are made, before and after they are resampled. */
function checkPixels(pictured: Pictured, problems: Problem[]): void {
  const most = mostPixels(pictured);
  const tooMany = ({ width, height }: Size, path: string, what: string): boolean => {
    if (width * height <= most) return false;
    const message = `One repeat would be ${width} × ${height} px; at most ${Math.floor(most / 1e6)} million pixels are made. ${what}`;
    problems.push({ code: 'too_many', path, message });
    return true;
  };
  if (tooMany(ownSize(pictured), 'pictured.region', 'Make the region smaller.') || !pictured.size) return;
  range(pictured.size.width, PICTURED_LIMITS.size, 'pictured.size.width', 'The width in px', problems);
  tooMany(madeSize(pictured), 'pictured.size', 'Make it of fewer px.');
}

function checkTone(tone: Tone, problems: Problem[]): void {
  const path = (key: string): string => `pictured.tone.${key}`;
  range(tone.even, SHARE, path('even'), 'Even light', problems);
  range(tone.exposure, PICTURED_LIMITS.exposure, path('exposure'), 'The exposure', problems);
  checkLevels(tone, 'pictured.tone', problems);
  for (const channel of TONE_CHANNELS) {
    const levels = tone.channels?.[channel];
    if (levels) checkLevels(levels, path(`channels.${channel}`), problems);
  }
  range(tone.contrast, PICTURED_LIMITS.share, path('contrast'), 'The contrast', problems);
  range(tone.saturation, PICTURED_LIMITS.share, path('saturation'), 'The saturation', problems);
  const alone = tone.alone ?? [];
  if (alone.length > PICTURED_LIMITS.alone)
    problems.push({
      code: 'too_many',
      path: path('alone'),
      message: `Something is done to ${alone.length} colours alone; at most ${PICTURED_LIMITS.alone} are kept.`,
    });
  for (const { reach, hue, chroma, light } of alone) {
    range(reach, PICTURED_LIMITS.reach, path('alone'), 'How far a colour reaches', problems);
    range(hue, LIMITS.angle, path('alone'), 'The turn of a hue', problems);
    range(chroma, PICTURED_LIMITS.share, path('alone'), 'The saturation of a colour', problems);
    range(light, PICTURED_LIMITS.share, path('alone'), 'The lightness of a colour', problems);
  }
}

function checkLevels(levels: ToneLevels, path: string, problems: Problem[]): void {
  range(levels.middle, PICTURED_LIMITS.middle, `${path}.middle`, 'The middle', problems);
  for (const key of ['black', 'white', 'low', 'high'] as const)
    range(levels[key], PICTURED_LIMITS.level, `${path}.${key}`, 'A level', problems);
  if (levels.black >= levels.white)
    problems.push({
      code: 'no_room',
      path: `${path}.black`,
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
