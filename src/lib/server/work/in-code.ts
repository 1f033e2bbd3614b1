import { createHash } from 'node:crypto';
import { strToU8 } from 'fflate';
import type { PatternDetail } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { CODE_FILES, type Answer, type CodeAsk, type CodeFile } from '../../contract/work';
import { resolveSlots, type SlotColours } from '../../core/colour/slots';
import type { Hex } from '../../core/colour/parse';
import { plainColours } from '../../core/colour/tint';
import { isIdentity } from '../../core/geom/affine';
import { fromPx } from '../../core/num/length';
import { slug } from '../../core/recipe/library';
import { followRecipe } from '../../core/recipe/links';
import type { Recipe } from '../../core/recipe/recipe';
import { resolveGround } from '../../core/scene/pattern';
import { compileUnit, type UnitScene } from '../../core/scene/unit';
import { fillSvg } from '../../core/svg/fill-file';
import { num } from '../../core/svg/print';
import { cssClass } from '../../core/svg/tile';
import { paletteLinks } from '../repo/links';
import { getPattern, storedAt } from '../repo/patterns';
import { patternTokens, tileAsPng, tileAsSvg } from './handing-out';
import type { Tools } from './tools';

const MEDIA: Record<CodeFile, string> = {
  'tile.svg': 'image/svg+xml',
  'tile.png': 'image/png',
  'fill.svg': 'image/svg+xml',
  'pattern.css': 'text/css; charset=utf-8',
  'pattern.json': 'application/json; charset=utf-8',
  'tokens.json': 'application/json; charset=utf-8',
};
/** Goes up when the same pattern is written otherwise than before. */
const WRITTEN = 1;

/** A file of a pattern for pages and programs, or the word that what is known of it is still right. */
export async function codeFile(
  tools: Tools,
  { known, ...ask }: CodeAsk & { known: string | null },
): Promise<Answer<'codeFile'>> {
  const found = getPattern(tools.db, ask.pattern);
  if (!found.ok) return found;
  const pattern = found.value;
  if (pattern.newest === 0)
    return fail('not_found', `“${pattern.name}” is not published yet, so it has no address.`, 'number');
  const number = ask.revision === 'newest' ? pattern.newest : ask.revision;
  const stored = storedAt(tools.db, pattern.id, number);
  if (!stored.ok) return stored;
  const recipe = followRecipe(stored.value, paletteLinks(tools.db));
  const over = coloursAsked(pattern, recipe, ask);
  if (!over.ok) return over;
  const colours = resolveSlots(recipe.slots, over.value);
  const mediaType = MEDIA[ask.file];
  const { pattern: id, file, revision: _revision, ...lies } = ask;
  const tag = tagOf({ WRITTEN, id, number, file, lies, colours, about: aboutOf(pattern) });
  // What follows a palette may be another tomorrow, and so may what is said of the pattern.
  const still = recipe.slots.every((slot) => !slot.link) && file.startsWith('tile');
  const fixed = ask.revision !== 'newest' && ask.colourway === null && still;
  // A proxy that packs what it hands on makes a weak tag of it (RFC 9110, 13.1.2: they are compared weakly).
  const tags = (known ?? '').split(',').map((one) => one.trim().replace(/^W\//, ''));
  if (tags.includes(tag)) return done({ bytes: null, mediaType, tag, fixed });
  const scene = compileUnit(recipe);
  if (scene.fault) return fail('too_heavy', scene.fault.message);
  const bytes = await writtenCode(tools, { pattern, recipe, number, scene, colours, over: over.value }, ask);
  return bytes.ok ? done({ bytes: bytes.value, mediaType, tag, fixed }) : bytes;
}

const tagOf = (of: unknown): string =>
  `"${createHash('sha256').update(JSON.stringify(of)).digest('base64url').slice(0, 24)}"`;

const aboutOf = ({ name, description, credit, newest, colourways }: PatternDetail): unknown => ({
  ...{ name, description, credit, newest, colourways },
});

/** The colours that an address asks for: those of a colourway, and single ones over them. */
function coloursAsked(
  { name, colourways }: PatternDetail,
  { slots }: Recipe,
  { colourway, colours }: CodeAsk,
): Outcome<SlotColours> {
  const way =
    colourways.find(({ id }) => id === colourway) ?? colourways.find((one) => one.name === colourway);
  if (colourway !== null && !way) {
    const all = colourways.map((one) => `“${one.name}”`).join(', ');
    return fail(
      'not_found',
      `“${name}” has no colourway “${colourway}”; it has ${all || 'none'}.`,
      'colourway',
    );
  }
  const over: Record<string, Hex> = { ...(way ? plainColours(way.colours) : {}) };
  for (const part of (colours ?? '').split(',').filter((text) => text !== '')) {
    const [, said, hex] = /^(.+):#?([0-9a-f]{6})$/i.exec(part) ?? [];
    const slot = slots.find(({ id }) => id === said) ?? slots.find((one) => one.name === said);
    if (hex === undefined)
      return fail(
        'invalid',
        `“${part}” is no colour of a slot; write it like “${slots[0]?.name ?? 'Ink'}:b02030”.`,
        'colours',
      );
    if (!slot) {
      const all = slots.map((one) => `“${one.name}”`).join(', ');
      return fail(
        'not_found',
        `“${name}” has no colour named “${said}”; it has ${all || 'none'}.`,
        'colours',
      );
    }
    over[slot.id] = `#${hex.toLowerCase()}`;
  }
  return done(over);
}

export type CodeOf = {
  pattern: PatternDetail;
  recipe: Recipe;
  number: number;
  scene: UnitScene;
  colours: Record<string, Hex>;
  over: SlotColours;
};

/** One of the files of a pattern. */
export async function writtenCode(tools: Tools, of: CodeOf, ask: CodeAsk): Promise<Outcome<Uint8Array>> {
  const { pattern, recipe, scene, colours, over } = of;
  const { name, description } = pattern;
  switch (ask.file) {
    case 'tile.svg':
      return tileAsSvg(tools, { name, scene, colours });
    case 'tile.png':
      return tileAsPng(tools, { name, scene, colours }, ask.scale);
    case 'fill.svg': {
      const { scale, rotation, x, y } = ask;
      const svg = fillSvg(scene, colours, { title: name, scale, rotation, at: { x, y } });
      return done(strToU8(await tools.pictures.embed(svg)));
    }
    case 'pattern.css':
      return done(strToU8(codeCss(of, ask)));
    case 'pattern.json':
      return done(strToU8(`${JSON.stringify(patternJson(of), null, 2)}\n`));
    case 'tokens.json':
      return done(strToU8(patternTokens([{ name, description, recipe }], over)));
  }
}

/** A class whose background is the file beside the style sheet: a tile where one repeats it, else one that fills what it lies on. */
function codeCss({ pattern, scene, colours }: CodeOf, ask: CodeAsk): string {
  const { scale, rotation, x, y, colourway, colours: asked } = ask;
  const { width, height, matrix } = scene.cell;
  const looks = {
    ...(colourway === null ? {} : { colourway }),
    ...(asked === null ? {} : { colours: asked }),
  };
  // Browsers lay tiles whose px are no whole ones a little beside their place.
  const whole = [width * scale, height * scale].every((side) => Math.abs(side - Math.round(side)) < 1e-6);
  const upright = isIdentity(matrix) && rotation === 0 && x === 0 && y === 0 && whole;
  const query = new URLSearchParams(
    upright
      ? looks
      : { ...looks, ...numbersOf({ scale: [scale, 1], rotation: [rotation, 0], x: [x, 0], y: [y, 0] }) },
  ).toString();
  return cssClass({
    className: `pattern-${slug(pattern.name)}`,
    says: `${pattern.name}: unit ${num(width)} × ${num(height)} px`,
    image: `${upright ? 'tile' : 'fill'}.svg${query === '' ? '' : `?${query.replaceAll("'", '%27')}`}`,
    size: upright ? `${num(width * scale)}px ${num(height * scale)}px` : '100% 100%',
    ground: resolveGround(scene, colours)?.colour ?? null,
  });
}

/** Numbers that are not what they are where nothing is said. */
const numbersOf = (all: Record<string, readonly [number, number]>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(all).flatMap(([key, [value, usual]]) => (value === usual ? [] : [[key, String(value)]])),
  );

/** What a program needs to know of a pattern, and the recipe itself. */
function patternJson({ pattern, recipe, number, scene, colours }: CodeOf): unknown {
  const { name, description, newest, colourways, credit, tags } = pattern;
  const { width, height, matrix } = scene.cell;
  const sides = (size: { width: number; height: number }): unknown => ({
    px: { width: +size.width.toFixed(4), height: +size.height.toFixed(4) },
    mm: { width: +fromPx(size.width, 'mm').toFixed(4), height: +fromPx(size.height, 'mm').toFixed(4) },
  });
  const slotName = new Map(recipe.slots.map((slot) => [slot.id, slot.name]));
  return {
    ...{ name, description, tags, revision: number, newest, credit },
    unit: sides(scene.pitch),
    tile: isIdentity(matrix) ? sides({ width, height }) : null,
    repeat: recipe.kind === 'composed' ? recipe.repeat : null,
    colours: recipe.slots.map((slot) => ({ name: slot.name, id: slot.id, hex: colours[slot.id] })),
    colourways: colourways.map((way) => ({
      name: way.name,
      id: way.id,
      colours: Object.fromEntries(
        Object.entries(plainColours(way.colours)).map(([slot, hex]) => [slotName.get(slot) ?? slot, hex]),
      ),
    })),
    files: CODE_FILES,
    recipe,
  };
}
