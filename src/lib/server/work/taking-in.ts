import { readFileSync } from 'node:fs';
import type Joi from 'joi';
import { done, fail, type Outcome } from '../../contract/failure';
import { keptPaletteSchema, keptPatternSchema } from '../../contract/library-schemas';
import { problemOf } from '../../contract/sentences';
import type { FileAsset, FoundInFile, Takeable } from '../../contract/taking';
import type { Answer } from '../../contract/work';
import { resolveSlots } from '../../core/colour/slots';
import type { KeptPalette, KeptPattern } from '../../core/recipe/library';
import { migrateRecipe } from '../../core/recipe/migrate';
import type { Motif } from '../../core/recipe/recipe';
import { soundRecipe } from '../../core/scene/sound';
import { compileUnit } from '../../core/scene/unit';
import type { ReadPattern } from '../../core/svg/import-patterns';
import { embedPictures } from '../../core/svg/paint';
import { swatchSvg } from '../../core/svg/swatch';
import { readSvgTree } from '../../core/svg/xml';
import type { Db } from '../db/open';
import { readPicture } from '../render/picture';
import { readAsset } from '../repo/assets';
import { newId } from '../repo/context';
import { paletteClash, patternClash } from '../repo/kept';
import { LayingReady } from '../repo/ready';
import { settlePictures } from './pictures-in';
import readFile from './read-file';

/** Where a file lies and what it is called; `folder` is where what it holds is laid ready. */
export type FileToRead = { path: string; fileName: string; folder: string };

/**
 * Reads a file, checks all that it holds, lays it ready in `folder` (see `server/app/waiting.ts`) and says what could be
 * taken in. Nothing is stored yet.
 */
export async function readFileIn(
  db: Db,
  { path, fileName, folder }: FileToRead,
): Promise<Answer<'readFile'>> {
  const bytes = readFileSync(path);
  const read = await readFile({ fileName, bytes });
  if (!read.ok) return fail('unsupported', read.message);
  const { found } = read;
  const notes = [...found.notes];
  const patterns: FoundPattern[] = [];
  const assets = new AssetStore(await soundAssets(found.assets, notes));
  for (const data of found.kept) {
    const kept = checkedPattern(data);
    if (kept.ok) patterns.push({ kept: kept.value, notes: [] });
    else notes.push(kept.failure.message);
  }
  for (const drawn of found.drawn) {
    const settled = await settledPattern(drawn, found, fileName);
    if (typeof settled === 'string') notes.push(settled);
    else {
      assets.add(settled.assets);
      patterns.push(settled);
    }
  }
  const palettes: KeptPalette[] = [];
  for (const data of found.keptPalettes) {
    const kept = checked<KeptPalette>(keptPaletteSchema, data, 'A palette');
    if (kept.ok) palettes.push(kept.value);
    else notes.push(kept.failure.message);
  }
  for (const { name, colours, notes: said } of found.palettes) {
    notes.push(...said);
    palettes.push({ id: newId(), name, colours: colours.map((entry) => ({ ...entry, id: newId() })) });
  }
  if (patterns.length + palettes.length === 0)
    return fail(
      'unsupported',
      `“${fileName}”: ${notes.slice(0, MOST_NOTES).join(' ') || 'it holds nothing that can be taken in.'}`,
    );
  const items: Takeable[] = [];
  const ready = new LayingReady(folder);
  for (const pattern of patterns) items.push(patternItem(db, ready.pattern(pattern.kept), pattern, assets));
  for (const kept of palettes) items.push(paletteItem(db, ready.palette(kept), kept));
  ready.assets(assets.all());
  return done({ items, notes: notes.slice(0, MOST_NOTES), bytes: ready.bytes });
}

type FoundPattern = { kept: KeptPattern; notes: string[] };

/** More notes than this help nobody; the rest is left unsaid but counted by what is missing. */
const MOST_NOTES = 200;

/** Assets by their hash. */
class AssetStore {
  private readonly held = new Map<string, FileAsset>();

  constructor(assets: readonly FileAsset[]) {
    this.add(assets);
  }

  add(assets: readonly FileAsset[]): void {
    for (const asset of assets) this.held.set(asset.hash, asset);
  }

  get = (hash: string): FileAsset | undefined => this.held.get(hash);
  all = (): FileAsset[] => [...this.held.values()];
}

/** Those assets of a file that are what they say: pictures that can be read, SVG that is SVG. The others are named. */
async function soundAssets(assets: readonly FileAsset[], notes: string[]): Promise<FileAsset[]> {
  const sound: FileAsset[] = [];
  for (const asset of assets) {
    const problem = await unsound(asset);
    if (problem === null) sound.push(asset);
    else notes.push(problem);
  }
  return sound;
}

async function unsound({ mediaType, fileName, bytes }: FileAsset): Promise<string | null> {
  if (mediaType === 'image/svg+xml') {
    const tree = readSvgTree(new TextDecoder().decode(bytes));
    return tree.ok ? null : `The file “${fileName}” inside it was left out: ${tree.message}`;
  }
  const read = await readPicture(Buffer.from(bytes), fileName);
  if (!read.ok) return read.failure.message;
  return read.value.sourceType === mediaType
    ? null
    : `The picture “${fileName}” inside it is no ${mediaType}, so it was left out.`;
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
  const [problem] = soundRecipe(read.value.recipe);
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
  const [problem] = soundRecipe(whole);
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

function patternItem(db: Db, key: string, { kept, notes }: FoundPattern, assets: AssetStore): Takeable {
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
    const file = assets.get(asset) ?? readAsset(db, asset);
    return file ? `data:${file.mediaType};base64,${Buffer.from(file.bytes).toString('base64')}` : null;
  });
  return {
    key,
    kind: 'pattern',
    name,
    sample,
    colours: recipe.slots.map((slot) => slot.colour),
    notes,
    clash: patternClash(db, kept),
  };
}

const paletteItem = (db: Db, key: string, kept: KeptPalette): Takeable => ({
  key,
  kind: 'palette',
  name: kept.name,
  sample: null,
  colours: kept.colours.map((entry) => entry.hex),
  notes: [],
  clash: paletteClash(db, kept),
});
