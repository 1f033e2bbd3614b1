import { writeFileSync } from 'node:fs';
import { strFromU8, strToU8, zipSync, type Zippable } from 'fflate';
import { done, fail, type Outcome } from '../../contract/failure';
import { resolveSlots, type SlotColours } from '../../core/colour/slots';
import { colourValue, tokenGroup, tokensOf } from '../../core/formats/tokens';
import { withResolution } from '../../core/formats/png';
import {
  LIBRARY_VERSION,
  creditsDue,
  freeSlug,
  slug,
  type KeptPattern,
  type LibraryContent,
} from '../../core/recipe/library';
import { compileUnit, type UnitScene } from '../../core/scene/unit';
import type { Colours } from '../../core/svg/pieces';
import { librarySvg } from '../../core/svg/library-svg';
import { cssComment, patternCss, tileSvg } from '../../core/svg/tile';
import { LIMITS } from '../../core/recipe/limits';
import { spaceFailure } from '../render/space';
import { keptContent } from '../repo/kept';
import type { Answer, HandOut } from '../../contract/work';
import { areaPicture } from './area-picture';
import type { Tools } from './tools';

type OutFile = { fileName: string; mediaType: string; bytes: Uint8Array; leftOut: string[] };

/** Writes patterns as a file at `path`. */
export async function handOut(tools: Tools, wanted: HandOut, path: string): Promise<Answer<'handOut'>> {
  const made = await outFile(tools, wanted, path);
  if (!made.ok) return made;
  const { bytes, ...said } = made.value;
  try {
    writeFileSync(path, bytes);
  } catch (error) {
    const failure = spaceFailure(error, 'The file');
    if (failure) return failure;
    throw error;
  }
  return done(said);
}

/** The file, and the names of patterns that cannot be read and were left out of it. */
async function outFile(
  tools: Tools,
  { ids, as, scale, area }: HandOut,
  path: string,
): Promise<Outcome<OutFile>> {
  const content = keptContent(tools.db, ids);
  const { patterns, leftOut } = content;
  const [first] = patterns;
  if (!first)
    return leftOut.length > 0
      ? fail(
          'unsupported',
          `“${leftOut[0]}” cannot be read, so it cannot be handed out; see its page.`,
          'ids',
        )
      : fail('not_found', 'There is nothing to hand out: none of these patterns is published yet.', 'ids');
  const title = patterns.length === 1 ? first.name : ids ? `${patterns.length} patterns` : 'Library';
  const stem = patterns.length === 1 ? slug(first.name) : ids ? 'isle-patterns' : 'isle-library';
  const text = (ending: string, mediaType: string, body: string): Outcome<OutFile> =>
    done({ fileName: `${stem}.${ending}`, mediaType, bytes: strToU8(body), leftOut });
  switch (as) {
    case 'svg':
      return text('svg', 'image/svg+xml', await tools.pictures.embed(librarySvg(content, title)));
    case 'zip':
      return done({ fileName: `${stem}.zip`, mediaType: 'application/zip', bytes: packed(content), leftOut });
    case 'tokens':
      return text('tokens.json', 'application/json', patternTokens(content.patterns));
    case 'css':
      return cssFile(tools, patterns, (body, refused) => {
        const out = text('css', 'text/css', body);
        return out.ok ? done({ ...out.value, leftOut: [...leftOut, ...refused] }) : out;
      });
    case 'area': {
      if (patterns.length > 1 || !area)
        return fail('invalid', 'A picture shows one pattern; choose one.', 'ids');
      const made = await areaPicture(tools, first, area, path);
      if (!made.ok) return made;
      const { ending, ...file } = made.value;
      return done({ ...file, fileName: `${slug(first.name)}.${ending}`, leftOut });
    }
    case 'tile-svg':
    case 'tile-png':
      return tileFile(tools, first, patterns.length, { as, scale });
  }
}

async function cssFile(
  tools: Tools,
  patterns: readonly KeptPattern[],
  write: (body: string, refused: readonly string[]) => Outcome<OutFile>,
): Promise<Outcome<OutFile>> {
  const taken = new Set<string>();
  const parts: string[] = [];
  const refused: { name: string; why: string }[] = [];
  for (const { name, recipe } of patterns) {
    const scene = compileUnit(recipe);
    const colours = resolveSlots(recipe.slots, {});
    const tile = tileSvg(scene, colours, { title: name });
    if (!tile.ok) {
      refused.push({ name, why: tile.message });
      continue;
    }
    const whole = { ...tile, svg: await tools.pictures.embed(tile.svg) };
    const className = `pattern-${freeSlug(name, taken)}`;
    parts.push(patternCss(scene, colours, { name, className, tile: whole }));
  }
  const [first] = refused;
  if (parts.length === 0 && first) return fail('unsupported', `“${first.name}”: ${first.why}`, 'as');
  const without = refused.map(({ name, why }) => cssComment(`Left out: “${name}”. ${why}`));
  return write(
    [...without, ...parts].join('\n'),
    refused.map(({ name }) => name),
  );
}

async function tileFile(
  tools: Tools,
  { name, recipe }: KeptPattern,
  count: number,
  { as, scale }: { as: 'tile-svg' | 'tile-png'; scale: number },
): Promise<Outcome<OutFile>> {
  if (count > 1) return fail('invalid', 'A tile file holds one pattern; choose one.', 'ids');
  const drawn = { name, scene: compileUnit(recipe), colours: resolveSlots(recipe.slots, {}) };
  const [ending, mediaType] = as === 'tile-svg' ? ['svg', 'image/svg+xml'] : ['png', 'image/png'];
  const made = await (as === 'tile-svg' ? tileAsSvg(tools, drawn) : tileAsPng(tools, drawn, scale));
  if (!made.ok) return made;
  const fileName = `${slug(name)} tile.${ending}`;
  return done({ fileName, mediaType, bytes: made.value, leftOut: [] });
}

/** What a tile is made of. */
export type TileOf = { name: string; scene: UnitScene; colours: Colours };

export async function tileAsSvg(
  tools: Tools,
  { name, scene, colours }: TileOf,
  pixels?: { width: number; height: number },
): Promise<Outcome<Uint8Array>> {
  const tile = tileSvg(scene, colours, { title: name, ...(pixels ? { pixels } : {}) });
  if (!tile.ok) return fail('unsupported', `“${name}”: ${tile.message}`, 'as');
  return done(strToU8(await tools.pictures.embed(tile.svg)));
}

/** A pixel of a tile file is a CSS px divided by `scale`, as nearly as a whole number of them comes to it. */
export async function tileAsPng(tools: Tools, of: TileOf, scale: number): Promise<Outcome<Uint8Array>> {
  const { width, height } = of.scene.cell;
  const pixels = {
    width: Math.max(1, Math.round(width * scale)),
    height: Math.max(1, Math.round(height * scale)),
  };
  if (pixels.width * pixels.height > LIMITS.exportPixels / 4)
    return fail(
      'too_large',
      `The tile would be ${pixels.width} × ${pixels.height} px; choose a smaller scale.`,
      'scale',
    );
  const svg = await tileAsSvg(tools, of, pixels);
  if (!svg.ok) return svg;
  // Whole px may be more or less than the unit's; the resolution says how long its sides are all the same.
  const png = await tools.pool.png(strFromU8(svg.value));
  return done(withResolution(png, (96 * pixels.width) / width, (96 * pixels.height) / height));
}

/** Recipes, pictures, palettes and credits as a zip package; `isle.json` is its table of contents. */
function packed({ patterns, palettes, assets }: LibraryContent): Uint8Array {
  const files: Zippable = {};
  const taken = new Set<string>();
  const entries = patterns.map(({ recipe, ...rest }) => {
    const file = `recipes/${freeSlug(rest.name, taken)}.json`;
    files[file] = strToU8(JSON.stringify(recipe));
    return { ...rest, recipe: file };
  });
  const endings: Record<string, string> = {
    'image/png': 'png',
    'image/jpeg': 'jpg',
    'image/webp': 'webp',
    'image/svg+xml': 'svg',
  };
  const pictures = assets.map(({ data, ...rest }) => {
    const file = `pictures/${rest.hash}.${endings[rest.mediaType] ?? 'bin'}`;
    // Pictures are packed already; packing them again costs time and saves nothing.
    files[file] = [Buffer.from(data, 'base64'), { level: 0 }];
    return { ...rest, file };
  });
  const names = new Set<string>();
  for (const one of palettes)
    files[`palettes/${freeSlug(one.name, names, 'palette')}.tokens.json`] = strToU8(tokensOf([one]));
  const due = creditsDue(patterns);
  if (due.length > 0) files['CREDITS.txt'] = strToU8(`Credits that are due:\n\n${due.join('\n')}\n`);
  const manifest = { version: LIBRARY_VERSION, patterns: entries, palettes, assets: pictures };
  files['isle.json'] = strToU8(JSON.stringify(manifest, null, 1));
  return zipSync(files, { level: 6 });
}

/** Patterns as tokens: the colours of their slots, their unit as dimensions, and the tile for tools that can show it. */
export function patternTokens(
  patterns: readonly Pick<KeptPattern, 'name' | 'description' | 'recipe'>[],
  over: SlotColours = {},
): string {
  const groups = patterns.map(({ name, description, recipe }) => {
    const scene = compileUnit(recipe);
    const colours = resolveSlots(recipe.slots, over);
    const tile = tileSvg(scene, colours, { title: name });
    const dimension = (value: number): unknown => ({
      $type: 'dimension',
      $value: { value: +value.toFixed(4), unit: 'px' },
    });
    return [
      name,
      {
        ...(description ? { $description: description } : {}),
        unit: { width: dimension(scene.cell.width), height: dimension(scene.cell.height) },
        colours: tokenGroup(
          recipe.slots.map((slot) => [
            slot.name,
            { $type: 'color', $value: colourValue(colours[slot.id] ?? slot.colour) },
          ]),
        ),
        ...(tile.ok ? { $extensions: { 'isle.tile': tile.svg } } : {}),
      },
    ] as const;
  });
  return `${JSON.stringify(tokenGroup(groups), null, 2)}\n`;
}
