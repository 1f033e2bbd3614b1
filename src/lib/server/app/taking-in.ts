import type Joi from 'joi';
import { done, fail, type Outcome } from '../../contract/failure';
import { keptPaletteSchema, keptPatternSchema } from '../../contract/schemas';
import { problemOf } from '../../contract/sentences';
import type {
  ClashChoice,
  FileAsset,
  FoundInFile,
  Takeable,
  TakenFile,
  TakingReport,
} from '../../contract/taking';
import { resolveSlots } from '../../core/colour/slots';
import { checkRecipe } from '../../core/recipe/check';
import { recipeAssets, type KeptPalette, type KeptPattern } from '../../core/recipe/library';
import { migrateRecipe } from '../../core/recipe/migrate';
import type { Motif } from '../../core/recipe/recipe';
import { compileUnit } from '../../core/scene/unit';
import type { ReadPattern } from '../../core/svg/import-patterns';
import { embedPictures } from '../../core/svg/paint';
import { swatchSvg } from '../../core/svg/swatch';
import { readAsset } from '../repo/assets';
import { newId } from '../repo/context';
import { paletteClash, patternClash, takeIn, type Taking } from '../repo/kept';
import type { App } from './app';
import { settlePictures } from './pictures-in';

/** Reads a file in a thread of its own, checks all that it holds, and says what could be taken in. Nothing is stored yet. */
export async function readFileIn(
  app: App,
  file: { bytes: Buffer; name: string },
): Promise<Outcome<TakenFile>> {
  const read = await app.pool.read({ fileName: file.name, bytes: new Uint8Array(file.bytes) });
  if (!read.ok) return fail('unsupported', read.message);
  const { found } = read;
  const notes = [...found.notes];
  const assets = [...found.assets];
  const patterns = new Map<string, { kept: KeptPattern; notes: string[] }>();
  for (const data of found.kept) {
    const kept = checkedPattern(data);
    if (kept.ok) patterns.set(newId(), { kept: kept.value, notes: [] });
    else notes.push(kept.failure.message);
  }
  for (const drawn of found.drawn) {
    const settled = await settledPattern(drawn, found, file.name);
    if (typeof settled === 'string') notes.push(settled);
    else {
      assets.push(...settled.assets);
      patterns.set(newId(), settled);
    }
  }
  const palettes = new Map<string, KeptPalette>();
  for (const data of found.keptPalettes) {
    const kept = checked<KeptPalette>(keptPaletteSchema, data, 'A palette');
    if (kept.ok) palettes.set(newId(), kept.value);
    else notes.push(kept.failure.message);
  }
  for (const { name, colours, notes: said } of found.palettes) {
    notes.push(...said);
    palettes.set(newId(), {
      id: newId(),
      name,
      colours: colours.map((entry) => ({ ...entry, id: newId() })),
    });
  }
  if (patterns.size + palettes.size === 0)
    return fail(
      'unsupported',
      `“${file.name}”: ${notes.join(' ') || 'it holds nothing that can be taken in.'}`,
    );
  const items = [
    ...[...patterns].map(([key, one]) => patternItem(app, key, one, assets)),
    ...[...palettes].map(([key, kept]) => paletteItem(app, key, kept)),
  ];
  const token = app.waiting.keep({
    patterns: new Map([...patterns].map(([key, { kept }]) => [key, kept])),
    palettes,
    assets,
    bytes: file.bytes.length + assets.reduce((sum, asset) => sum + asset.bytes.length, 0),
  });
  return done({ token, fileName: file.name, items, notes });
}

/** Takes in what was read, as chosen, all in one transaction. */
export function takeFilesIn(
  app: App,
  files: readonly { token: string; choices: Record<string, ClashChoice> }[],
): Outcome<TakingReport> {
  const patterns: Taking<KeptPattern>[] = [];
  const palettes: Taking<KeptPalette>[] = [];
  const assets: FileAsset[] = [];
  for (const { token, choices } of files) {
    const waiting = app.waiting.get(token);
    if (!waiting)
      return fail('not_found', 'A file was read too long ago and is forgotten; open it again.', 'files');
    const wanted = new Set<string>();
    for (const [key, kept] of waiting.patterns) {
      const choice = choices[key];
      if (choice === undefined) continue;
      patterns.push({ kept, choice });
      if (choice !== 'skip') for (const hash of recipeAssets(kept.recipe)) wanted.add(hash);
    }
    for (const [key, kept] of waiting.palettes) palettes.push({ kept, choice: choices[key] ?? 'skip' });
    assets.push(...waiting.assets.filter((asset) => wanted.has(asset.hash)));
  }
  const taken = takeIn(app.db, { patterns, palettes, assets });
  if (taken.ok) app.waiting.drop(files.map((file) => file.token));
  return taken;
}

function checkedPattern(data: unknown): Outcome<KeptPattern> {
  const { recipe, ...rest } = (data ?? {}) as Record<string, unknown>;
  const migrated = migrateRecipe(recipe);
  const name = typeof rest.name === 'string' ? `“${rest.name.slice(0, 80)}”` : 'A pattern';
  if (!migrated.ok)
    return fail('invalid', `${name}: ${migrated.problems[0]?.message ?? 'its recipe is damaged.'}`);
  const read = checked<KeptPattern & { version: number }>(
    keptPatternSchema,
    { ...rest, recipe: migrated.value },
    name,
  );
  if (!read.ok) return read;
  const [problem] = checkRecipe(read.value.recipe);
  if (problem) return fail('invalid', `${name}: ${problem.message}`);
  const { version: _version, ...kept } = read.value;
  return done(kept);
}

function checked<T>(schema: Joi.ObjectSchema, data: unknown, name: string): Outcome<T> {
  const result = schema.validate(data, { abortEarly: true, convert: false });
  const [detail] = result.error?.details ?? [];
  if (detail) return fail('invalid', `${name} cannot be read and was left out: ${problemOf(detail).message}`);
  return done(result.value as T);
}

/** A pattern of another maker as one of ours: its pictures ready, its recipe checked; or why it is left out. */
async function settledPattern(
  { name, description, recipe, notes }: ReadPattern,
  { pictures }: FoundInFile,
  fileName: string,
): Promise<{ kept: KeptPattern; notes: string[]; assets: FileAsset[] } | string> {
  const assets: FileAsset[] = [];
  const said = [...notes];
  const motifs: Motif[] = [];
  for (const motif of recipe.motifs) {
    if (motif.content.kind !== 'drawing') continue;
    const settled = await settlePictures(motif.content.elements, pictures, fileName);
    assets.push(...settled.assets);
    said.push(...settled.notes);
    if (settled.elements.length === 0) continue;
    motifs.push({ ...motif, content: { ...motif.content, elements: settled.elements } });
  }
  const ids = new Set(motifs.map((motif) => motif.id));
  const placings = recipe.placings.filter((placing) => ids.has(placing.motif));
  if (placings.length === 0 && recipe.ground.kind === 'clear')
    return `“${name}”: none of its pictures can be read, so it was left out.`;
  const whole = { ...recipe, motifs, placings };
  const [problem] = checkRecipe(whole);
  if (problem) return `“${name}”: ${problem.message}`;
  const credit = { author: '', source: fileName, licence: '', attribution: false };
  const kept = {
    id: newId(),
    name,
    description,
    tags: [],
    collections: [],
    credit,
    recipe: whole,
    colourways: [],
  };
  return { kept, notes: said, assets };
}

function patternItem(
  app: App,
  key: string,
  { kept, notes }: { kept: KeptPattern; notes: string[] },
  assets: readonly FileAsset[],
): Takeable {
  const { recipe, name } = kept;
  const scene = compileUnit(recipe);
  const across = Math.hypot(scene.cell.matrix.a, scene.cell.matrix.b) * scene.cell.width;
  const scale = Math.min(1, Math.max(0.05, 90 / across));
  const strip = swatchSvg(scene, resolveSlots(recipe.slots, {}), {
    width: 132,
    height: 72,
    scale,
    title: name,
  });
  const sample = embedPictures(strip, ({ asset }) => {
    const file = assets.find((one) => one.hash === asset) ?? readAsset(app.db, asset);
    return file ? `data:${file.mediaType};base64,${Buffer.from(file.bytes).toString('base64')}` : null;
  });
  return {
    key,
    kind: 'pattern',
    name,
    sample,
    colours: recipe.slots.map((slot) => slot.colour),
    notes,
    clash: patternClash(app.db, kept),
  };
}

const paletteItem = (app: App, key: string, kept: KeptPalette): Takeable => ({
  key,
  kind: 'palette',
  name: kept.name,
  sample: null,
  colours: kept.colours.map((entry) => entry.hex),
  notes: [],
  clash: paletteClash(app.db, kept),
});
