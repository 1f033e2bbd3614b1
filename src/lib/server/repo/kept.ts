import { isDeepStrictEqual } from 'node:util';
import { and, asc, eq, gt, isNull } from 'drizzle-orm';
import {
  patternLinks,
  recipeAssets,
  type KeptAsset,
  type KeptPalette,
  type KeptPattern,
  type LibraryContent,
} from '../../core/recipe/library';
import type { Db } from '../db/open';
import { pattern } from '../db/schema';
import { readAsset } from './assets';
import { among } from './context';
import { nameKey } from './names';
import { getPalette, listPalettes } from './palettes';
import { rowNamed } from './pattern-rows';
import { getPattern } from './patterns';
import { statement } from './rows';

/**
 * Patterns with all that they need, to be written into a file. Without `ids` the whole library with its shared palettes.
 * `leftOut` names those that are stored and cannot be read: they take none of the others along.
 */
export function keptContent(db: Db, ids?: readonly string[]): LibraryContent & { leftOut: string[] } {
  const rows = db
    .select({ id: pattern.id, name: pattern.name })
    .from(pattern)
    .where(
      and(
        eq(pattern.studioId, db.studio),
        gt(pattern.newest, 0),
        ids ? among(pattern.id, ids) : isNull(pattern.archivedAt),
      ),
    )
    .orderBy(asc(pattern.nameKey))
    .all();
  const leftOut: string[] = [];
  const patterns = rows.flatMap(({ id, name }) => {
    const kept = keptPattern(db, id);
    if (!kept) leftOut.push(name);
    return kept ?? [];
  });
  const wanted = new Set(patterns.flatMap(patternLinks));
  const palettes = listPalettes(db)
    .filter(({ colours, projectId }) =>
      ids
        ? colours.some((entry) => wanted.has(entry.id))
        : projectId === null || colours.some((entry) => wanted.has(entry.id)),
    )
    .map(({ id, name, colours }): KeptPalette => ({ id, name, colours }));
  const hashes = new Set(patterns.flatMap(({ recipe }) => recipeAssets(recipe)));
  return { patterns, palettes, assets: [...hashes].flatMap((hash) => keptAsset(db, hash) ?? []), leftOut };
}

/** A pattern as files carry it, at its newest revision; `null` for one that is not published. */
export function keptPattern(db: Db, id: string): KeptPattern | null {
  const found = getPattern(db, id);
  if (!found.ok || !found.value.recipe) return null;
  const { name, description, tags, collections, credit, recipe, colourways } = found.value;
  return { id, name, description, tags, collections, credit, recipe, colourways };
}

function keptAsset(db: Db, hash: string): KeptAsset | null {
  const file = readAsset(db, hash);
  if (!file) return null;
  const { mediaType, fileName, bytes } = file;
  return { hash, mediaType, fileName, data: bytes.toString('base64') };
}

/** What is here under the name of a pattern that a file holds; `same` where it is just this one. */
export function patternClash(
  db: Db,
  kept: KeptPattern,
): { id: string; same: boolean; stock: boolean } | null {
  const row = rowNamed(db, kept.name);
  if (!row) return null;
  const here = keptPattern(db, row.id);
  return { id: row.id, stock: row.stock, same: here !== null && sameData(sameness(here), sameness(kept)) };
}

const sameness = ({ recipe, description, colourways }: KeptPattern): unknown => ({
  recipe,
  description,
  colourways: colourways.map(({ name, colours }) => ({ name, colours })),
});

/** True for data that are written alike: what is absent and what is undefined are the same. */
export const sameData = (one: unknown, other: unknown): boolean =>
  isDeepStrictEqual(JSON.parse(JSON.stringify(one)), JSON.parse(JSON.stringify(other)));

/** What is here under the name or id of a palette. */
export function paletteClash(
  db: Db,
  kept: KeptPalette,
): { id: string; same: boolean; stock: boolean } | null {
  const found = paletteFor(db, kept);
  if (!found) return null;
  const here = getPalette(db, found);
  const plain = (colours: KeptPalette['colours']): unknown =>
    colours.map(({ name, hex, css, gradient, ink }) => ({
      name,
      hex,
      css: css ?? null,
      ink: ink ?? null,
      gradient: gradient?.map((stop) => ({ at: stop.at, hex: stop.hex })) ?? null,
    }));
  return {
    id: found,
    stock: false,
    same: here.ok && isDeepStrictEqual(plain(here.value.colours), plain(kept.colours)),
  };
}

/** The palette here that one of a file stands for: by its id, else by its name. */
export function paletteFor(db: Db, kept: KeptPalette): string | null {
  const look = (column: 'id' | 'name_key', value: string): string | undefined =>
    statement(db, `SELECT id FROM palette WHERE studio_id = ? AND ${column} = ?`)
      .pluck()
      .get(db.studio, value) as string | undefined;
  return look('id', kept.id) ?? look('name_key', nameKey(kept.name)) ?? null;
}
