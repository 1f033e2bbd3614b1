import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Hex } from '../colour/parse';

/** The pictures that numbers alone make. */
export const TEXTURE_KINDS = [
  'brushed',
  'paper',
  'linen',
  'twill',
  'terrazzo',
  'speckle',
  'cloud',
  'marble',
  'wood',
] as const;
export type TextureKind = (typeof TEXTURE_KINDS)[number];

/**
 * A picture made from numbers: its kind, its size in px, the number of the try, and its numbers by name as
 * {@link TEXTURES} describes them (lengths in px, angles in degrees clockwise, shares 0 to 1). It repeats by itself. Its
 * pixels are greys, which stand for the places of its colours.
 */
export type Texture = {
  kind: TextureKind;
  width: number;
  height: number;
  seed: number;
  numbers: Record<string, number>;
};

export type TextureNumber = {
  key: string;
  label: string;
  kind: 'px' | 'angle' | 'share' | 'count';
  least: number;
  most: number;
  start: number;
};

export type TextureSpec = {
  label: string;
  numbers: readonly TextureNumber[];
  /** How its greys become colours, the greys that stand for each of them, dark first, and the colours it starts with. */
  how: 'flat' | 'blend';
  colours: readonly { grey: Hex; name: string; start: Hex }[];
};

const px = (key: string, label: string, start: number, least: number, most: number): TextureNumber => ({
  key,
  label,
  kind: 'px',
  least,
  most,
  start,
});
const share = (key: string, label: string, start: number, most = 1): TextureNumber => ({
  key,
  label,
  kind: 'share',
  least: 0,
  most,
  start,
});

const pair = (dark: Hex, light: Hex, names: readonly [string, string] = ['Dark', 'Light']) => [
  { grey: '#000000', name: names[0], start: dark },
  { grey: '#ffffff', name: names[1], start: light },
];

/** What each kind has for numbers and colours. */
export const TEXTURES: Readonly<Record<TextureKind, TextureSpec>> = {
  brushed: {
    label: 'Brushed',
    numbers: [
      { key: 'angle', label: 'Direction', kind: 'angle', least: -180, most: 180, start: 0 },
      px('length', 'Length of a stroke', 180, 1, 2000),
      share('grain', 'Grain', 0.5),
      share('fine', 'Fine grain', 0.08),
    ],
    how: 'blend',
    colours: pair('#4d555b', '#e4e7e8'),
  },
  paper: {
    label: 'Paper',
    numbers: [
      px('rough', 'Roughness', 14, 2, 400),
      share('relief', 'Relief', 0.4),
      { key: 'fibres', label: 'Fibres', kind: 'count', least: 0, most: 40, start: 6 },
      px('fibre', 'Length of a fibre', 36, 4, 400),
    ],
    how: 'blend',
    colours: pair('#b9ae9a', '#fdfaf2', ['Shade', 'Paper']),
  },
  linen: {
    label: 'Linen',
    numbers: [
      px('thread', 'Thread', 14, 3, 400),
      share('uneven', 'Uneven threads', 0.45),
      share('open', 'Open between', 0.16, 0.6),
      share('apart', 'Weft from warp', 0.3),
    ],
    how: 'blend',
    colours: pair('#6b5f4c', '#efe6d2', ['Shade', 'Thread']),
  },
  twill: {
    label: 'Twill',
    numbers: [
      px('thread', 'Thread', 12, 3, 400),
      share('uneven', 'Uneven threads', 0.3),
      share('open', 'Open between', 0.06, 0.6),
      share('apart', 'Weft from warp', 0.6),
    ],
    how: 'blend',
    colours: pair('#23344d', '#b9c9d6', ['Warp', 'Weft']),
  },
  terrazzo: {
    label: 'Terrazzo',
    numbers: [
      px('chip', 'Chip', 70, 8, 1000),
      share('filled', 'Places with a chip', 0.75),
      share('gap', 'Open between', 0.22),
      share('small', 'Small chips', 0.5),
    ],
    how: 'flat',
    colours: [
      { grey: '#000000', name: 'Chip 1', start: '#2f4858' },
      { grey: '#404040', name: 'Chip 2', start: '#c06a4a' },
      { grey: '#808080', name: 'Chip 3', start: '#8aa79b' },
      { grey: '#c0c0c0', name: 'Chip 4', start: '#d9b779' },
      { grey: '#ffffff', name: 'Ground', start: '#f2ede4' },
    ],
  },
  speckle: {
    label: 'Speckle',
    numbers: [
      px('spot', 'Largest spot', 12, 2, 400),
      share('much', 'How many', 0.35),
      share('uneven', 'Uneven sizes', 0.8),
    ],
    how: 'blend',
    colours: pair('#4a3a2e', '#dfe3d6', ['Spots', 'Ground']),
  },
  cloud: {
    label: 'Cloud',
    numbers: [
      px('size', 'Size', 260, 8, 4000),
      share('detail', 'Detail', 0.5),
      share('contrast', 'Contrast', 0.7),
    ],
    how: 'blend',
    colours: pair('#5d7f9c', '#eef2f2'),
  },
  marble: {
    label: 'Marble',
    numbers: [
      px('size', 'Veins apart', 320, 16, 4000),
      share('vein', 'Width of a vein', 0.25),
      share('bend', 'Bend', 0.5),
      share('cloud', 'Cloud', 0.35),
    ],
    how: 'blend',
    colours: pair('#4b5358', '#f4f2ee', ['Veins', 'Stone']),
  },
  wood: {
    label: 'Wood',
    numbers: [
      px('ring', 'Rings apart', 60, 4, 1000),
      share('bend', 'Bend', 0.5),
      share('contrast', 'Contrast', 0.6),
      share('pores', 'Pores', 0.4),
    ],
    how: 'blend',
    colours: pair('#7a4f2e', '#d8b083', ['Late wood', 'Early wood']),
  },
};

/** Sides of a texture, px. */
export const TEXTURE_SIDE = { least: 16, most: 8192 } as const;

/** A texture as a person first sees it. */
export const freshTexture = (kind: TextureKind, side = 1024): Texture => ({
  kind,
  width: side,
  height: side,
  seed: 1,
  numbers: Object.fromEntries(TEXTURES[kind].numbers.map(({ key, start }) => [key, start])),
});

/**
 * A texture as it is seen smaller: at most `most` px a side, its lengths in proportion. Whatever lies in fields or cells
 * lies where it lies in the whole one; grain, which is that of pixels, is only alike.
 */
export function smallerTexture(texture: Texture, most: number): Texture {
  const fit = Math.min(1, most / Math.max(texture.width, texture.height));
  if (fit === 1) return texture;
  const side = (length: number): number => Math.max(1, Math.round(length * fit));
  const numbers = TEXTURES[texture.kind].numbers.map(({ key, kind, start }) => {
    const value = texture.numbers[key] ?? start;
    // A count is one to a square of the texture's own px.
    const factor = kind === 'px' ? fit : kind === 'count' ? 1 / fit ** 2 : 1;
    return [key, value * factor] as const;
  });
  return {
    ...texture,
    width: side(texture.width),
    height: side(texture.height),
    numbers: Object.fromEntries(numbers),
  };
}

/** Counts up when the same numbers make other bytes than before. */
const ENGINE = 1;

/** The name of the picture that numbers make: equal numbers have one name. */
export function textureAsset({ kind, width, height, seed, numbers }: Texture): string {
  const own = TEXTURES[kind].numbers.map(({ key }) => numbers[key]);
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(['texture', ENGINE, kind, width, height, seed, own]))));
}
