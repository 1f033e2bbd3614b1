import sharp from 'sharp';
import type { PageForUse, PatternDetail } from '../../../contract/data';
import type { Outcome } from '../../../contract/failure';
import { CODE_FILES, type CodeAsk } from '../../../contract/work';
import type { Inks } from '../../../core/colour/inks';
import { resolveSlots } from '../../../core/colour/slots';
import { plainColours } from '../../../core/colour/tint';
import { patternFills } from '../../../core/recipe/layout';
import { freeSlug } from '../../../core/recipe/library';
import { followRecipe } from '../../../core/recipe/links';
import { compiledPattern } from '../../../core/scene/pattern';
import { compileUnit } from '../../../core/scene/unit';
import type { Db } from '../../db/open';
import { paletteLinks } from '../../repo/links';
import { getPattern, storedAt } from '../../repo/patterns';
import { tileAsPng } from '../handing-out';
import { writtenCode } from '../in-code';
import { swatchPicture } from '../swatch-picture';
import type { Tools } from '../tools';
import { must } from './refused';
import type { SpecPattern } from './spec';
import type { ZipFile } from './zip-file';

/** The patterns that these layouts show, each at the revision that is shown. */
export function patternsShown(db: Db, shown: readonly PageForUse[], inks: Inks): SpecPattern[] {
  const links = paletteLinks(db);
  const known = new Map<string, Outcome<PatternDetail>>();
  const found = new Map<string, SpecPattern>();
  const stems = new Set<string>();
  for (const fill of shown.flatMap(({ shapes }) => shapes.flatMap(patternFills))) {
    const read = known.get(fill.pattern) ?? getPattern(db, fill.pattern);
    known.set(fill.pattern, read);
    if (!read.ok) continue;
    const pattern = read.value;
    const revision = fill.held ?? pattern.newest;
    const key = `${pattern.id}@${revision}`;
    const stored = found.has(key) ? null : storedAt(db, pattern.id, revision);
    if (!stored?.ok) continue;
    const recipe = followRecipe(stored.value, links);
    const scene = compileUnit(recipe);
    if (scene.fault) continue;
    const name = revision === pattern.newest ? pattern.name : `${pattern.name} revision ${revision}`;
    found.set(key, {
      ...{ pattern, recipe, revision, colours: resolveSlots(recipe.slots, {}) },
      compiled: compiledPattern(key, pattern.name, scene, recipe.slots, pattern.colourways),
      folder: `patterns/${freeSlug(name, stems)}`,
      inks,
    });
  }
  return [...found.values()].sort((one, other) => (one.folder < other.folder ? -1 : 1));
}

/** Writes all files of a pattern; `step` is told at each of its two halves. */
export async function addPattern(
  tools: Tools,
  zip: ZipFile,
  of: SpecPattern,
  step: () => void,
): Promise<void> {
  const { pattern, recipe, revision, colours, folder, compiled } = of;
  const { scene } = compiled;
  const all = { pattern, recipe, number: revision, scene, colours, over: {} };
  const plain = {
    pattern: pattern.id,
    revision,
    colourway: null,
    colours: null,
    scale: 1,
    rotation: 0,
    x: 0,
    y: 0,
  };
  for (const file of CODE_FILES) {
    const ask: CodeAsk = { ...plain, file };
    const made = await writtenCode(tools, all, ask);
    // A plane that lies turned has no tile; its fill.svg is there all the same.
    if (made.ok) zip.add(`${folder}/${file}`, made.value);
    else if (!file.startsWith('tile')) must(made);
  }
  step();
  // Of pictures there is no more to see at three pixels to a px.
  for (const scale of scene.sampled ? [2] : [2, 3]) {
    const tile = await tileAsPng(tools, { name: pattern.name, scene, colours }, scale);
    if (tile.ok) zip.add(`${folder}/tile@${scale}x.png`, tile.value);
    if (tile.ok && scale === 2)
      zip.add(
        `${folder}/tile@2x.webp`,
        await sharp(tile.value).webp({ lossless: true, effort: 1 }).toBuffer(),
      );
  }
  const size = { width: 480, height: 360, scale: 1, pixels: 2 };
  zip.add(`${folder}/swatch.png`, await swatchPicture(tools, recipe, {}, size));
  const taken = new Set<string>();
  for (const way of pattern.colourways)
    zip.add(
      `${folder}/colourways/${freeSlug(way.name, taken, 'colourway')}.png`,
      await swatchPicture(tools, recipe, plainColours(way.colours), size),
    );
  step();
}
