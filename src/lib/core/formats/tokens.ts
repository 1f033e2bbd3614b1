import { inkNameFault, type InkUse } from '../colour/inks';
import { readColour } from '../colour/space';
import { LIMITS } from '../recipe/limits';
import type { PaletteEntry } from '../recipe/library';
import { channelsOf, type Hex } from '../colour/parse';
import type { FoundColour, FoundPalette } from './found';

/**
 * Palettes as design tokens of the Design Tokens Community Group format (2025.10): a group for each palette, a token of
 * type `color` or `gradient` for each entry. A value carries its sRGB components and, for tools that want it, its hex.
 */
export function tokensOf(palettes: readonly { name: string; colours: readonly PaletteEntry[] }[]): string {
  const groups = palettes.map(({ name, colours }) => {
    return [name, tokenGroup(colours.map((entry) => [entry.name, tokenOf(entry)] as const))] as const;
  });
  return `${JSON.stringify(tokenGroup(groups), null, 2)}\n`;
}

function tokenOf(entry: PaletteEntry): Record<string, unknown> {
  if (entry.gradient)
    return {
      $type: 'gradient',
      $value: entry.gradient.map(({ at, hex }) => ({ color: colourValue(hex), position: at })),
    };
  const { css, ink } = entry;
  const own = { ...(css ? { 'isle.css': css } : {}), ...(ink ? { 'isle.ink': ink } : {}) };
  const more = Object.keys(own).length > 0 ? { $extensions: own } : {};
  return { $type: 'color', $value: colourValue(entry.hex), ...more };
}

/** A colour as the format's object. */
export function colourValue(hex: Hex): Record<string, unknown> {
  const components = channelsOf(hex).map((channel) => +(channel / 255).toFixed(5));
  return { colorSpace: 'srgb', components, alpha: 1, hex };
}

/** The format forbids `$` at the beginning and `{`, `}`, `.` anywhere in a name. */
const tokenName = (name: string): string =>
  name.replace(/[{}.]/g, ' ').replace(/^\$+/, '').replace(/\s+/g, ' ').trim() || 'colour';

/** Values under names that the format allows, equal ones numbered. */
export function tokenGroup<T>(entries: readonly (readonly [string, T])[]): Record<string, T> {
  const named: Record<string, T> = {};
  for (const [given, value] of entries) {
    const name = tokenName(given);
    let free = name;
    for (let number = 2; Object.hasOwn(named, free); number += 1) free = `${name} ${number}`;
    named[free] = value;
  }
  return named;
}

type Token = {
  path: string[];
  type: string | null;
  value: unknown;
  css: string | null;
  ink?: InkUse | null;
};

const DEEPEST = 40;
const MOST_TOKENS = 20_000;
const MOST_NOTES = 20;

/** Reads the colours and gradients of a token file; each top-level group becomes a palette. Aliases are followed, loops named. */
export function readTokens(text: string): FoundPalette[] | string {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return 'This is not valid JSON.';
  }
  if (!isObject(data)) return 'A token file is an object of groups and tokens; this is something else.';
  const tokens = new Map<string, Token>();
  const fault = gather(data, [], null, tokens);
  if (fault) return fault;
  const found = new Map<string, FoundColour[]>();
  const notes: string[] = [];
  for (const token of tokens.values()) {
    const resolved = resolve(token, tokens);
    if (typeof resolved === 'string') {
      if (notes.length < MOST_NOTES) notes.push(resolved);
      continue;
    }
    if (resolved.type !== 'color' && resolved.type !== 'gradient') continue;
    const colour = colourOf(token, resolved, tokens);
    if (typeof colour === 'string') {
      if (notes.length < MOST_NOTES) notes.push(colour);
      continue;
    }
    const group = token.path.length > 1 ? (token.path[0] as string) : '';
    const held = found.get(group);
    if (held) held.push(colour);
    else found.set(group, [colour]);
  }
  const palettes = [...found].map(([name, colours]): FoundPalette => ({ name, colours, notes: [] }));
  const [first] = palettes;
  if (!first) return notes[0] ?? 'The file holds no token of type color or gradient.';
  return [{ ...first, notes }, ...palettes.slice(1)];
}

function gather(
  node: Record<string, unknown>,
  path: string[],
  type: string | null,
  tokens: Map<string, Token>,
): string | null {
  if (path.length > DEEPEST) return `The groups nest more than ${DEEPEST} deep.`;
  const own = typeof node.$type === 'string' ? node.$type : type;
  if ('$value' in node) {
    if (tokens.size >= MOST_TOKENS) return `The file holds more than ${MOST_TOKENS} tokens.`;
    const more = isObject(node.$extensions) ? node.$extensions : {};
    const css = more['isle.css'];
    tokens.set(path.join('.'), {
      path,
      type: own,
      value: node.$value,
      css: typeof css === 'string' ? css : null,
      ink: readInk(more['isle.ink']),
    });
    return null;
  }
  for (const [key, child] of Object.entries(node)) {
    if (key.startsWith('$') || !isObject(child)) continue;
    const fault = gather(child, [...path, key], own, tokens);
    if (fault) return fault;
  }
  return null;
}

/** Aliases are followed so far: the format has them lead to a value, not to each other for ever. */
const LONGEST_WAY = 100;

/** Follows an alias such as `{pool.deep water}` to a token with a value of its own. */
function resolve(token: Token, tokens: ReadonlyMap<string, Token>): Token | string {
  const way = [token.path.join('.')];
  const said = `The token “${(way[0] ?? '').slice(0, 80)}”`;
  let type = token.type;
  for (let at = token; ;) {
    const alias =
      typeof at.value === 'string' && at.value.length < 1000
        ? /^\{([^{}]+)\}$/.exec(at.value.trim())?.[1]
        : undefined;
    if (alias === undefined) return at === token ? token : { ...at, type: type ?? at.type };
    if (way.includes(alias))
      return `${said} leads back to itself (${[...way, alias].slice(-6).join(' → ')}) and was left out.`;
    if (way.length >= LONGEST_WAY)
      return `${said} refers to others through more than ${LONGEST_WAY} steps; it was left out.`;
    const target = tokens.get(alias);
    if (!target)
      return `${said} refers to “${alias.slice(0, 80)}”, which is not in the file; it was left out.`;
    way.push(alias);
    type ??= target.type;
    at = target;
  }
}

function colourOf(token: Token, resolved: Token, tokens: ReadonlyMap<string, Token>): FoundColour | string {
  const name = token.path.at(-1) ?? 'Colour';
  const said = token.path.join('.');
  if (resolved.type === 'color') {
    const read = readValue(resolved.css ?? resolved.value);
    const ink = token.ink ? { ink: token.ink } : {};
    return read
      ? { name, ...read, ...ink }
      : `The colour of the token “${said}” cannot be read; it was left out.`;
  }
  const stops = Array.isArray(resolved.value) ? (resolved.value as unknown[]) : [];
  const gradient = stops.flatMap((stop, index) => {
    if (!isObject(stop)) return [];
    const place = Number(stop.position ?? index / Math.max(1, stops.length - 1));
    const inner: Token = {
      path: [...token.path, String(index)],
      type: 'color',
      value: stop.color,
      css: null,
    };
    const value = resolve(inner, tokens);
    const read = typeof value === 'string' ? null : readValue(value.value);
    return read && Number.isFinite(place) ? [{ at: Math.min(1, Math.max(0, place)), hex: read.hex }] : [];
  });
  const [first] = gradient;
  if (!first || gradient.length < 2)
    return `The gradient of the token “${said}” cannot be read; it was left out.`;
  return { name, hex: first.hex, gradient };
}

/** A spot ink as Isle writes it; one that cannot be is left out. */
function readInk(value: unknown): InkUse | null {
  if (!isObject(value)) return null;
  const { name, tint, overprint } = value;
  if (typeof name !== 'string' || typeof tint !== 'number' || !(tint >= 0.01 && tint <= 1)) return null;
  const said = name.trim().slice(0, LIMITS.nameLength);
  return inkNameFault(said) === null ? { name: said, tint, overprint: overprint === true } : null;
}

/** A value of type color: the format's object, or the hex or CSS text of its earlier drafts. */
function readValue(value: unknown): { hex: Hex; css?: string } | null {
  if (typeof value === 'string') return readText(value);
  if (!isObject(value)) return null;
  const { colorSpace, components, hex } = value;
  if (typeof colorSpace === 'string' && Array.isArray(components)) {
    const text = cssOf(colorSpace, components as unknown[]);
    const read = text === null ? null : readText(text);
    if (read) return read;
  }
  return typeof hex === 'string' ? readText(hex) : null;
}

function readText(text: string): { hex: Hex; css?: string } | null {
  const read = readColour(text);
  if (!read.ok) return null;
  return read.outside ? { hex: read.hex, css: text } : { hex: read.hex };
}

const FUNCTIONS = new Set(['hsl', 'hwb', 'lab', 'lch', 'oklab', 'oklch']);

function cssOf(space: string, components: readonly unknown[]): string | null {
  const values = components.map((value) =>
    value === 'none' ? 'none' : typeof value === 'number' && Number.isFinite(value) ? String(value) : null,
  );
  if (values.length !== 3 || values.includes(null)) return null;
  if (space === 'hsl' || space === 'hwb') return `${space}(${values[0]} ${values[1]}% ${values[2]}%)`;
  if (FUNCTIONS.has(space)) return `${space}(${values.join(' ')})`;
  return /^[a-z0-9-]+$/.test(space) ? `color(${space} ${values.join(' ')})` : null;
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
